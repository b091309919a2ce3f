import { addDays } from '@/core/interval/calendar-date';
import type { PlanDays, PlanProblem } from '@/core/plan/problem';
import type { YardProblem } from '@/core/plan/yard-problem';

/** One opening of the plan: a machine on a day, with what is done in it. */
export interface Opening {
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
export const openingsOf = ({ problem, stages }: YardProblem, days: PlanDays): readonly Opening[] => {
  const found = new Map<string, Opening>();
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

/** The next day of work from a day on, in a direction; null where the horizon ends. */
export const nextOpenDay = ({ minutes }: PlanProblem, from: number, step: 1 | -1): number | null => {
  for (let day = from + step; day >= 0 && day < minutes.length; day += step) if ((minutes[day] ?? 0) > 0) return day;
  return null;
};

/** A day of the plan as one says it. */
export const dayText = (today: string, day: number): string =>
  new Date(`${addDays(today, day)}T12:00:00Z`).toLocaleDateString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    timeZone: 'UTC',
  });

/** What is done in an opening. */
export const namesOf = ({ stages }: YardProblem, opening: Opening): string =>
  opening.tasks.map((i) => stages[i]?.name ?? '').join(' + ');
