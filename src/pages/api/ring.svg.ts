import type { APIRoute } from 'astro';
import { RingQuery } from '@/contracts/ring';
import { notThatWay } from '@/server/http/endpoint';
import { respondProblems } from '@/server/http/respond';
import { ringOf, svgOfRing } from '@/server/services/ring-drawing';

export const GET: APIRoute = ({ url }) => {
  const plan = ringOf(RingQuery.parse(Object.fromEntries(url.searchParams)));
  return plan.ok
    ? new Response(svgOfRing(plan.value), {
        headers: { 'content-type': 'image/svg+xml', 'content-disposition': 'attachment; filename="ring.svg"' },
      })
    : respondProblems(plan.failures);
};

export const ALL = notThatWay;
