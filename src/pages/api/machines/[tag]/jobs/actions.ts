import { JobActionBody } from '@/contracts/job';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { doInJob } from '@/server/services/guided-job';

export const POST = recording({ body: JobActionBody, run: doInJob, reply: plainReply });
export const ALL = notThatWay;
