import type { Range, YearAhead } from '@/core/plan/year';
import { money } from './plan';

const whole = (x: number): string => x.toFixed(0);

/** A range as a person would say it; one figure where both ends are the same. */
export const sayRangeOf = ([low, , high]: Range, say: (x: number) => string = whole): string =>
  say(low) === say(high) ? say(low) : `${say(low)} to ${say(high)}`;

const HOUR = 60;

/** The year ahead in a sentence or two. */
export const sayYear = (year: YearAhead, currency: string): string =>
  year.openings[2] === 0
    ? 'Nothing is due within a year.'
    : `${sayRangeOf(year.openings)} openings and ${sayRangeOf(year.minutes, (m) => whole(m / HOUR))} hours of work; parts and openings ${sayRangeOf(year.cost, (c) => money(c, currency))}.`;

/** How much of the year stages are overdue. */
export const sayYearPast = ({ daysPast, sharePast }: YearAhead): string =>
  `Overdue: ${sayRangeOf(daysPast)} days over all stages, ${sayRangeOf(sharePast, (s) => (100 * s).toFixed(1))} % of their time.`;

/** The fullest week against what there is in one. */
export const sayFullestWeek = (
  { fullestWeek }: YearAhead,
  minutesAWeek: number,
): { readonly full: boolean; readonly sentence: string } => {
  const full = fullestWeek[1] > minutesAWeek;
  return {
    full,
    sentence: `The fullest week takes ${sayRangeOf(fullestWeek)} minutes; there are ${whole(minutesAWeek)} in one.${full ? ' Some work will slip into the next.' : ''}`,
  };
};
