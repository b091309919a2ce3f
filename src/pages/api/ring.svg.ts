import type { APIRoute } from 'astro';
import { drawingOf } from '@/core/upgrade/drawing';
import { RingQuery } from '@/contracts/ring';
import { notThatWay } from '@/server/http/endpoint';
import { respondProblems } from '@/server/http/respond';
import { ringOf, svgOf } from '@/server/services/ring-drawing';

export const GET: APIRoute = ({ url }) => {
  const plan = ringOf(RingQuery.parse(Object.fromEntries(url.searchParams)));
  return plan.ok
    ? new Response(svgOf(drawingOf(plan.value)), {
        headers: { 'content-type': 'image/svg+xml', 'content-disposition': 'attachment; filename="ring.svg"' },
      })
    : respondProblems(plan.failures);
};

export const ALL = notThatWay;
