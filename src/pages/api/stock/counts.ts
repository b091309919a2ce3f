import { CountStockBody } from '@/contracts/requests';
import { notThatWay, recording } from '@/server/http/endpoint';
import { countStock } from '@/server/services/count-stock';

export const POST = recording({
  body: CountStockBody,
  run: (context, _tag, body) => countStock(context, body),
  reply: ({ id }) => ({ id, warnings: [] }),
});
export const ALL = notThatWay;
