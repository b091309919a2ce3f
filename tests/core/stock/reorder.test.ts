import { jStat } from 'jstat';
import { describe, expect, it } from 'vitest';
import { reorderOf } from '@/core/stock/demand';
import { packsToOrder, reorderPoint } from '@/core/stock/reorder';

describe('the reorder point', () => {
  it('agrees with textbook worked examples (Heizer and Render, Operations Management, CPR kits and a variable lead time; written from memory)', () => {
    // Mean 350 in the lead time, deviation 10, 95 %: safety 16.5, point 366.5.
    const kits = reorderPoint({ perDay: 350, perDayDeviation: 10, leadDays: 1, leadDeviation: 0, service: 0.95 });
    expect(kits.safety).toBeCloseTo(16.45, 1);
    expect(kits.point).toBeCloseTo(366.45, 1);
    // Constant demand 10 a day, lead time 6 days with deviation 1, 98 %: safety 2.055 x 10.
    expect(
      reorderPoint({ perDay: 10, perDayDeviation: 0, leadDays: 6, leadDeviation: 1, service: 0.98 }).safety,
    ).toBeCloseTo(20.55, 1);
    // Daily demand 150 with 16, lead 5 with 1, 95 %: sqrt(5 x 16^2 + 150^2 x 1) = 154.2, point 750 + 1.645 x 154.2.
    expect(
      reorderPoint({ perDay: 150, perDayDeviation: 16, leadDays: 5, leadDeviation: 1, service: 0.95 }).point,
    ).toBeCloseTo(1003.6, 0);
  });

  it('counts pieces where they are few (Poisson tables): mean 2, 95 %: 5; mean 0.5, 90 %: 1; nothing used, nothing held', () => {
    const of = (mean: number, service: number) =>
      reorderPoint({
        perDay: mean / 10,
        perDayDeviation: Math.sqrt(mean / 10),
        leadDays: 10,
        leadDeviation: 0,
        service,
      }).point;
    expect([of(2, 0.95), of(0.5, 0.9), of(0, 0.99)]).toEqual([5, 1, 0]);
  });

  it('a demand spread wider than single pieces is counted by the negative binomial, and does not jump where pieces become many', () => {
    const at = (perDay: number) =>
      reorderPoint({ perDay, perDayDeviation: 3, leadDays: 14, leadDeviation: 0, service: 0.95 });
    const [few, many] = [at(0.71), at(0.72)];
    expect([few.by, many.by]).toEqual(['negativeBinomial', 'negativeBinomial']);
    expect(few.point).toBeGreaterThanOrEqual(32);
    expect(many.point).toBeLessThanOrEqual(33);
    // By its own sum, with the gamma function of another library: the least k that 95 % of demand keeps to.
    const [mean, variance] = [0.71 * 14, 14 * 9];
    const [r, p] = [mean ** 2 / (variance - mean), mean / variance];
    let [k, below] = [-1, 0];
    while (below < 0.95) {
      k += 1;
      below += Math.exp(
        jStat.gammaln(k + r) - jStat.gammaln(r) - jStat.gammaln(k + 1) + r * Math.log(p) + k * Math.log(1 - p),
      );
    }
    expect(few.point).toBe(k);
    const normal = at(3);
    expect(normal.by).toBe('normal');
    expect(normal.point).toBeCloseTo(42 + 1.6448536 * Math.sqrt(126), 3);
  });

  it('what nobody uses is not ordered, but what is promised and not there is', () => {
    const none = { onHand: 0, onOrder: 0, reserved: 0, point: 0, packSize: 5, cover: 0 };
    expect(packsToOrder(none)).toBe(0);
    expect(packsToOrder({ ...none, reserved: 6 })).toBe(2);
    expect(packsToOrder({ ...none, cover: 3 })).toBe(1);
  });

  it('refuses what is no demand', () => {
    expect(() => reorderPoint({ perDay: -1, perDayDeviation: 0, leadDays: 5, leadDeviation: 0, service: 0.9 })).toThrow(
      RangeError,
    );
    expect(() => reorderPoint({ perDay: 1, perDayDeviation: 0, leadDays: 5, leadDeviation: 0, service: 1 })).toThrow(
      RangeError,
    );
    expect(() =>
      reorderPoint({ perDay: Number.NaN, perDayDeviation: 0, leadDays: 5, leadDeviation: 0, service: 0.9 }),
    ).toThrow(RangeError);
  });

  it('orders in whole packs, counting what is on its way and what is spoken for', () => {
    const base = { onHand: 3, onOrder: 0, reserved: 0, point: 4, packSize: 5, cover: 6 };
    expect(packsToOrder(base)).toBe(2);
    expect(packsToOrder({ ...base, onOrder: 5 })).toBe(0);
    expect(packsToOrder({ ...base, onOrder: 5, reserved: 5 })).toBe(2);
    expect(packsToOrder({ ...base, onHand: 5 })).toBe(0);
  });

  it('goes by the ledger, and holds at the least what the plan takes before an order is here; what spoils is said', () => {
    const use = {
      partId: 1,
      packSize: 5,
      onHand: 4,
      onOrder: 0,
      reserved: 0,
      leadDays: 10,
      shelfDays: null,
      taken: 24,
      overDays: 365,
      planned: 0,
      minimum: null,
    };
    // 24 a year is 0.66 in ten days: the Poisson quantile of 95 % is 2 or 3 with the spread of the lead time.
    expect(reorderOf(use)).toMatchObject({ packs: 0 });
    expect([2, 3]).toContain(reorderOf(use).point.point);
    expect(reorderOf({ ...use, planned: 6 })).toMatchObject({ point: { point: 6 }, packs: 1 });
    expect(reorderOf({ ...use, onHand: 2 }).packs).toBe(1);
    // A minimum holds whatever the use: with it on the shelf nothing is ordered, with one fewer a pack is.
    expect(reorderOf({ ...use, minimum: 4 }).packs).toBe(0);
    expect(reorderOf({ ...use, minimum: 5 }).packs).toBe(1);
    expect(reorderOf({ ...use, taken: 0, onHand: 0, minimum: 1 }).packs).toBe(1);
    // An unsure lead time is met by a higher point: 200 in ten days with the spread of it, against the days alone.
    const busy = { ...use, taken: 7300 };
    expect(reorderOf(busy).point.safety).toBeGreaterThan(3 * 1.645 * Math.sqrt(200));
    expect(reorderOf({ ...use, taken: 0 })).toMatchObject({ packs: 0, perDay: 0 });
    expect(reorderOf({ ...use, taken: 1, shelfDays: 365 }).spoils).toBe(3);
  });
});
