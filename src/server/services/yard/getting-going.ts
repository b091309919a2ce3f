import { loadInstruments } from '../../repositories/instruments';
import { loadParts } from '../../repositories/stock';
import type { Context } from './user-action';
import type { Yard } from './yard';

/** Facts a new yard needs before its pages are useful, in the best order. */
export const FIRST_STEPS = ['machine', 'part', 'fitted', 'meter', 'baseline'] as const;
export type FirstStep = (typeof FIRST_STEPS)[number];

/** Which of the first steps are done. */
export const gettingGoing = async (
  { db }: Pick<Context, 'db'>,
  yard: Yard,
): Promise<readonly { readonly key: FirstStep; readonly done: boolean }[]> => {
  const [baseline, parts, meters] = [
    await db.selectFrom('airflow_test').select('id').where('is_baseline', '=', 1).limit(1).executeTakeFirst(),
    await loadParts(db),
    await loadInstruments(db),
  ];
  const done: Record<FirstStep, boolean> = {
    machine: yard.machines.length > 0,
    part: parts.length > 0,
    fitted: yard.machines.some((m) => m.machine.stages.some((s) => s.part !== null)),
    meter: meters.length > 0,
    baseline: baseline !== undefined,
  };
  return FIRST_STEPS.map((key) => ({ key, done: done[key] }));
};
