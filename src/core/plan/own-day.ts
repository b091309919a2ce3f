import { costByDay } from './groups';
import type { PlanDays, PlanProblem, PlanTask } from './problem';

const cheapest = (t: PlanTask, { minutes, machines }: PlanProblem): number | null => {
  const cost = costByDay({ ...t, promised: null }, minutes.length);
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
 * Each task on its own cheapest day: the plan that others are compared with. It ignores the day's minutes and the
 * parts, and what the last plan named, so it may not be feasible. Choice: a modelling choice.
 */
export const eachOnItsOwnDay = (problem: PlanProblem): PlanDays => problem.tasks.map((t) => cheapest(t, problem));
