import { StartJobBody } from '@/contracts/job';
import { notThatWay, reading, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { openJobOf } from '@/server/services/guided-job';
import { startJob } from '@/server/services/start-job';

export const POST = recording({ body: StartJobBody, run: startJob, reply: plainReply });
export const GET = reading(openJobOf);
export const ALL = notThatWay;
