import { costByDay, UNPLACED } from './groups';
import { planOverTime } from './over-time';
import type { PlanTask } from './problem';
import type { ReachQuantiles } from '../forecast/limit-distribution';

/** A stage that comes round again and again: its first turn as a task, and what a whole interval of it takes. */
export interface Turning {
  readonly first: PlanTask;
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

/** No stage comes round more often than this, days: what is shorter is worn out, not planned. A modelling choice. */
const LEAST_DAYS = 4;
/** How often the days of the turns are laid again on those before them. */
const ROUNDS = 3;

const shifted = (q: ReachQuantiles, by: number): ReachQuantiles => [
  by + q[0],
  by + q[1],
  by + q[2],
  by + q[3],
  by + q[4],
];

const atLeast = (q: ReachQuantiles): ReachQuantiles => [
  Math.max(LEAST_DAYS, q[0]),
  Math.max(LEAST_DAYS, q[1]),
  Math.max(LEAST_DAYS, q[2]),
  Math.max(LEAST_DAYS, q[3]),
  Math.max(LEAST_DAYS, q[4]),
];

/** The turns of each stage up to a day, where the turns before lie on given days; without them on their middle. */
const turnsOn = (stages: readonly Turning[], days: number, laid: ReadonlyMap<string, number>): readonly Turn[] =>
  stages.flatMap(({ first, whole }, stage): readonly Turn[] => {
    const turns: Turn[] = [];
    const length = atLeast(whole);
    const dayOf = (t: PlanTask): number =>
      Math.min(days - 1, Math.max(0, Math.round(laid.get(t.id) ?? t.lockedDay ?? t.reached[2])));
    let task = first;
    for (let turn = 1; ; turn += 1) {
      turns.push({ task, stage, turn });
      const reached = shifted(length, dayOf(task));
      if (reached[2] >= days) return turns;
      task = {
        ...first,
        id: `${first.id}.${turn + 1}`,
        reached,
        lockedDay: null,
        onlyWith: first.onlyWith === null ? null : `${first.onlyWith}.${turn + 1}`,
      };
    }
  });

/** The days of the turns, none sooner after the one before it than a stage comes round at all. */
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

/** Half way between two turns is the border that keeps them in order. */
const inOrder = (turns: readonly Turn[], days: number, laid: ReadonlyMap<string, number>): readonly Turn[] => {
  const dayOf = ({ task }: Turn): number =>
    Math.min(days - 1, Math.max(0, laid.get(task.id) ?? Math.round(task.reached[2])));
  return turns.flatMap((t, i): readonly Turn[] => {
    // What goes only with another is kept in order by that one.
    if (t.task.onlyWith !== null) return [t];
    const [before, after] = [turns[i - 1], turns[i + 1]];
    const from = before?.stage === t.stage ? Math.floor((dayOf(before) + dayOf(t)) / 2) + 1 : 0;
    const to = after?.stage === t.stage ? Math.floor((dayOf(t) + dayOf(after)) / 2) : days - 1;
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
  // A machine without a second turn is planned as it is.
  if (turns.length === stages.length) return turns;
  for (let round = 0; round < ROUNDS; round += 1) {
    const costs = turns.map(({ task }) => {
      const cost = costByDay(task, days);
      return {
        cost: task.lockedDay === null ? cost : cost.map((c, day) => (day === task.lockedDay ? c : c + UNPLACED)),
      };
    });
    const planned = planOverTime(costs, open, openingCost);
    if (!planned) return turns;
    laid = apart(turns, planned.on);
    turns = turnsOn(stages, days, laid);
  }
  return inOrder(turns, days, laid);
};
