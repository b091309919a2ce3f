import { minutesFor, type PlanMachine, type PlanProblem, type PlanTask } from './problem';
import { expectedOverrun } from '../forecast/limit-distribution';
import { wholeTaskCost } from './task-cost';

/** Tasks of one machine done in one opening, by a bit for each. */
export interface MachineGroups {
  /** Positions of the machine's tasks in the problem. */
  readonly tasks: readonly number[];
  /** Every set that may be one opening; the index is the set, by bits. null where a set may not be. */
  readonly sets: readonly (GroupSet | null)[];
  /** What each task costs that finds no day: it is left over to the end of the horizon. */
  readonly left: readonly number[];
}

export interface GroupSet {
  readonly minutes: number;
  /** Whether only people with papers for contained work may do it. */
  readonly contained: boolean;
  /** Pieces of each part it takes. */
  readonly parts: readonly { readonly index: number; readonly quantity: number }[];
  /** Cost with its opening, by day. */
  readonly cost: Float64Array;
  /** Days it may be on, cheapest first. */
  readonly order: Uint16Array;
}

/** More tasks of one machine than this are not enumerated in every grouping. */
export const MOST_ENUMERATED = 8;

/** The cost of one task by day, without its opening. */
export const costByDay = (t: PlanTask, days: number): Float64Array =>
  Float64Array.from({ length: days }, (_, x) => wholeTaskCost(t, x));

const partsOf = (tasks: readonly PlanTask[]): GroupSet['parts'] => {
  const sums = new Map<number, number>();
  for (const { part } of tasks) if (part) sums.set(part.index, (sums.get(part.index) ?? 0) + part.quantity);
  return [...sums].map(([index, quantity]) => ({ index, quantity }));
};

/** A task that goes only with another is in no set without it. */
const together = (set: readonly PlanTask[], all: readonly PlanTask[]): boolean =>
  set.every(
    (t) =>
      (t.onlyWith === null || set.some((x) => x.id === t.onlyWith)) &&
      all.every((x) => x.onlyWith !== t.id || set.includes(x)),
  );

const daysOf = (
  set: readonly PlanTask[],
  machine: PlanMachine,
  { problem, need }: { readonly problem: PlanProblem; readonly need: number },
): readonly number[] => {
  const { minutes } = problem;
  const locked = set.flatMap((t) => (t.lockedDay === null ? [] : [t.lockedDay]));
  const first = Math.max(0, ...set.map((t) => t.within?.[0] ?? 0));
  const last = Math.min(minutes.length - 1, ...set.map((t) => t.within?.[1] ?? minutes.length));
  return minutes.flatMap((_, day) =>
    day >= first &&
    day <= last &&
    minutesFor(problem, machine, day) >= need &&
    !machine.blockedDays.has(day) &&
    locked.every((l) => l === day)
      ? [day]
      : [],
  );
};

/** Cost of a task without a day beside its overrun, so that a plan with fewer of them is always better. */
export const UNPLACED = 1e9;
/** A task with a last day comes before so many others when not all find a day. */
const BEFORE_OTHERS = 1000;

/** Every opening a machine may have, with its cost by day. Definition: the planning problem as stated in `problem`. */
export const groupsOf = (problem: PlanProblem, machine: number): MachineGroups => {
  const positions = problem.tasks.flatMap((t, i) => (t.machine === machine ? [i] : []));
  const mine = positions.map((i) => problem.tasks[i]).filter((t) => t !== undefined);
  const facts = problem.machines[machine];
  if (!facts) throw new RangeError(`machine ${machine} is not in the problem`);
  const horizon = problem.minutes.length;
  const single = mine.map((t) => costByDay(t, horizon));
  const bare: Float64Array[] = [new Float64Array(horizon).fill(facts.openingCost)];
  const sets: (GroupSet | null)[] = [null];
  for (let bits = 1; bits < 2 ** mine.length; bits += 1) {
    const low = 31 - Math.clz32(bits & -bits);
    const before = bare[bits & (bits - 1)];
    const add = single[low];
    if (!before || !add) throw new Error('a set without its smaller one');
    const cost = before.map((c, day) => c + (add[day] ?? 0));
    bare[bits] = cost;
    const set = mine.filter((_, i) => bits & (1 << i));
    const minutes = facts.openingMinutes + set.reduce((sum, t) => sum + t.minutes, 0);
    const days = together(set, mine) ? daysOf(set, facts, { problem, need: minutes }) : [];
    sets[bits] =
      days.length === 0
        ? null
        : {
            minutes,
            contained: facts.contained,
            parts: partsOf(set),
            cost,
            order: Uint16Array.from([...days].sort((a, b) => (cost[a] ?? 0) - (cost[b] ?? 0) || a - b)),
          };
  }
  return {
    tasks: positions,
    sets,
    left: mine.map(
      (t) =>
        UNPLACED * (t.lastDay === null ? 1 : BEFORE_OTHERS) + t.overrunCostPerDay * expectedOverrun(t.reached, horizon),
    ),
  };
};
