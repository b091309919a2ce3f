import { WithdrawBody } from '@/contracts/requests';
import { notThatWay, recording } from '@/server/http/endpoint';
import { changeReply } from '@/server/http/replies';
import { withdrawChange } from '@/server/services/record-change';

export const POST = recording({ body: WithdrawBody, run: withdrawChange, reply: changeReply });
export const ALL = notThatWay;
