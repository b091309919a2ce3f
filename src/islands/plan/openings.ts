import { addDays } from '@/core/calendar/calendar-date';
import type { PlannedOpening } from '@/core/plan/planned-openings';
import type { YardProblem } from '@/core/plan/yard-problem';

/** A day of the plan as one says it. */
export const dayText = (today: string, day: number): string =>
  new Date(`${addDays(today, day)}T12:00:00Z`).toLocaleDateString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    timeZone: 'UTC',
  });

/** What is done in an opening. */
export const namesOf = ({ stages }: YardProblem, opening: PlannedOpening): string =>
  opening.tasks.map((i) => stages[i]?.name ?? '').join(' + ');
