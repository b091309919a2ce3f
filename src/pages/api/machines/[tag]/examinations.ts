import { ExaminationBody } from '@/contracts/dust';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { recordExamination } from '@/server/services/state-dust';

export const POST = recording({ body: ExaminationBody, run: recordExamination, reply: plainReply });
export const ALL = notThatWay;
