import { answerApi } from '@/server/http/routes';

export const ALL = answerApi;
