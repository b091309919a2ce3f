import { QuickJobBody } from '@/contracts/job';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { quickJob } from '@/server/services/guided-job';

export const POST = recording({ body: QuickJobBody, run: quickJob, reply: plainReply });
export const ALL = notThatWay;
