import { dayAt } from '@/core/calendar/calendar-date';
import { isAsFound } from '@/core/record/as-found';
import { inForce } from '@/core/record/records';
import { METHODS } from '@/core/measure/methods';
import { isSeries } from '@/core/record/series';
import { judgeTest } from '@/core/status/judge-test';
import { show, type UnitSystem } from '@/core/units';
import { PLACE_WORDS } from '@/messages/words';
import type { Bench } from '@/server/services/measuring/bench';

/** A test that can serve as "before", with its words from the server. */
export interface BeforeChoice {
  readonly id: number;
  readonly words: string;
  /** Fresh enough to be this change's "as found" without being chosen. */
  readonly recent: boolean;
}

const RECENT = 5;

/** The latest tests that can serve as "before", newest first, in words. */
export const beforeChoices = (
  bench: Bench,
  { units, now }: { units: UnitSystem; now: string },
): readonly BeforeChoice[] =>
  inForce(bench.tests)
    .filter((t) => isSeries(t) && t.test.failedPreconditions.length === 0)
    .slice(-RECENT)
    .reverse()
    .map((record) => {
      const { reduced } = judgeTest({
        machine: bench.status.machine,
        tests: bench.tests,
        thresholds: bench.yard.site.thresholds,
        record,
      });
      const kind = METHODS[record.test.method].result;
      const day = dayAt(record.performedAt, bench.yard.site.timeZone);
      const recent = isAsFound({ testAt: record.performedAt, workAt: now });
      return {
        id: record.id,
        recent,
        words: `${day}: ${show(kind, reduced.repeats.mean, units)} at the ${PLACE_WORDS[record.test.place]} (${record.by})`,
      };
    });

/** Parts with their stock, as the change sheet shows them. */
export const shelfParts = (bench: Bench) => bench.parts.map(({ id, name, bin, onHand }) => ({ id, name, bin, onHand }));
