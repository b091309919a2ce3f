import { RetireBody } from '@/contracts/machine-edit';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { retireMachine } from '@/server/services/retire';

export const POST = recording({ body: RetireBody, run: retireMachine, reply: plainReply, evenGone: true });
export const ALL = notThatWay;
