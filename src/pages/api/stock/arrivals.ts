import { OrderArrivedBody } from '@/contracts/plan';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { orderArrived } from '@/server/services/order-part';

export const POST = recordingSite({ body: OrderArrivedBody, run: orderArrived, reply: plainReply });
export const ALL = notThatWay;
