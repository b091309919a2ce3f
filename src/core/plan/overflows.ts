import type { YearAhead } from './year';

/** Whether the busiest week of a bad year holds more work than the minutes of a week. */
export const overflows = ({ fullestWeek }: Pick<YearAhead, 'fullestWeek'>, minutesAWeek: number): boolean =>
  fullestWeek[1] > minutesAWeek;
