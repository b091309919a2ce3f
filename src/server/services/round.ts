import type { StageDue } from '@/core/interval/due';
import type { Stage } from '@/core/machine/machine';
import type { MachineStatus } from '@/core/status/machine-status';
import { loadParts, type PartOnHand } from '../repositories/stock';
import type { Context } from './user-action';
import { loadYard, type Yard } from './yard';

export interface RoundLine {
  readonly status: MachineStatus;
  readonly stage: Stage;
  readonly due: StageDue;
  readonly part: PartOnHand | null;
}

export interface Round {
  readonly yard: Yard;
  readonly overdue: readonly RoundLine[];
  readonly today: readonly RoundLine[];
  readonly thisWeek: readonly RoundLine[];
  /** Rules that the record cannot date yet. */
  readonly undated: readonly RoundLine[];
  /** Machines that need something which no date tells: a low flow, a missing stage. */
  readonly attention: readonly MachineStatus[];
}

const WEEK_DAYS = 7;

const lines = (yard: Yard, parts: readonly PartOnHand[]): readonly RoundLine[] =>
  yard.machines.flatMap((status) =>
    status.due.flatMap((due) => {
      const stage = status.machine.stages.find((s) => s.id === due.stageId);
      return stage ? [{ status, stage, due, part: parts.find((p) => p.id === stage.part?.id) ?? null }] : [];
    }),
  );

/** What is due today, this week and overdue, with why, and which machines need looking at. */
export const loadRound = async (context: Context): Promise<Round> => {
  const yard = await loadYard(context);
  const all = lines(yard, await loadParts(context.db));
  const dated = all
    .flatMap((line) => (line.due.daysLeft === null ? [] : [{ line, days: line.due.daysLeft }]))
    .sort((a, b) => a.days - b.days);
  const pick = (from: number, to: number) => dated.filter(({ days }) => days >= from && days <= to).map(({ line }) => line);
  return {
    yard,
    overdue: pick(Number.NEGATIVE_INFINITY, -1),
    today: pick(0, 0),
    thisWeek: pick(1, WEEK_DAYS),
    undated: all.filter((line) => line.due.daysLeft === null),
    attention: yard.machines.filter(({ need }) => need.kind !== 'due' && need.kind !== 'nothing'),
  };
};
