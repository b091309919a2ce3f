import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { StageOutlook } from '@/core/forecast/from-record';
import { openMigrated } from '@/server/db/connect';
import { loadOutlook } from '@/server/services/yard-outlook';
import type { Which } from './life';
import type { TrueRule } from './machine';
import { PAST } from './work';
import { NOW, writeDown } from './write-down';
import { type LivedMachine, livedYard } from './yard';

/** A stage as it was forecast from what stood in the file, and as it came to be. Days from today. */
export interface Told {
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

const TRADE_DAYS: Record<Which, number> = { bag: 30, filter: 365 };

const toldOf = (lived: LivedMachine, which: Which, outlook: StageOutlook | null): Told => {
  const { made, life, keeps } = lived;
  const days = life.written.changes.filter((c) => c.which === which).map((c) => c.writtenDay);
  const starts = [life.began, ...days];
  const [before, newest] = [starts.at(-2), starts.at(-1) ?? life.began];
  const rules = which === 'bag' ? made.bagRules : made.filterRules;
  const gap = before === undefined ? TRADE_DAYS[which] : newest - before;
  return {
    which,
    rule: rules[0]?.kind ?? 'fill',
    keeps,
    truth: life.truth?.[which] ?? Number.NaN,
    outlook,
    last: newest + gap - PAST,
    trade: newest + TRADE_DAYS[which] - PAST,
  };
};

/** Lives a yard, writes it into a file of the application, and has it forecast from there. */
export const forecastYard = async (seed: number): Promise<readonly Told[]> => {
  const yard = livedYard(seed);
  const folder = mkdtempSync(join(tmpdir(), 'moorwind-lived-'));
  const file = join(folder, 'yard.sqlite');
  const empty = await openMigrated(file);
  await empty.destroy();
  writeDown(file, yard);
  const db = await openMigrated(file);
  try {
    const { machines } = await loadOutlook({ db, now: () => NOW });
    return yard.machines.flatMap((lived, i) => {
      const read = machines.find((m) => m.machine.tag === `M-${String(i + 1).padStart(3, '0')}`);
      return (['bag', 'filter'] as const).map((which) => {
        const id = read?.machine.stages.find((s) => s.kind === (which === 'bag' ? 'bag' : 'mainFilter'))?.id;
        return toldOf(lived, which, read?.outlooks.find((o) => o.stageId === id) ?? null);
      });
    });
  } finally {
    await db.destroy();
    rmSync(folder, { recursive: true, force: true });
  }
};
