import { z } from 'zod';
import { type Failure, fail, failure, ok, type Result } from '@/core/failure/failure';
import { parseQuantity } from '@/core/units';
import type { RingQuestion } from '@/core/upgrade/ring';

// The measurements for an adapter ring, as in an address.

const Typed = z.string().trim().max(24).default('');

export const RingQuery = z.object({
  filter: Typed,
  rim: Typed,
  bead: Typed,
  ramp: z.literal('1').optional().catch(undefined),
  gasket: Typed,
  gasketWidth: Typed,
  sheet: Typed,
  brackets: Typed,
  screw: Typed,
  boardWidth: Typed,
  boardHeight: Typed,
});
export type RingQuery = z.infer<typeof RingQuery>;

const LENGTHS = [
  'filter',
  'rim',
  'bead',
  'gasket',
  'gasketWidth',
  'sheet',
  'screw',
  'boardWidth',
  'boardHeight',
] as const;
/** Fields that may be left out. */
const MAY_LACK: ReadonlySet<string> = new Set(['bead', 'boardWidth', 'boardHeight']);
const USUAL_BRACKETS = 4;

/** Whether anything was typed. */
export const asksForRing = (q: RingQuery): boolean => q.filter !== '' || q.rim !== '';

/** The measurements, in m. Returns a failure per unreadable field; `ring.figure` for a missing one. */
export const readRing = (q: RingQuery): Result<RingQuestion> => {
  const failures: Failure[] = [];
  const read = (key: (typeof LENGTHS)[number]): number | null => {
    if (q[key] === '') {
      if (!MAY_LACK.has(key)) failures.push(failure('ring.missing', key, { field: key }));
      return null;
    }
    const parsed = parseQuantity(q[key], 'length', 'mm');
    if (!parsed.ok) failures.push(...parsed.failures.map((f) => ({ ...f, path: key })));
    return parsed.ok ? parsed.value.valueSi : null;
  };
  const [filterM, rimM, beadM, gasketM, gasketWidthM, sheetM, screwM, widthM, heightM] = LENGTHS.map(read);
  const brackets = q.brackets === '' ? USUAL_BRACKETS : Math.round(Number(q.brackets));
  if (failures.length > 0) return fail(...failures);
  return ok({
    filterM: filterM ?? 0,
    rimM: rimM ?? 0,
    beadM: beadM ?? null,
    ramp: q.ramp === '1',
    gasketM: gasketM ?? 0,
    gasketWidthM: gasketWidthM ?? 0,
    sheetM: sheetM ?? 0,
    screwM: screwM ?? 0,
    brackets,
    board: widthM && heightM ? { widthM, heightM } : null,
  });
};
