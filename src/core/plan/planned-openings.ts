import type { PlanDays, PlanProblem } from './problem';
import type { YardProblem } from './yard-problem';

/** One opening of the plan: a machine, a day, and its work. */
export interface PlannedOpening {
  readonly key: string;
  readonly machine: number;
  readonly tag: string;
  readonly day: number;
  /** Positions of its tasks. */
  readonly tasks: readonly number[];
  readonly minutes: number;
  readonly locked: boolean;
}

/** The openings of a plan, by day and tag. */
export const plannedOpenings = ({ problem, stages }: YardProblem, days: PlanDays): readonly PlannedOpening[] => {
  const found = new Map<string, PlannedOpening>();
  problem.tasks.forEach((t, i) => {
    const day = days[i] ?? null;
    if (day === null) return;
    const key = `${t.machine}-${day}`;
    const before = found.get(key);
    const minutes = (before?.minutes ?? problem.machines[t.machine]?.openingMinutes ?? 0) + t.minutes;
    found.set(key, {
      key,
      machine: t.machine,
      tag: stages[i]?.tag ?? '',
      day,
      tasks: [...(before?.tasks ?? []), i],
      minutes,
      locked: (before?.locked ?? false) || t.lockedDay !== null,
    });
  });
  return [...found.values()].sort((a, b) => a.day - b.day || (a.tag < b.tag ? -1 : 1));
};

/** The next day of work from a day on, in a direction; null where the horizon ends. Source: the minutes of the plan. Valid: a day of the horizon. */
export const nextOpenDay = ({ minutes }: PlanProblem, from: number, step: 1 | -1): number | null => {
  for (let day = from + step; day >= 0 && day < minutes.length; day += step) if ((minutes[day] ?? 0) > 0) return day;
  return null;
};
