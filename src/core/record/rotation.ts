import { DAY_MS } from '../calendar/time';
import type { CalendarDate } from '../calendar/calendar-date';

/** Why a copy of the records was taken. */
export const COPY_REASONS = ['daily', 'asked', 'replaced'] as const;
export type CopyReason = (typeof COPY_REASONS)[number];

export interface DatedCopy {
  readonly name: string;
  /** UTC moment, ISO. */
  readonly at: string;
  readonly day: CalendarDate;
  readonly why: CopyReason;
}

/**
 * Number of kept daily backups: the newest of each of the last days, weeks and months that have one. Moorwind defaults.
 */
export const KEPT = { days: 7, weeks: 5, months: 12, asked: 10, replaced: 5 } as const;

const WEEK_DAYS = 7;
/** A Monday, so that weeks begin on one. */
const FIRST_MONDAY = Date.parse('1990-01-01');

const weekOf = (day: CalendarDate): string =>
  String(Math.floor((Date.parse(day) - FIRST_MONDAY) / (WEEK_DAYS * DAY_MS)));
const monthOf = (day: CalendarDate): string => day.slice(0, 7);

/** The newest of each of the newest periods. */
const newestOfEach = (
  newestFirst: readonly DatedCopy[],
  { periodOf, most }: { readonly periodOf: (day: CalendarDate) => string; readonly most: number },
): readonly DatedCopy[] => {
  const seen = new Map<string, DatedCopy>();
  for (const copy of newestFirst) {
    const period = periodOf(copy.day);
    if (!seen.has(period) && seen.size < most) seen.set(period, copy);
  }
  return [...seen.values()];
};

/**
 * The copies that are no longer kept, by name. The newest of each of the last seven days, five weeks and twelve months that
 * have one stay; of those asked for the last ten, of those a restore replaced the last five. Source: the grandfather,
 * father and son rotation of backups, common practice, no published source.
 */
export const outdatedCopies = (copies: readonly DatedCopy[]): readonly string[] => {
  const newestFirst = [...copies].sort((a, b) => (a.at < b.at ? 1 : -1));
  const daily = newestFirst.filter((c) => c.why === 'daily');
  const kept = new Set(
    [
      ...newestOfEach(daily, { periodOf: (day) => day, most: KEPT.days }),
      ...newestOfEach(daily, { periodOf: weekOf, most: KEPT.weeks }),
      ...newestOfEach(daily, { periodOf: monthOf, most: KEPT.months }),
      ...newestFirst.filter((c) => c.why === 'asked').slice(0, KEPT.asked),
      ...newestFirst.filter((c) => c.why === 'replaced').slice(0, KEPT.replaced),
    ].map((c) => c.name),
  );
  return copies.filter((c) => !kept.has(c.name)).map((c) => c.name);
};
