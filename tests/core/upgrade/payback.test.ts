import { describe, expect, it } from 'vitest';
import { fitContainer } from '@/core/upgrade/container';
import { annuityFactor, discountedYears, payback, type PaybackInput } from '@/core/upgrade/payback';

const sure = { spread: 0, factorSpread: 0 };
const bag = { name: 'bag', perChange: 10, perChangeAfter: 10, days: 365.25 / 12, factor: 1, ...sure };
const input = (over: Partial<PaybackInput> = {}): PaybackInput => ({
  price: 100,
  stages: [bag],
  addedPerYear: 0,
  seed: 3,
  ...over,
});

describe('when an upgrade pays', () => {
  // Handbook of the trade, section 13: a pre-separator at 100 that saves 50 to 100 a year pays in one to two years.
  it.each([
    [100, 1],
    [50, 2],
  ])('at 100 and a saving of %s a year in %s years', (saved, years) => {
    const factor = 1 / (1 - saved / 120);
    const p = payback(input({ stages: [{ ...bag, factor }] }));
    expect(p.costBefore.middle).toBeCloseTo(120, 6);
    expect(p.savedPerYear.middle).toBeCloseTo(saved, 6);
    expect([p.years.low, p.years.high]).toEqual([p.years.middle, p.years.middle]);
    expect(p.years.middle).toBeCloseTo(years, 6);
    expect(p.never).toBe(0);
  });

  it('never, where it costs more a year than it saves; and says what it hangs on', () => {
    const dear = payback(input({ addedPerYear: 30 }));
    expect([dear.savedPerYear.high < 0, dear.years.middle, dear.never]).toEqual([true, Infinity, 1]);
    const unsure = { ...bag, factor: 2, factorSpread: 0.5, spread: 0.05 };
    const filter = { ...bag, name: 'filter', perChange: 3, perChangeAfter: 3, factor: 2, factorSpread: 0.5 };
    expect(payback(input({ stages: [filter, unsure] })).hangsOn).toEqual({ name: 'bag', of: 'gain' });
    expect(payback(input()).hangsOn).toBe(null);
  });

  it('is a range as wide as what is known, with its chance of never', () => {
    const wide = payback(input({ stages: [{ ...bag, factor: 1.3, factorSpread: 0.4, spread: 0.3 }] }));
    expect(wide.years.low).toBeLessThan(wide.years.middle);
    expect(wide.never).toBeGreaterThan(0.15);
    // Against counting on paper: never where the factor lies under 1 / (1 - 10 / 120), its logarithm 0.087 of 0.262 +- 0.4.
    expect(wide.never).toBeLessThan(0.45);
  });

  it('a part that goes out costs nothing afterwards', () => {
    expect(payback(input({ stages: [{ ...bag, perChangeAfter: 0 }] })).costAfter.high).toBe(0);
  });
});

describe('money of later years', () => {
  // Any printed table of the present value of an ordinary annuity of 1.
  it.each([
    [0.05, 10, 7.7217],
    [0.08, 5, 3.9927],
    [0.1, 15, 7.6061],
    [0.03, 20, 14.8775],
  ])('at %s for %s years 1 a year is worth %s', (rate, years, worth) => {
    expect(annuityFactor({ rate, years })).toBeCloseTo(worth, 4);
    expect(discountedYears({ price: worth, savedPerYear: 1, rate })).toBeCloseTo(years, 2);
  });

  it('a price that interest eats is never paid', () => {
    expect(discountedYears({ price: 100, savedPerYear: 4, rate: 0.05 })).toBe(Infinity);
    expect(discountedYears({ price: 100, savedPerYear: 50, rate: 0 })).toBe(2);
    expect(() => annuityFactor({ rate: -0.1, years: 1 })).toThrow(RangeError);
  });
});

describe('a bottom container', () => {
  it('twice the volume takes twice the days; what is too tall is told by how much', () => {
    const now = { volumeM3: 0.1, days: 20 };
    expect(fitContainer({ underM: 0.6, heightM: 0.55, volumeM3: 0.2, now })).toEqual({
      roomM: expect.closeTo(0.05, 9) as number,
      daysToFull: 40,
    });
    expect(fitContainer({ underM: 0.5, heightM: 0.55, volumeM3: 0.2, now: null })).toEqual({
      roomM: expect.closeTo(-0.05, 9) as number,
      daysToFull: null,
    });
    expect(() => fitContainer({ underM: 0, heightM: 1, volumeM3: 1, now })).toThrow(RangeError);
  });
});
