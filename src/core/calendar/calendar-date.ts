import { DAY_MS } from './time';
import { UTCDate } from '@date-fns/utc';
import { addDays as addDaysUtc, addMonths as addMonthsUtc, isValid, lightFormat } from 'date-fns';

/** A calendar day of the site, "2026-11-24". It has no time and no zone: a due date is a day on the wall. */
export type CalendarDate = string;

const PATTERN = /^\d{4}-\d{2}-\d{2}$/;

const utc = (date: CalendarDate): UTCDate => new UTCDate(`${date}T00:00:00Z`);

/** True for a day that exists, in the form "2026-11-24". */
export const isCalendarDate = (text: string): boolean =>
  PATTERN.test(text) && isValid(utc(text)) && lightFormat(utc(text), 'yyyy-MM-dd') === text;

/** Dates are limited to this many days from now, so that a result stays a valid date. */
const FURTHEST_DAYS = 36_525;
const MONTH_DAYS = 30.4375;
/** A day without a time is a moment of UTC (ECMA-262, Date Time String Format), and UTC has no clock to change. */

const within = (count: number, most: number): number => Math.max(-most, Math.min(most, count));

/** The day a number of days on (or back), a hundred years at most. Throws RangeError for a number that is none. @example addDays('2026-02-27', 2) // '2026-03-01' */
export const addDays = (date: CalendarDate, days: number): CalendarDate =>
  lightFormat(addDaysUtc(utc(date), within(days, FURTHEST_DAYS)), 'yyyy-MM-dd');

/** The day a number of months on, a hundred years at most. @example addMonths('2026-01-31', 1) // '2026-02-28' */
export const addMonths = (date: CalendarDate, months: number): CalendarDate =>
  lightFormat(addMonthsUtc(utc(date), within(months, FURTHEST_DAYS / MONTH_DAYS)), 'yyyy-MM-dd');

/** Days from one day to a later one; negative when it is earlier. Source: Gregorian calendar. Valid: days that exist. @example daysBetween({ from: '2026-01-31', to: '2026-02-01' }) // 1 */
export const daysBetween = ({ from, to }: { from: CalendarDate; to: CalendarDate }): number =>
  (Date.parse(to) - Date.parse(from)) / DAY_MS;

/** A day as a number, days since 1970-01-01: for what counts through thousands of them. Source: Gregorian calendar. Valid: a day that exists. @example dayNumber('1970-01-03') // 2 */
export const dayNumber = (date: CalendarDate): number => Date.parse(date) / DAY_MS;

/** One formatter a zone: making one costs a hundred times what using it does. Swedish writes a day as ISO 8601 does. */
const formatters = new Map<string, Intl.DateTimeFormat>();
const dayFormat = (timeZone: string): Intl.DateTimeFormat => {
  const held = formatters.get(timeZone);
  if (held) return held;
  const made = new Intl.DateTimeFormat('sv-SE', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
  formatters.set(timeZone, made);
  return made;
};

/**
 * The site's calendar day of a moment.
 * @example dayAt('2026-11-24T23:30:00Z', 'Europe/Helsinki') // '2026-11-25' Throws RangeError for an invalid moment.
 */
export const dayAt = (isoMoment: string, timeZone: string): CalendarDate => {
  const moment = new Date(isoMoment);
  if (!isValid(moment)) throw new RangeError(`"${isoMoment}" is not a moment`);
  return dayFormat(timeZone).format(moment);
};

/** The weekday of a day: 0 is Sunday. Source: the proleptic Gregorian calendar, ISO 8601. Valid: a calendar date. */
export const weekdayOf = (date: CalendarDate): number => new Date(`${date}T00:00:00Z`).getUTCDay();
