import { Capacity } from './capacity';
import type { MachineGroups } from './groups';
import type { PlanDays, PlanProblem } from './problem';

/** Tasks that go only together, by bits: each alone is one opening by the book. */
const lumpsOf = ({ tasks, sets }: MachineGroups, { tasks: all }: PlanProblem): readonly number[] => {
  const own = tasks.map((i) => all[i]);
  return own.flatMap((t, i) => {
    if (!t || t.onlyWith !== null) return [];
    const lump = own.reduce((bits, x, k) => (x?.onlyWith === t.id ? bits | (1 << k) : bits), 1 << i);
    return sets[lump] ? [lump] : [];
  });
};

/**
 * Each change on its own cheapest day, or the next cheapest with room: what a foreman does without a plan. Last days come
 * first, then the soonest. Returns a plan that keeps the minutes and the parts, for comparison. Choice: a modelling choice.
 * Valid: groups of that problem.
 */
export const byTheBook = (problem: PlanProblem, groups: readonly MachineGroups[]): PlanDays => {
  const days: (number | null)[] = problem.tasks.map(() => null);
  const room = new Capacity(problem);
  const wishes = groups.flatMap((group) =>
    lumpsOf(group, problem).map((bits) => {
      const tasks = group.tasks.filter((_, k) => bits & (1 << k));
      const set = group.sets[bits];
      const last = Math.min(...tasks.map((i) => problem.tasks[i]?.lastDay ?? Infinity));
      return { tasks, set, last, own: set?.order[0] ?? Infinity };
    }),
  );
  for (const { tasks, set } of wishes.sort((a, b) => a.last - b.last || a.own - b.own)) {
    const day = set ? room.cheapest(set) : null;
    if (!set || day === null) continue;
    room.take(set, day);
    for (const i of tasks) days[i] = day;
  }
  return days;
};
