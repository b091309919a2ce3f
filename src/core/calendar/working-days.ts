import { addDays, type CalendarDate } from './calendar-date';

/** When a site works. */
export interface WorkingDays {
  /** Days of the week, 0 is Sunday. */
  readonly weekdays: readonly number[];
  /** Holidays, and whatever else it is closed for. */
  readonly closed: readonly CalendarDate[];
}

/** Whether a site works on a day. @example worksOnDay({ weekdays: [1, 2, 3, 4, 5], closed: [] }, '2026-11-28') // false, a Saturday */
export const worksOnDay = ({ weekdays, closed }: WorkingDays, day: CalendarDate): boolean =>
  weekdays.includes(new Date(`${day}T12:00:00Z`).getUTCDay()) && !closed.includes(day);

/** The same for days counted from one: day 0 is that day itself. */
export const worksOn =
  (working: WorkingDays, today: CalendarDate) =>
  (day: number): boolean =>
    worksOnDay(working, addDays(today, day));
