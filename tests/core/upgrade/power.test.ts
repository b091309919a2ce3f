import { jStat } from 'jstat';
import { describe, expect, it } from 'vitest';
import { powerOf, repeatsFor } from '@/core/upgrade/power';

describe('the repeats it takes to see a gain', () => {
  // Cohen, Statistical Power Analysis for the Behavioral Sciences, 2nd ed., table 2.4.1: two-sided, alpha .05, power .80.
  it.each([
    [1.2, 12],
    [1, 17],
    [0.8, 26],
  ])('an effect of %s spreads takes %s a side', (effect, repeats) => {
    expect(repeatsFor(effect)).toBe(repeats);
  });

  it('agrees with an independent noncentral t (jstat) to a thousandth', () => {
    for (const [effect, repeats] of [
      [0.5, 5],
      [1, 10],
      [2, 4],
      [3, 3],
    ] as const) {
      const df = 2 * repeats - 2;
      const limit = jStat.studentt.inv(0.975, df);
      const shift = effect * Math.sqrt(repeats / 2);
      const theirs = 1 - jStat.noncentralt.cdf(limit, df, shift) + jStat.noncentralt.cdf(-limit, df, shift);
      expect(Math.abs(powerOf({ effect, repeats }) - theirs)).toBeLessThan(1e-3);
    }
  });

  it('no effect is seen in one of twenty, and no sensible number sees a tiny one', () => {
    expect(powerOf({ effect: 0, repeats: 8 })).toBeCloseTo(0.05, 3);
    expect([repeatsFor(0.1), repeatsFor(0), repeatsFor(9)]).toEqual([null, null, 3]);
    expect(() => powerOf({ effect: 1, repeats: 1 })).toThrow(RangeError);
  });
});
