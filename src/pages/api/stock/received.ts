import { ReceivedBody } from '@/contracts/requests';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { receiveParts } from '@/server/services/count-stock';

export const POST = recordingSite({ body: ReceivedBody, run: receiveParts, reply: plainReply });
export const ALL = notThatWay;
