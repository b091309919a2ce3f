import { type CalendarDate, dayNumber, weekdayOf } from './calendar-date';

/** When a site works. */
export interface WorkingDays {
  /** Days of the week, 0 is Sunday. */
  readonly weekdays: readonly number[];
  /** Holidays and other closed days. */
  readonly closed: readonly CalendarDate[];
}

/** Whether a site works on a day. @example worksOnDay({ weekdays: [1, 2, 3, 4, 5], closed: [] }, '2026-11-28') // false, a Saturday */
export const worksOnDay = ({ weekdays, closed }: WorkingDays, day: CalendarDate): boolean =>
  weekdays.includes(weekdayOf(day)) && !closed.includes(day);

/** 1970-01-01 was a Thursday. */
const FIRST_WEEKDAY = 4;
const WEEK = 7;

/** The same for days counted from one: day 0 is that day itself, days below 0 lie behind. */
export const worksOn = ({ weekdays, closed }: WorkingDays, today: CalendarDate): ((day: number) => boolean) => {
  const from = dayNumber(today);
  const shut = new Set(closed.map(dayNumber));
  const works = Array.from({ length: WEEK }, (_, d) => weekdays.includes(d));
  return (day) => {
    const weekday = (((from + day + FIRST_WEEKDAY) % WEEK) + WEEK) % WEEK;
    return works[weekday] === true && !shut.has(from + day);
  };
};
