import { RingQuery } from '@/contracts/ring';
import { failure } from '@/core/failure/failure';
import { loadBench } from '../../services/measuring/bench';
import { planYard } from '../../services/plan/plan-yard';
import { dxfOfRing, ringOf, svgOfRing } from '../../services/upgrade/ring-drawing';
import { sheetTemplate } from '../../services/house/sheet-template';
import { trendKeys } from '../../services/measuring/trend';
import { trendCsv } from '../../services/measuring/trend-csv';
import type { Context } from '../../services/yard/user-action';
import { machineNamed, loadYard } from '../../services/yard/yard';
import { app } from '../app';
import { bundleReply } from '../bundle-reply';
import { calendarFeed } from '../calendar-feed';
import type { Handler } from '../endpoint';
import { pictureReply } from '../picture-body';
import { respondProblems } from '../respond';

// Handlers that answer files.

const download = (body: string, type: string, name: string): Response =>
  new Response(body, {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${name.replace(/[^A-Za-z0-9.-]/g, '_')}"`,
    },
  });

type StoredPicture = { readonly bytes: Uint8Array; readonly mediaType: string } | null;

/** Answers a stored picture by its number. */
export const storedPicture =
  (read: (context: Context, id: number) => Promise<StoredPicture>): Handler =>
  async (_astro, params) => {
    const photo = await read((await app()).context, Number(params['id']));
    return photo ? pictureReply(photo) : respondProblems([failure('photo.unknown')]);
  };

/** Answers one trend of a machine; `?of=method.place.stage` names it. */
export const trendAsCsv: Handler = async ({ url }, params) => {
  const tag = params['tag'] ?? '';
  const { bench } = await loadBench((await app()).context, tag);
  if (!bench) return respondProblems([failure('machine.unknown', '', { tag })]);
  const wanted = url.searchParams.get('of');
  const key = trendKeys(bench).find((k) => [k.method, k.place, k.stageId ?? ''].join('.') === wanted);
  if (!key) return respondProblems([failure('test.unknown', 'of')]);
  return download(
    trendCsv(bench, key),
    'text/csv; charset=utf-8',
    `${bench.status.machine.tag}-${wanted ?? 'trend'}.csv`,
  );
};

/** Answers an empty sheet of a kind: its headings. */
export const emptySheet: Handler = (_astro, params) => {
  const kind = params['kind'] ?? '';
  const template = sheetTemplate(kind);
  return template === null
    ? respondProblems([failure('page.unknown')])
    : download(template, 'text/csv; charset=utf-8', `moorwind-${kind}.csv`);
};

const RING_FILES = {
  svg: { type: 'image/svg+xml', draw: svgOfRing },
  dxf: { type: 'image/vnd.dxf', draw: dxfOfRing },
} as const;

/** Answers the drawing of an adapter ring. */
export const ringFile =
  (format: keyof typeof RING_FILES): Handler =>
  ({ url }) => {
    const plan = ringOf(RingQuery.parse(Object.fromEntries(url.searchParams)));
    const { type, draw } = RING_FILES[format];
    return plan.ok ? download(draw(plan.value), type, `ring.${format}`) : respondProblems(plan.failures);
  };

/** Answers everything as one export file. */
export const yardBundle: Handler = async () => {
  const { today } = await loadYard((await app()).context);
  return bundleReply({ kind: 'yard' }, `moorwind-${today}.zip`);
};

/** Answers one machine with its file as an export file. */
export const machineBundle: Handler = async (_astro, params) => {
  const tag = params['tag'] ?? '';
  const machine = await machineNamed((await app()).context, tag);
  if (!machine) return respondProblems([failure('machine.unknown', '', { tag })]);
  return bundleReply({ kind: 'machine', tag: machine.tag }, `moorwind-${machine.tag}.zip`);
};

/** Answers the plan as an iCalendar feed. */
export const planCalendar: Handler = async () => {
  const { context } = await app();
  return new Response(calendarFeed(await planYard(context), context.now()), {
    headers: { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'no-store' },
  });
};
