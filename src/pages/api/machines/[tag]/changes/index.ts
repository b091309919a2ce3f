import { RecordChangeBody } from '@/contracts/requests';
import { notThatWay, recording } from '@/server/http/endpoint';
import { changeReply } from '@/server/http/replies';
import { recordChange } from '@/server/services/record-change';

export const POST = recording({ body: RecordChangeBody, run: recordChange, reply: changeReply });
export const ALL = notThatWay;
