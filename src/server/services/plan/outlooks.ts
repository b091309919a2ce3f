import { setImmediate } from 'node:timers/promises';
import { addDays, type CalendarDate, daysBetween } from '@/core/calendar/calendar-date';
import { worksOn } from '@/core/calendar/working-days';
import { laterBy, outlooksOf, type StageOutlook } from '@/core/forecast/from-record';
import type { MachineRecord } from '@/core/forecast/machine-facts';
import { isWear } from '@/core/interval/rules';
import type { Machine } from '@/core/machine/machine';
import { type ChangeRecord, inForce, type TestRecord } from '@/core/record/records';
import type { Site } from '@/core/site/site';
import { asRecorded } from '@/core/status/machine-status';
import type { Db } from '../../db/connect';
import { loadChanges } from '../../repositories/changes';
import { loadMachines } from '../../repositories/machines';
import { loadMade, loadRevision, type MadeOn, madeSince, saveMade, unlessBusy } from '../../repositories/made';
import { loadTests } from '../../repositories/tests';

/** The same yard on the same day is forecast the same. */
const SEED = 20_261;

/** The day and the yard a forecast is made for. */
export interface OutlookDay {
  readonly site: Site;
  readonly today: CalendarDate;
  /** How many writes the records had seen. */
  readonly revision: number;
}

export interface MachineRecords {
  readonly machine: Machine;
  readonly tests: readonly TestRecord[];
  readonly changes: readonly ChangeRecord[];
}

/** The record for a forecast: a missing stage that was fitted since is present again. */
export const forecastRecord = (
  { site, today }: Pick<OutlookDay, 'site' | 'today'>,
  { machine, tests, changes }: MachineRecords,
): MachineRecord => ({
  machine: asRecorded(machine, changes),
  changes: inForce(changes),
  tests,
  today,
  works: worksOn(site.working, today),
  seed: SEED,
});

/** From the records of one machine: the slow way. */
const makeOutlooks = async (db: Db, day: OutlookDay, machineId: number): Promise<readonly StageOutlook[]> => {
  const [machine] = await loadMachines(db, machineId);
  if (!machine) return [];
  const wears = machine.stages.some((s) => s.rules.some((r) => isWear(r.rule)));
  const tests = wears ? await loadTests(db, machineId) : [];
  const changes = await loadChanges(db, day.site.timeZone, machineId);
  return outlooksOf(forecastRecord(day, { machine, tests, changes }));
};

interface HeldOutlooks {
  readonly rev: number;
  readonly day: CalendarDate;
  readonly outlooks: readonly StageOutlook[];
}
const held = new WeakMap<Db, Map<number, HeldOutlooks>>();

const keep = async (db: Db, day: OutlookDay, made: ReadonlyMap<number, readonly StageOutlook[]>): Promise<void> => {
  const save = async (tx: Db) => {
    // Later records made these outdated: the next request rebuilds them.
    if ((await loadRevision(tx)) !== day.revision) return;
    for (const [machineId, content] of made)
      await saveMade(tx, 'machine_forecast', { machineId, day: day.today, content });
  };
  if (made.size === 0) return;
  // Where another program writes, they are shown without being stored.
  await unlessBusy(db, save);
};

/**
 * A larger yard is not forecast again all on one morning: where nothing was recorded since, a forecast of some days ago
 * is shifted. Modelling choices.
 */
const AT_ONCE = 60;
const KEPT_DAYS = 3;
const SPREAD_DAYS = 4;

const oldestKept = (day: OutlookDay, machineId: number, machines: number): CalendarDate =>
  machines <= AT_ONCE ? day.today : addDays(day.today, -(KEPT_DAYS + (machineId % SPREAD_DAYS)));

/** Machines forecast between two breaths, so that what else is asked meanwhile is answered. */
const AT_A_TIME = 4;

/** The forecasts of some machines on a day, by their number: read where they were made, made where their records or the day have changed. */
export const outlooksOn = async (
  db: Db,
  day: OutlookDay,
  machineIds: readonly number[],
): Promise<ReadonlyMap<number, readonly StageOutlook[]>> => {
  const mine = held.get(db) ?? new Map<number, HeldOutlooks>();
  held.set(db, mine);
  const kept = await madeSince(db, 'machine_forecast', addDays(day.today, -(KEPT_DAYS + SPREAD_DAYS)));
  const made = new Map<number, readonly StageOutlook[]>();
  const all = new Map<number, readonly StageOutlook[]>();
  const readOne = async (id: number, { rev, day: madeOn }: MadeOn): Promise<readonly StageOutlook[] | null> => {
    const known = mine.get(id);
    if (known?.rev === rev && known.day === day.today) return known.outlooks;
    const stored = await loadMade<readonly StageOutlook[]>(db, 'machine_forecast', rev);
    if (!stored) return null;
    const days = daysBetween({ from: madeOn, to: day.today });
    const outlooks = days > 0 ? stored.map((o) => laterBy(o, days)) : stored;
    mine.set(id, { rev, day: day.today, outlooks });
    return outlooks;
  };
  for (const id of machineIds) {
    const was = kept.get(id);
    const usable = was && was.day <= day.today && was.day >= oldestKept(day, id, machineIds.length) ? was : null;
    const outlooks = usable ? await readOne(id, usable) : null;
    if (outlooks) all.set(id, outlooks);
    else {
      const fresh = await makeOutlooks(db, day, id);
      made.set(id, fresh);
      all.set(id, fresh);
      if (made.size % AT_A_TIME === 0) await setImmediate();
    }
  }
  await keep(db, day, made);
  return all;
};
