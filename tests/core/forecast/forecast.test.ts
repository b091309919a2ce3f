import { quantileSorted } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import type { PastInterval, Inspection, StageHistory } from '@/core/forecast/history';
import { believeLife, lifeQuantile, withBreaks } from '@/core/forecast/life';
import { drawCount, drawWear, firstOf } from '@/core/forecast/reach';
import { daysDrawer, daysSince, FURTHEST_DAYS, recentWeeks, type Use } from '@/core/forecast/use';
import { seeded } from '../../../demo/random';

const interval = (load: number, over: Partial<PastInterval> = {}): PastInterval => ({
  load,
  days: load,
  end: 'limit',
  found: null,
  beforeRegime: false,
  ...over,
});
const history = (over: Partial<StageHistory> = {}): StageHistory => ({
  template: { load: 40, spread: 0.7 },
  counts: 'hours',
  past: [],
  load: 0,
  inspections: [],
  ...over,
});
const middle = (h: StageHistory) => lifeQuantile(believeLife(h), 0.5);
const width = (h: StageHistory) => Math.log(lifeQuantile(believeLife(h), 0.9) / lifeQuantile(believeLife(h), 0.1));
const share = (load: number, of: number): Inspection => ({ kind: 'share', load, share: of, deviation: 0.1 });
/** Two hours on each of five days. */
const steady: Use = {
  recent: Array.from({ length: 70 }, (_, i) => (i % 7 < 5 ? 2 : 0)),
  works: (day) => (day - 1) % 7 < 5,
  unsure: 0,
};

describe('the life of a stage (facts of an independent trial; common practice, no published source)', () => {
  it('falls back to the template without a record, and tightens as data arrive', () => {
    expect(middle(history())).toBeCloseTo(40, 0);
    const some = history({ past: [interval(60), interval(66), interval(63)] });
    expect(middle(some)).toBeGreaterThan(50);
    expect(middle(some)).toBeLessThan(66);
    expect(width(some)).toBeLessThan(0.75 * width(history()));
    expect(width({ ...some, inspections: [share(30, 0.5)] })).toBeLessThan(width(some));
  });

  it('few intervals are shrunk towards the template, many are not', () => {
    const one = middle(history({ past: [interval(90)] }));
    const nine = middle(history({ past: Array.from({ length: 9 }, () => interval(90)) }));
    expect(one).toBeLessThan(nine);
    expect(nine).toBeGreaterThan(75);
  });

  it('a change is not a limit crossing: an early one is a bound, what was found scales it, late people bias it', () => {
    const early = middle(history({ past: [interval(20, { end: 'early' }), interval(20, { end: 'early' })] }));
    const full = middle(history({ past: [interval(20), interval(20)] }));
    expect(early).toBeGreaterThan(1.4 * full);
    expect(
      middle(
        history({ past: [interval(20, { end: 'early', found: 0.5 }), interval(20, { end: 'early', found: 0.5 })] }),
      ),
    ).toBeCloseTo(middle(history({ past: [interval(40, { found: 1 }), interval(40, { found: 1 })] })), -0.5);
    // The same hours over few days hold a larger share of waiting.
    expect(middle(history({ past: [interval(20, { days: 6 }), interval(20, { days: 6 })] }))).toBeLessThan(
      middle(history({ past: [interval(20, { days: 200 }), interval(20, { days: 200 })] })),
    );
    expect(middle(history({ past: [interval(20, { end: 'other' })] }))).toBeCloseTo(40, 0);
  });

  it('one coarse look at the fill is worth more than an interval, and the exponent floats', () => {
    const looked = history({ past: [interval(40)], inspections: [share(30, 0.5)] });
    expect(middle(looked)).toBeGreaterThan(46);
    expect(middle(looked)).toBeLessThan(66);
    // Two looks that do not lie on a straight line through nought are both fitted.
    const bent = middle(history({ inspections: [share(10, 0.12), share(30, 0.6)] }));
    expect(bent).toBeGreaterThan(36);
    expect(bent).toBeLessThan(56);
  });

  it('"not changed yet" does not mean "not due": age alone moves nothing, a gauge does', () => {
    const old = history({ past: [interval(40), interval(40)], load: 70 });
    expect(middle(old)).toBeCloseTo(middle({ ...old, load: 5 }), 6);
    const above: Inspection = { kind: 'side', load: 30, share: 1, above: true };
    expect(middle({ ...old, inspections: [above] })).toBeLessThan(30);
    expect(middle({ ...old, inspections: [{ ...above, above: false }] })).toBeGreaterThan(middle(old));
  });

  it('does not average across a change of regime, recorded or not', () => {
    const past = [80, 82, 78, 81, 30, 31].map((load) => interval(load));
    expect(withBreaks(past).map((i) => i.beforeRegime)).toEqual([true, true, true, true, false, false]);
    expect(withBreaks([80, 70, 90, 75, 85, 72].map((load) => interval(load))).some((i) => i.beforeRegime)).toBe(false);
    const known = middle(history({ past: past.map((i, k) => ({ ...i, beforeRegime: k < 4 })) }));
    expect(known).toBeLessThan(40);
    expect(middle(history({ past }))).toBeCloseTo(known, 6);
  });
});

describe('from hours to days', () => {
  it('turns a load into days by recent use; closed days stand still', () => {
    const chance = { uniform: () => 0.5, normal: () => 0 };
    expect(daysDrawer(steady)(20, chance)).toBeCloseTo(12, 5);
    const shut: Use = { ...steady, works: (day) => day > 14 && (day - 1) % 7 < 5 };
    expect(daysDrawer(shut)(20, chance)).toBeCloseTo(26, 5);
    expect(daysDrawer({ ...steady, recent: [] })(20, chance)).toBe(FURTHEST_DAYS);
    expect(daysSince(4, steady)).toBeGreaterThan(3);
    expect(recentWeeks(steady)).toEqual(Array.from({ length: 10 }, () => 10));
  });

  it('bursts and an unsure level widen the days, the middle stays', () => {
    const wide = (use: Use) => {
      const f = firstOf([
        {
          rule: 1,
          draws: drawWear(history({ past: Array.from({ length: 8 }, () => interval(40, { days: 300 })) }), use, {
            chance: seeded(4),
          }),
        },
      ]);
      return (f?.reached[3] ?? 0) - (f?.reached[1] ?? 0);
    };
    const bursts: Use = { ...steady, recent: steady.recent.map((h, i) => (Math.floor(i / 7) % 2 === 0 ? 2 * h : 0)) };
    expect(wide(bursts)).toBeGreaterThan(1.1 * wide(steady));
    expect(wide({ ...steady, unsure: 0.5 })).toBeGreaterThan(1.3 * wide(steady));
  });

  it('a stage past its limit is overdue by days of real use, and its quantiles are those of its draws (simple-statistics)', () => {
    const draws = drawWear(
      history({ past: Array.from({ length: 6 }, () => interval(40, { days: 300 })), load: 70 }),
      steady,
      { chance: seeded(9) },
    );
    const f = firstOf([{ rule: 3, draws }]);
    expect(f?.overdue).toBeGreaterThan(0.8);
    const sorted = [...draws].sort((a, b) => a - b);
    expect(f?.reached[2]).toBeCloseTo(quantileSorted(sorted, 0.5), 6);
    expect(Math.abs((f?.reached[1] ?? 0) - quantileSorted(sorted, 0.1))).toBeLessThan(0.5);
  });
});

describe('counts and the first of several', () => {
  it('a count inherits the spread and the habits of what it counts', () => {
    const of = (gaps: readonly number[], remaining: number) =>
      firstOf([{ rule: 1, draws: drawCount(remaining, { gaps, since: 3, templateDays: 14 }, { chance: seeded(6) }) }])
        ?.reached ?? [0, 0, 0, 0, 0];
    const even = of([14, 14, 14, 14, 14, 14], 3);
    const wild = of([5, 30, 7, 28, 6, 31], 3);
    expect(even[2]).toBeGreaterThan(33);
    expect(even[2]).toBeLessThan(45);
    expect(wild[3] - wild[1]).toBeGreaterThan(1.5 * (even[3] - even[1]));
    expect(of([14, 14], 0)).toEqual([0, 0, 0, 0, 0]);
  });

  it('takes the first, draw by draw, and says how often each rule is it', () => {
    const f = firstOf([
      { rule: 1, draws: Float64Array.from([5, 9, 9, 9]) },
      { rule: 2, draws: Float64Array.from([7, 7, 7, 7]) },
    ]);
    expect(f?.binding).toEqual([
      { rule: 2, chance: 0.75 },
      { rule: 1, chance: 0.25 },
    ]);
    expect(f?.reached[2]).toBe(7);
    expect(firstOf([])).toBeNull();
  });
});
