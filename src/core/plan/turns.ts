import { NORMAL_80 } from '../numeric/normal';
import { costByDay, UNPLACED } from './groups';
import { planOverTime } from './over-time';
import { mayLie, type PlanTask } from './problem';
import type { ReachQuantiles } from '../forecast/limit-distribution';

/** A stage that comes round again and again: its first turn as a task, and what a whole interval of it takes. */
export interface Turning {
  readonly first: PlanTask;
  /** The last day of its first turn, and of each later turn by its middle day; see `PlanTask.lastDay`. */
  readonly lastDay: number | null;
  /** Whether each later turn has a last day too: an examination comes round by law. */
  readonly everyTurn: boolean;
  /** The first day its part is there. */
  readonly partDay: number;
  /** The day the last plan named for its first turn. Later turns follow the one before them and have none. */
  readonly promised: PlanTask['promised'];
  /** Days of one whole interval, as quantiles. */
  readonly whole: ReachQuantiles;
}

/** One turn of a stage as a task; turn 1 is the interval that runs. */
export interface Turn {
  readonly task: PlanTask;
  /** Position of its stage among the given. */
  readonly stage: number;
  readonly turn: number;
}

/** Shortest interval that is planned, days: a shorter one is wear, not a plan. A modelling choice. */
const LEAST_DAYS = 4;
/** Number of times the days of later changes are placed again after the earlier ones. */
const ROUNDS = 3;
/** Days behind a last day or a delivery in which the change may still find its place. A modelling choice. */
const ROOM = 5;
/** Later changes that are not placed yet lie on their own best day. */
const NOWHERE: ReadonlyMap<string, number> = new Map();

const shifted = (q: ReachQuantiles, by: number): ReachQuantiles => [
  by + q[0],
  by + q[1],
  by + q[2],
  by + q[3],
  by + q[4],
];

/** How near a limit will be known when it is close, as a share of the interval: what looks and tests leave open. A modelling choice. */
export const KNOWN_TO = 0.12;

/** A whole interval as it will be known near its end: its open questions are answered by then. */
const asKnown = (q: ReachQuantiles): ReachQuantiles => {
  const middle = Math.max(LEAST_DAYS, q[2]);
  const wide = (q[3] - q[1]) / 2;
  const narrow = wide > 0 ? Math.min(1, (NORMAL_80 * KNOWN_TO * middle) / wide) : 1;
  const near = (x: number): number => Math.max(LEAST_DAYS, middle + narrow * (x - q[2]));
  return [near(q[0]), near(q[1]), middle, near(q[3]), near(q[4])];
};

/** The day at which a task alone costs least: as likely past its limit as the price of a late day allows. Source: the newsvendor rule. */
const bestAlone = ({ reached: [, low, middle, high], lifeValuePerDay, overrunCostPerDay }: PlanTask): number => {
  const chance = lifeValuePerDay / Math.max(1e-9, lifeValuePerDay + overrunCostPerDay);
  return chance < 0.5
    ? middle - ((0.5 - chance) / 0.4) * (middle - low)
    : middle + ((chance - 0.5) / 0.4) * (high - middle);
};

/** The turns of each stage up to a day, where the turns before lie on given days; without them on their own best day. */
const turnsOn = (stages: readonly Turning[], days: number, laid: ReadonlyMap<string, number>): readonly Turn[] =>
  stages.flatMap(({ first, lastDay, everyTurn, promised, whole }, stage): readonly Turn[] => {
    const turns: Turn[] = [];
    const length = asKnown(whole);
    const dayOf = (t: PlanTask): number =>
      Math.min(days - 1, Math.max(0, Math.round(laid.get(t.id) ?? t.lockedDay ?? bestAlone(t))));
    let task: PlanTask = { ...first, lastDay, promised };
    for (let turn = 1; ; turn += 1) {
      turns.push({ task, stage, turn });
      const reached = shifted(length, dayOf(task));
      if (reached[2] >= days) return turns;
      task = {
        ...first,
        id: `${first.id}.${turn + 1}`,
        reached,
        lockedDay: null,
        lastDay: everyTurn ? Math.floor(reached[2]) : null,
        promised: null,
        onlyWith: first.onlyWith === null ? null : `${first.onlyWith}.${turn + 1}`,
      };
    }
  });

/** Days of the later changes, at least LEAST_DAYS apart. */
const apart = (turns: readonly Turn[], on: readonly number[]): ReadonlyMap<string, number> => {
  const laid = new Map<string, number>();
  let before = 0;
  turns.forEach(({ task, turn }, i) => {
    const day = on[i] ?? Math.round(task.reached[2]);
    before = turn === 1 ? day : Math.max(day, before + LEAST_DAYS);
    laid.set(task.id, before);
  });
  return laid;
};

/** Each change may lie up to half-way to its neighbours, so that their order is kept. */
const inOrder = (
  stages: readonly Turning[],
  turns: readonly Turn[],
  { days, laid }: { readonly days: number; readonly laid: ReadonlyMap<string, number> },
): readonly Turn[] => {
  const dayOf = ({ task }: Turn): number =>
    Math.min(days - 1, Math.max(0, Math.round(laid.get(task.id) ?? bestAlone(task))));
  // A change that is late already, waits for its part, or has a promised day keeps room: the next turn gives way.
  const border = (a: Turn, b: Turn): number => {
    const waits = a.turn > 1 ? 0 : Math.max(a.task.lastDay ?? 0, stages[a.stage]?.partDay ?? 0);
    const half = Math.floor((dayOf(a) + dayOf(b)) / 2);
    return Math.max(half, waits > 0 || a.task.lastDay !== null ? waits + ROOM : 0, a.task.promised?.day ?? 0);
  };
  return turns.flatMap((t, i): readonly Turn[] => {
    // A task that goes only with another is kept in order by that one.
    if (t.task.onlyWith !== null) return [t];
    const [before, after] = [turns[i - 1], turns[i + 1]];
    const from = before?.stage === t.stage ? border(before, t) + 1 : 0;
    const to = after?.stage === t.stage ? border(t, after) : days - 1;
    if (from > to) return [];
    return from === 0 && to === days - 1 ? [t] : [{ ...t, task: { ...t.task, within: [from, to] } }];
  });
};

/**
 * Every turn of a machine's stages within so many days: each laid on what the one before it is planned for, the machine
 * planned over time with all its turns together, and laid again. The stage that comes round fastest leads; the others are
 * taken along where that pays. Source: dynamic programme over time, see `planOverTime`. Valid: days the machine may be
 * opened, ascending; the result keeps the turns of a stage in order.
 */
export const turnsOf = (
  stages: readonly Turning[],
  {
    days,
    open,
    openingCost,
  }: { readonly days: number; readonly open: readonly number[]; readonly openingCost: number },
): readonly Turn[] => {
  let laid: ReadonlyMap<string, number> = new Map();
  let turns = turnsOn(stages, days, laid);
  // A machine without a later change needs no separation.
  if (turns.length === stages.length) return turns;
  for (let round = 0; round < ROUNDS; round += 1) {
    // Two turns of one stage are never one opening: each keeps to its own side of the border between them.
    const bordered = inOrder(stages, turns, { days, laid: NOWHERE });
    const costs = bordered.map(({ task }) => ({
      cost: costByDay(task, days).map((c, day) => (mayLie(task, day) ? c : c + UNPLACED)),
    }));
    const planned = planOverTime(costs, open, openingCost);
    if (!planned) return bordered;
    laid = apart(bordered, planned.on);
    turns = turnsOn(stages, days, laid);
  }
  return inOrder(stages, turns, { days, laid });
};
