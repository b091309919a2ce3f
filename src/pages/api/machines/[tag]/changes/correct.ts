import { CorrectChangeBody } from '@/contracts/requests';
import { notThatWay, recording } from '@/server/http/endpoint';
import { changeReply } from '@/server/http/replies';
import { correctChange } from '@/server/services/record-change';

export const POST = recording({ body: CorrectChangeBody, run: correctChange, reply: changeReply });
export const ALL = notThatWay;
