import type { APIRoute } from 'astro';
import { app } from '@/server/http/app';
import { loadBench } from '@/server/services/measuring/bench';
import { csvOf, csvReply } from '@/server/services/house/csv';
import { logEntries } from '@/view-models/log-entries';
import { readChoices } from '@/view-models/page-context';

/** The file of a machine as a table, in the reader's units. */
export const GET: APIRoute = async ({ params, url, cookies, redirect }) => {
  const { bench } = await loadBench((await app()).context, params['tag'] ?? '');
  if (!bench) return redirect('/no-machine');
  const from = url.searchParams.get('from') ?? '';
  const to = url.searchParams.get('to') ?? '9999-12-31';
  const rows = logEntries(bench, readChoices(cookies).units)
    .filter((e) => e.day >= from && e.day <= to)
    .map((e) => [e.day, e.by, e.title, e.said?.sentence ?? null, e.text, e.typed, e.note, e.withdrawn ? 'yes' : 'no']);
  const headings = ['day', 'by', 'what', 'verdict', 'text', 'typed', 'note', 'withdrawn'];
  return csvReply(`${bench.status.machine.tag}-file`, csvOf(headings, rows));
};
