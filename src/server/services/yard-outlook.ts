import { loadShareOf } from '@/core/calibrate/load-share';
import { modelledMachine } from '@/core/calibrate/machine-model';
import {
  type LossSeen,
  type MachineRecord,
  outlooksOf,
  type StageOutlook,
  type ZoneSeen,
} from '@/core/forecast/from-record';
import { lastingOf, type StageLasting } from '@/core/forecast/lasting';
import { dayAt, daysBetween } from '@/core/calendar/calendar-date';
import { worksOn } from '@/core/calendar/working-days';
import { isWear } from '@/core/interval/rules';
import type { Machine } from '@/core/machine/machine';
import { type ChangeRecord, inForce, type TestRecord } from '@/core/record/records';
import { isSeries, judgeTest } from '@/core/status/judge-test';
import type { Db } from '../db/connect';
import { loadChanges } from '../repositories/changes';
import { loadMachines } from '../repositories/machines';
import { loadMade, loadRevision, madeFor, saveMade, unlessBusy } from '../repositories/made';
import { loadTests } from '../repositories/tests';
import type { Context } from './user-action';
import { loadYard, type Yard } from './yard';

export interface MachineOutlook {
  readonly machine: Machine;
  readonly outlooks: readonly StageOutlook[];
}

export interface YardOutlook {
  readonly yard: Yard;
  readonly machines: readonly MachineOutlook[];
}

/** The same yard on the same day is forecast the same. */
const SEED = 20_261;
/** A bag changed so many days before a test is taken as fresh in it. */
const FRESH_DAYS = 2;

interface MachineFacts {
  readonly yard: Yard;
  readonly machine: Machine;
  readonly tests: readonly TestRecord[];
  readonly changes: readonly ChangeRecord[];
}

/** Losses speak of a filter only when the bag before it was fresh: as found they carry the bag's share. */
const lossesOf = ({ yard, machine, tests, changes }: MachineFacts): readonly LossSeen[] => {
  const { timeZone, thresholds } = yard.site;
  const bags = new Set(machine.stages.filter((s) => s.kind === 'bag').map((s) => s.id));
  const ruled = machine.stages.filter((s) => s.rules.some((r) => r.rule.kind === 'flowLost'));
  if (ruled.length === 0) return [];
  const modelled = modelledMachine(machine, tests);
  const shares = ruled.flatMap((s) => {
    const rule = s.rules.find((r) => r.rule.kind === 'flowLost')?.rule;
    const share =
      rule?.kind === 'flowLost'
        ? loadShareOf({ modelled, position: machine.stages.indexOf(s), limitLoss: rule.share })
        : null;
    return share ? [{ stageId: s.id, share }] : [];
  });
  return inForce(tests).flatMap((record): readonly LossSeen[] => {
    if (!isSeries(record) || record.isBaseline || record.test.failedPreconditions.length > 0) return [];
    const day = dayAt(record.performedAt, timeZone);
    const fresh =
      bags.size === 0 ||
      changes.some(
        (c) =>
          bags.has(c.stageId) &&
          c.performedAt <= record.performedAt &&
          daysBetween({ from: c.performedOn, to: day }) <= FRESH_DAYS,
      );
    if (!fresh) return [];
    const { baseline, reduced } = judgeTest({ machine, tests, thresholds, record });
    if (!('lossFraction' in baseline)) return [];
    const deviation = (reduced.repeats.expanded ?? 0.1 * reduced.repeats.mean) / (2 * reduced.repeats.mean);
    return shares.map(({ stageId, share }) => ({
      stageId,
      day,
      ofLimit: share(baseline.lossFraction),
      deviation: (share(baseline.lossFraction + deviation) - share(baseline.lossFraction - deviation)) / 2,
    }));
  });
};

const zonesOf = ({ yard, tests }: MachineFacts): readonly ZoneSeen[] =>
  inForce(tests).flatMap(({ test: { detail }, performedAt }) =>
    detail.kind === 'zone'
      ? [{ stageId: detail.stageId, day: dayAt(performedAt, yard.site.timeZone), zone: detail.zone }]
      : [],
  );

const recordOf = (facts: MachineFacts): MachineRecord => ({
  machine: facts.machine,
  changes: facts.changes,
  losses: lossesOf(facts),
  zones: zonesOf(facts),
  today: facts.yard.today,
  works: worksOn(facts.yard.site.working, facts.yard.today),
  seed: SEED,
});

/** How long the worn stages of a machine last in use, and their chance to last so many run hours. */
export const lastingIn = (facts: MachineFacts, hours: number | null): readonly StageLasting[] =>
  lastingOf(recordOf({ ...facts, changes: inForce(facts.changes) }), hours);

/** From the records of one machine: the slow way. */
const makeOutlooks = async (db: Db, yard: Yard, machineId: number): Promise<readonly StageOutlook[]> => {
  const [machine] = await loadMachines(db, machineId);
  if (!machine) return [];
  const wears = machine.stages.some((s) => s.rules.some((r) => isWear(r.rule)));
  const tests = wears ? await loadTests(db, machineId) : [];
  const changes = inForce(await loadChanges(db, yard.site.timeZone, machineId));
  return outlooksOf(recordOf({ yard, machine, tests, changes }));
};

interface HeldOutlooks {
  readonly rev: number;
  readonly outlooks: readonly StageOutlook[];
}
const held = new WeakMap<Db, Map<number, HeldOutlooks>>();

const keep = async (db: Db, yard: Yard, made: ReadonlyMap<number, readonly StageOutlook[]>): Promise<void> => {
  const save = async (tx: Db) => {
    // What was recorded meanwhile has made them old: those are made again when they are next asked for.
    if ((await loadRevision(tx)) !== yard.revision) return;
    for (const [machineId, content] of made)
      await saveMade(tx, 'machine_forecast', { machineId, day: yard.today, content });
  };
  if (made.size === 0) return;
  // Where somebody else writes they are shown all the same, and kept the next time.
  await unlessBusy(db, save);
};

/** The forecasts of some machines of the yard today: read where they were made, made where their records or the day have changed. */
export const outlooksFor = async (
  { db }: Pick<Context, 'db'>,
  yard: Yard,
  machines: readonly Machine[],
): Promise<readonly MachineOutlook[]> => {
  const mine = held.get(db) ?? new Map<number, HeldOutlooks>();
  held.set(db, mine);
  const revs = await madeFor(db, 'machine_forecast', yard.today);
  const made = new Map<number, readonly StageOutlook[]>();
  const all: MachineOutlook[] = [];
  for (const machine of machines) {
    const rev = revs.get(machine.id);
    const known = mine.get(machine.id);
    if (known && known.rev === rev) {
      all.push({ machine, outlooks: known.outlooks });
      continue;
    }
    const kept = rev === undefined ? null : await loadMade<readonly StageOutlook[]>(db, 'machine_forecast', rev);
    const outlooks = kept ?? (await makeOutlooks(db, yard, machine.id));
    if (rev !== undefined && kept) mine.set(machine.id, { rev, outlooks });
    else made.set(machine.id, outlooks);
    all.push({ machine, outlooks });
  }
  await keep(db, yard, made);
  return all;
};

/** When each ruled stage of the yard reaches its first limit, as chances, from what is on record. */
export const loadOutlook = async (context: Pick<Context, 'db' | 'now'>, yard?: Yard): Promise<YardOutlook> => {
  const here = yard ?? (await loadYard(context));
  return {
    yard: here,
    machines: await outlooksFor(
      context,
      here,
      here.machines.map((m) => m.machine),
    ),
  };
};
