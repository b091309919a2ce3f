import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { StageOutlook } from '@/core/forecast/from-record';
import type { MachineRecord } from '@/core/forecast/machine-facts';
import { openMigrated } from '@/server/db/connect';
import { loadChanges } from '@/server/repositories/changes';
import { loadMachines } from '@/server/repositories/machines';
import { loadSite } from '@/server/repositories/site';
import { loadTests } from '@/server/repositories/tests';
import { forecastRecord } from '@/server/services/plan/outlooks';
import { loadOutlook } from '@/server/services/plan/yard-outlook';
import type { Which } from './life';
import type { TrueRule } from './machine';
import { LAST } from './work';
import { NOW, TODAY, writeDown } from './write-down';
import { type LivedMachine, livedYard } from './yard';

/** A stage as it was forecast from what stood in the file, and as it came to be. Days from today. */
export interface Told {
  readonly machine: number;
  readonly which: Which;
  /** The first of its rules that wear or a count reaches. */
  readonly rule: TrueRule['kind'];
  readonly keeps: LivedMachine['keeps'];
  readonly truth: number;
  readonly outlook: StageOutlook | null;
  /** As long as the last interval on record; as long as the trade says. */
  readonly last: number;
  readonly trade: number;
}

export const TRADE_DAYS: Record<Which, number> = { bag: 30, filter: 365 };

const toldOf = (machine: number, lived: LivedMachine, which: Which): Omit<Told, 'outlook'> => {
  const { made, life, keeps } = lived;
  const days = life.written.changes.filter((c) => c.which === which).map((c) => c.writtenDay);
  const starts = [life.began, ...days];
  const [before, newest] = [starts.at(-2), starts.at(-1) ?? life.began];
  const rules = which === 'bag' ? made.bagRules : made.filterRules;
  const gap = before === undefined ? TRADE_DAYS[which] : newest - before;
  return {
    machine,
    which,
    rule: rules[0]?.kind ?? 'fill',
    keeps,
    truth: life.truth?.[which] ?? Number.NaN,
    last: newest + gap - LAST,
    trade: newest + TRADE_DAYS[which] - LAST,
  };
};

export interface ForecastYard {
  readonly told: readonly Told[];
  /** What a forecast of each machine is made from. */
  readonly records: readonly MachineRecord[];
}

/** Lives a yard, writes it into a file of the application, and has it forecast from there. */
export const forecastYard = async (seed: number): Promise<ForecastYard> => {
  const yard = livedYard(seed);
  const folder = mkdtempSync(join(tmpdir(), 'moorwind-lived-'));
  const file = join(folder, 'yard.sqlite');
  const empty = await openMigrated(file);
  await empty.destroy();
  writeDown(file, yard);
  const db = await openMigrated(file);
  try {
    const { machines } = await loadOutlook({ db, now: () => NOW });
    const site = await loadSite(db);
    const [tests, changes] = [await loadTests(db), await loadChanges(db, site.timeZone)];
    const records = (await loadMachines(db)).map((machine) =>
      forecastRecord(
        { site, today: TODAY },
        {
          machine,
          tests: tests.filter((t) => t.machineId === machine.id),
          changes: changes.filter((c) => c.machineId === machine.id),
        },
      ),
    );
    const told = yard.machines.flatMap((lived, i) => {
      const read = machines.find((m) => m.machine.tag === `M-${String(i + 1).padStart(3, '0')}`);
      return (['bag', 'filter'] as const).map((which): Told => {
        const id = read?.machine.stages.find((s) => s.kind === (which === 'bag' ? 'bag' : 'mainFilter'))?.id;
        return { ...toldOf(i, lived, which), outlook: read?.outlooks.find((o) => o.stageId === id) ?? null };
      });
    });
    return { told, records };
  } finally {
    await db.destroy();
    rmSync(folder, { recursive: true, force: true });
  }
};
