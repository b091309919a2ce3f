import { fixed } from '@/core/units';
import { overflows } from '@/core/plan/overflows';
import type { Range, YearAhead } from '@/core/plan/year';
import { money } from './format';

const whole = (x: number): string => fixed(x, 0);

/** A range as a person would say it; one figure where both ends are the same. */
export const sayRangeOf = ([low, , high]: Range, say: (x: number) => string = whole): string =>
  say(low) === say(high) ? say(low) : `${say(low)} to ${say(high)}`;

const HOUR = 60;

/** The year ahead in a sentence or two. */
export const sayYear = (year: YearAhead, currency: string): string =>
  year.openings[2] === 0
    ? 'Nothing is due within a year.'
    : `${sayRangeOf(year.openings)} openings and ${sayRangeOf(year.minutes, (m) => whole(m / HOUR))} hours of work; parts and openings ${sayRangeOf(year.cost, (c) => money(c, currency))}.`;

/** Expected overdue days of the year. */
export const sayYearPast = ({ daysPast }: YearAhead): string =>
  `Expect ${sayRangeOf(daysPast)} overdue days in the year, over all parts together.`;

/** The busiest week, against the minutes of a week. */
export const sayFullestWeek = (
  { fullestWeek }: YearAhead,
  minutesAWeek: number,
): { readonly full: boolean; readonly sentence: string } => {
  const full = overflows({ fullestWeek }, minutesAWeek);
  return {
    full,
    sentence: `Busiest week: ${sayRangeOf(fullestWeek)} of your ${whole(minutesAWeek)} minutes.${full ? ' Some work moves to the next week.' : ''}`,
  };
};
