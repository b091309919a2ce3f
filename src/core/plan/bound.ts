import { costByDay, groupsOf, MOST_ENUMERATED, UNPLACED } from './groups';
import { planOverTime } from './over-time';
import type { PlanProblem } from './problem';
import { relaxMinutes } from './relax';

/** A machine with more tasks than are grouped in every way, by itself: exact over time, its partners and locks aside. */
const aloneOverTime = (problem: PlanProblem, machine: number): number => {
  const tasks = problem.tasks.filter((t) => t.machine === machine);
  const facts = problem.machines[machine];
  const days = problem.minutes.flatMap((there, day) => (there > 0 && !facts?.blockedDays.has(day) ? [day] : []));
  const costs = tasks.map((t) => ({ cost: costByDay(t, problem.minutes.length) }));
  return planOverTime(costs, days, facts?.openingCost ?? 0)?.cost ?? tasks.length * UNPLACED;
};

/** Steps of the prices. A modelling choice. */
const STEPS = 250;

/**
 * No plan costs less than this: what is left when the minutes that machines share are priced and given back, and parts and
 * what must go together in a machine of very many tasks are let go. Source: see `relaxMinutes` and `planOverTime`.
 * Valid: any planning problem; `known` is what a plan of it costs.
 */
export const lowerBound = (
  problem: PlanProblem,
  { steps = STEPS, known = 0 }: { readonly steps?: number; readonly known?: number } = {},
): number => {
  const isSmall = problem.machines.map(
    (_, m) => problem.tasks.filter((t) => t.machine === m).length <= MOST_ENUMERATED,
  );
  const large = isSmall.reduce((sum, small, m) => sum + (small ? 0 : aloneOverTime(problem, m)), 0);
  const groups = isSmall.flatMap((small, m) => (small ? [groupsOf(problem, m)] : []));
  return large + relaxMinutes(problem, groups, { steps, known: Math.max(0, known - large) }).bound;
};

/** Most plans that are tried one by one. */
const MOST_TRIED = 20_000_000;

/**
 * The cheapest plan by trying every one: for small problems, as the slow twin of the planner. Returns null when none fits;
 * throws RangeError when there are too many to try. `check` says whether a plan may stand, `cost` what it costs.
 */
export const bruteForce = (
  problem: PlanProblem,
  {
    cost,
    stands,
  }: { readonly cost: (days: readonly number[]) => number; readonly stands: (days: readonly number[]) => boolean },
): { readonly days: readonly number[]; readonly cost: number } | null => {
  const { length: horizon } = problem.minutes;
  const count = problem.tasks.length;
  if (horizon ** count > MOST_TRIED)
    throw new RangeError(`${horizon} days for ${count} tasks are too many plans to try`);
  let best: { readonly days: readonly number[]; readonly cost: number } | null = null;
  const days = new Array<number>(count).fill(0);
  for (;;) {
    const here = cost(days);
    if ((!best || here < best.cost) && stands(days)) best = { days: [...days], cost: here };
    let i = 0;
    while (i < count && days[i] === horizon - 1) {
      days[i] = 0;
      i += 1;
    }
    if (i === count) return best;
    days[i] = (days[i] ?? 0) + 1;
  }
};
