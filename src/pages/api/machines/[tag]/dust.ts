import { StateDustBody } from '@/contracts/dust';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { stateDust } from '@/server/services/state-dust';

export const POST = recording({ body: StateDustBody, run: stateDust, reply: plainReply });
export const ALL = notThatWay;
