import type { APIRoute } from 'astro';
import { app } from '@/server/http/app';
import { orderList } from '@/server/services/stock/order-list';

export const GET: APIRoute = async () => {
  const { context } = await app();
  return new Response(await orderList(context), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="moorwind-orders.csv"',
      'cache-control': 'no-store',
    },
  });
};
