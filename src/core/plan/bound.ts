import { groupsOf } from './groups';
import { leastCost } from './insert-machine';
import type { PlanProblem } from './problem';
import { Capacity } from './capacity';

/**
 * No plan costs less than this: every machine planned for itself, and each of its openings as if all minutes and parts
 * were that opening's own. Source: relaxation of the constraints that machines share.
 * Valid: any planning problem.
 */
export const lowerBound = (problem: PlanProblem): number =>
  problem.machines.reduce((sum, _, m) => sum + leastCost(groupsOf(problem, m), new Capacity(problem)), 0);

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
