import { costByDay } from './groups';
import type { PlanDays, PlanProblem, PlanTask } from './problem';

const cheapest = (t: PlanTask, { minutes, machines }: PlanProblem): number | null => {
  const cost = costByDay(t, minutes.length);
  const blocked = machines[t.machine]?.blockedDays;
  const open = minutes.flatMap((there, day) =>
    there > 0 && !blocked?.has(day) && day >= (t.within?.[0] ?? 0) && day <= (t.within?.[1] ?? Infinity) ? [day] : [],
  );
  if (t.lockedDay !== null) return t.lockedDay;
  return open.reduce<number | null>(
    (best, day) => (best === null || (cost[day] ?? 0) < (cost[best] ?? 0) ? day : best),
    null,
  );
};

/**
 * Each task on the day that is cheapest for it alone, whatever the others do: what a plan is held against. It counts
 * neither the day's minutes nor the parts, so it may be no plan that could be kept. Source: a modelling choice.
 */
export const eachOnItsOwnDay = (problem: PlanProblem): PlanDays => problem.tasks.map((t) => cheapest(t, problem));
