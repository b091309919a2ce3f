import { addDays } from '@/core/calendar/calendar-date';
import type { PlannedOpening } from '@/core/plan/planned-openings';
import type { YardProblem } from '@/core/plan/yard-problem';

// Made once: a plan prints a day a thousand times, and a new format for each would take most of the time.
const DAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });

/** A day of the plan as one says it. */
export const dayText = (today: string, day: number): string => DAY.format(new Date(`${addDays(today, day)}T12:00:00Z`));

/** The work of an opening. */
export const namesOf = ({ stages }: YardProblem, opening: PlannedOpening): string =>
  opening.tasks.map((i) => stages[i]?.name ?? '').join(' + ');
