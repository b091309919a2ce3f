import { dayAt } from '@/core/calendar/calendar-date';
import { type UnitSystem } from '@/core/units';
import { type Statement } from '@/messages/verdicts';
import type { Bench } from '@/server/services/measuring/bench';

export interface LogEntry {
  readonly key: string;
  readonly day: string;
  readonly at: string;
  readonly by: string;
  readonly title: string;
  readonly text: string;
  readonly typed: string;
  readonly note: string;
  readonly said: Statement | null;
  readonly href: string | null;
  readonly correctHref: string | null;
  readonly withdrawn: boolean;
  /** Why this record replaces an earlier one; null when it does not. */
  readonly correctedBecause: string | null;
  /** Replaced entries, newest first. */
  readonly originals: readonly LogEntry[];
}

export interface Maker {
  readonly bench: Bench;
  readonly units: UnitSystem;
}

export interface EntryText {
  readonly title: string;
  readonly said: Statement | null;
}

export const plainEntry = (
  e: Pick<LogEntry, 'key' | 'at' | 'by' | 'title' | 'text'> & Partial<LogEntry>,
  { bench }: Maker,
): LogEntry => ({
  day: dayAt(e.at, bench.yard.site.timeZone),
  typed: '',
  note: '',
  said: null,
  href: null,
  correctHref: null,
  withdrawn: false,
  correctedBecause: null,
  originals: [],
  ...e,
});
