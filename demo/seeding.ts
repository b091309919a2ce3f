import { DAY_MS } from '@/core/calendar/time';
import type { Instrument } from '@/core/record/records';
import type { Db } from '@/server/db/connect';
import type { Random } from './random';

export const CREW = ['MK', 'TO', 'AB'] as const;

/** What every part of the seeding works with. */
export interface Seeding {
  readonly db: Db;
  readonly nowMs: number;
  readonly today: string;
  readonly random: Random;
  readonly partIds: ReadonlyMap<string, number>;
  readonly meters: readonly Instrument[];
}

export const momentOf = (s: Seeding, daysAgo: number): string => new Date(s.nowMs - daysAgo * DAY_MS).toISOString();
