import { RecordTestBody } from '@/contracts/requests';
import { notThatWay, recording } from '@/server/http/endpoint';
import { testReply } from '@/server/http/replies';
import { recordTest } from '@/server/services/record-test';

export const POST = recording({ body: RecordTestBody, run: recordTest, reply: testReply });
export const ALL = notThatWay;
