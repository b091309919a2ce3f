import { addDays } from '@/core/calendar/calendar-date';
import type { OwnTool } from '@/core/for-work/own-tool';
import { insertBonding, insertTool } from '@/server/repositories/tools';
import { momentOf, type Seeding } from './seeding';

/** Tools of the boatyard, by what the crew calls them. */
const TOOLS: readonly Omit<OwnTool, 'key' | 'retired'>[] = [
  { name: 'Slipway grinder', like: 'grinder', sizeM: 0.125, airM3s: null, amps: 5.2 },
  { name: 'Long-reach sander', like: 'sander', sizeM: 0.225, airM3s: 0.03, amps: 2.6 },
];

/** Continuity readings, by tag and days ago; null where the meter read open. */
const READINGS: readonly (readonly [string, number, number | null])[] = [
  ['CR-05', 61, 0.8],
  ['CR-05', 12, 0.6],
  ['CR-01', 40, 1.4],
];

export const insertTools = async (s: Seeding, idOf: (tag: string) => number): Promise<void> => {
  for (const [i, tool] of TOOLS.entries())
    await insertTool(
      s.db,
      { ...tool, key: `own0000000${i + 1}`, retired: false },
      { at: momentOf(s, 300 - i), by: 'AB' },
    );
  for (const [tag, daysAgo, ohm] of READINGS)
    await insertBonding(s.db, idOf(tag), {
      on: addDays(s.today, -daysAgo),
      ohm,
      between: tag === 'CR-01' ? 'duct to earth bar' : 'hose end to earth pin',
      at: momentOf(s, daysAgo),
      by: 'MK',
    });
};
