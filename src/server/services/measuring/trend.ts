import { dayAt } from '@/core/calendar/calendar-date';
import { METHODS, type Method } from '@/core/measure/methods';
import { reduceTest } from '@/core/measure/reduce-test';
import type { Place } from '@/core/measure/place';
import { inForce } from '@/core/record/records';
import { isSeries } from '@/core/record/series';
import type { Bench } from './bench';

export interface TrendKey {
  readonly method: Method;
  readonly place: Place;
  readonly stageId: number | null;
}

export interface TrendPoint {
  readonly testId: number;
  readonly at: string;
  readonly day: string;
  readonly mean: number;
  readonly expanded: number | null;
  readonly n: number;
  readonly rigSeries: number;
  readonly isBaseline: boolean;
  readonly usable: boolean;
  readonly by: string;
  readonly configuration: string;
}

export interface Trend {
  readonly key: TrendKey;
  readonly points: readonly TrendPoint[];
  readonly changes: readonly { readonly at: string; readonly name: string }[];
  /** The baseline in force, in the result's SI unit; null without one. */
  readonly baseline: number | null;
}

const stageIdOf = (detail: { readonly kind: string; readonly stageId?: number }): number | null =>
  detail.stageId ?? null;

/** Every measure a machine has a series of, most often taken first. */
export const trendKeys = (bench: Bench): readonly TrendKey[] => {
  const counted = new Map<string, { key: TrendKey; n: number }>();
  for (const { test } of inForce(bench.tests).filter(isSeries)) {
    const key: TrendKey = { method: test.method, place: test.place, stageId: stageIdOf(test.detail) };
    const name = JSON.stringify(key);
    counted.set(name, { key, n: (counted.get(name)?.n ?? 0) + 1 });
  }
  return [...counted.values()].sort((a, b) => b.n - a.n).map(({ key }) => key);
};

/** One measure of a machine over time: every standing test of it with its interval, and the changes between. */
export const loadTrend = (bench: Bench, key: TrendKey): Trend => {
  const zone = bench.yard.site.timeZone;
  const points = inForce(bench.tests)
    .filter(
      (t) =>
        isSeries(t) &&
        t.test.method === key.method &&
        t.test.place === key.place &&
        stageIdOf(t.test.detail) === key.stageId,
    )
    .flatMap((t): readonly TrendPoint[] => {
      const reduced = reduceTest(t.test);
      if (!reduced.ok) return [];
      const { mean, expanded, n } = reduced.value.repeats;
      return [
        {
          testId: t.id,
          at: t.performedAt,
          day: dayAt(t.performedAt, zone),
          mean,
          expanded,
          n,
          rigSeries: t.test.rigSeries,
          isBaseline: t.isBaseline,
          usable: reduced.value.usable && !reduced.value.biased,
          by: t.by,
          configuration: t.configuration,
        },
      ];
    });
  const names = new Map(bench.status.machine.stages.map((s) => [s.id, s.name]));
  const changes = inForce(bench.changes).map((c) => ({ at: c.performedAt, name: names.get(c.stageId) ?? '' }));
  return { key, points, changes, baseline: points.findLast((p) => p.isBaseline && p.usable)?.mean ?? null };
};

/** The quantity of a trend's figures. */
export const trendQuantity = (key: TrendKey) => METHODS[key.method].result;
