import { OrderPartBody } from '@/contracts/plan';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { orderPart } from '@/server/services/order-part';

export const POST = recordingSite({ body: OrderPartBody, run: orderPart, reply: plainReply });
export const ALL = notThatWay;
