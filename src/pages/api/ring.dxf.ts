import type { APIRoute } from 'astro';
import { RingQuery } from '@/contracts/ring';
import { notThatWay } from '@/server/http/endpoint';
import { respondProblems } from '@/server/http/respond';
import { dxfOfRing, ringOf } from '@/server/services/ring-drawing';

export const GET: APIRoute = ({ url }) => {
  const plan = ringOf(RingQuery.parse(Object.fromEntries(url.searchParams)));
  return plan.ok
    ? new Response(dxfOfRing(plan.value), {
        headers: { 'content-type': 'image/vnd.dxf', 'content-disposition': 'attachment; filename="ring.dxf"' },
      })
    : respondProblems(plan.failures);
};

export const ALL = notThatWay;
