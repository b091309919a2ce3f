import { JobDeedBody } from '@/contracts/job';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { doInJob } from '@/server/services/guided-job';

export const POST = recording({ body: JobDeedBody, run: doInJob, reply: plainReply });
export const ALL = notThatWay;
