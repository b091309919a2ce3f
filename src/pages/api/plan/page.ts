import type { APIRoute } from 'astro';
import { app } from '@/server/http/app';
import { notThatWay } from '@/server/http/endpoint';
import { json } from '@/server/http/respond';
import { loadPlanPage } from '@/server/services/plan-page';
import { loadYard } from '@/server/services/yard';

export const GET: APIRoute = async () => {
  const { context } = await app();
  return json(await loadPlanPage(context, await loadYard(context)));
};
export const ALL = notThatWay;
