import type { APIRoute } from 'astro';
import { app } from '@/server/http/app';
import { calendarFeed } from '@/server/http/calendar-feed';
import { planYard } from '@/server/services/plan-yard';

export const GET: APIRoute = async () => {
  const { context } = await app();
  return new Response(calendarFeed(await planYard(context), context.now()), {
    headers: { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'no-store' },
  });
};
