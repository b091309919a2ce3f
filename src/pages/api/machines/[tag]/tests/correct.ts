import { CorrectTestBody } from '@/contracts/requests';
import { notThatWay, recording } from '@/server/http/endpoint';
import { testReply } from '@/server/http/replies';
import { correctTest } from '@/server/services/record-test';

export const POST = recording({ body: CorrectTestBody, run: correctTest, reply: testReply });
export const ALL = notThatWay;
