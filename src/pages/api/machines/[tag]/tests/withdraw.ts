import { WithdrawBody } from '@/contracts/requests';
import { notThatWay, recording } from '@/server/http/endpoint';
import { testReply } from '@/server/http/replies';
import { withdrawTest } from '@/server/services/record-test';

export const POST = recording({ body: WithdrawBody, run: withdrawTest, reply: testReply });
export const ALL = notThatWay;
