import { MachineAwayBody } from '@/contracts/plan';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { logAway } from '@/server/services/log-wear';

export const POST = recording({ body: MachineAwayBody, run: logAway, reply: plainReply });
export const ALL = notThatWay;
