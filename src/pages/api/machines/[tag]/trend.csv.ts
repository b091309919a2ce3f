import type { APIRoute } from 'astro';
import { failure } from '@/core/failure/failure';
import { app } from '@/server/http/app';
import { notThatWay } from '@/server/http/endpoint';
import { respondProblems } from '@/server/http/respond';
import { loadBench } from '@/server/services/bench';
import { trendKeys } from '@/server/services/trend';
import { trendCsv } from '@/server/services/trend-csv';

export const GET: APIRoute = async ({ params, url }) => {
  const tag = params['tag'] ?? '';
  const { bench } = await loadBench((await app()).context, tag);
  if (!bench) return respondProblems([failure('machine.unknown', '', { tag })]);
  const wanted = url.searchParams.get('of');
  const key = trendKeys(bench).find((k) => [k.method, k.place, k.stageId ?? ''].join('.') === wanted);
  if (!key) return respondProblems([failure('test.unknown', 'of')]);
  const name = `${bench.status.machine.tag}-${wanted ?? 'trend'}.csv`;
  return new Response(trendCsv(bench, key), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${name.replace(/[^A-Za-z0-9.-]/g, '_')}"`,
    },
  });
};

export const ALL = notThatWay;
