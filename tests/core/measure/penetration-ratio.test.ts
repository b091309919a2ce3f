import { jStat } from 'jstat';
import { describe, expect, it } from 'vitest';
import { classLimit } from '@/core/machine/integrity';
import { judgeScreening, penetrationLimits } from '@/core/measure/penetration-ratio';

const counts = (through: number, challenge: number, times = 1) => ({
  through: { count: through, volumeM3: 0.00283 * times },
  challenge: { count: challenge, volumeM3: 0.00283 },
});

describe('what may pass, by the limits of two counts', () => {
  it('nothing through of N: the upper limit is 1 - 0.05^(1/N) turned into a ratio, about 3.0/N (rule of three; Clopper and Pearson 1934, closed form for none)', () => {
    for (const n of [10, 300, 900, 2547, 60_000]) {
      const p = 1 - 0.05 ** (1 / n);
      const { ratio, low, high, best } = penetrationLimits(counts(0, n));
      expect([ratio, low]).toEqual([0, 0]);
      expect(high).toBeCloseTo(p / (1 - p), 10);
      expect(best).toBe(high);
      if (n >= 300) expect(high * n).toBeCloseTo(2.996, 1);
    }
    // "One minute at 900 a litre can prove no better than 0.3 %".
    expect((100 * penetrationLimits(counts(0, 900)).best).toFixed(1)).toBe('0.3');
    expect((100 * penetrationLimits(counts(0, 2547)).best).toFixed(2)).toBe('0.12');
  });

  it('agree with the F distribution of an independent library: the limits of a ratio of two Poisson counts', () => {
    for (const [x, y] of [
      [1, 900],
      [6, 333],
      [600, 900],
      [42, 41],
      [3, 7],
    ] as const) {
      const { low, high } = penetrationLimits(counts(x, y));
      // Upper: (x+1)/y * F(0.95; 2(x+1), 2y). Lower: x/(y+1) * F(0.05; 2x, 2(y+1)).
      expect(high / (((x + 1) / y) * jStat.centralF.inv(0.95, 2 * (x + 1), 2 * y))).toBeCloseTo(1, 6);
      expect(low / ((x / (y + 1)) * jStat.centralF.inv(0.05, 2 * x, 2 * (y + 1)))).toBeCloseTo(1, 6);
    }
  });

  it('limits hold what they say: the upper one is below a true ratio in about one count of twenty at most (exact sum over the Poisson counts)', () => {
    const poisson = (k: number, mean: number) => Math.exp(k * Math.log(mean) - mean - jStat.gammaln(k + 1));
    for (const [ratio, challenge] of [
      [0.02, 200],
      [0.3, 40],
    ] as const) {
      let missed = 0;
      for (let y = Math.max(1, Math.floor(challenge * 0.5)); y < challenge * 1.6; y += 1)
        for (let x = 0; x < ratio * challenge * 4 + 20; x += 1)
          if (penetrationLimits(counts(x, y)).high < ratio)
            missed += poisson(x, ratio * challenge) * poisson(y, challenge);
      expect(missed).toBeGreaterThan(0.005);
      expect(missed).toBeLessThanOrEqual(0.0501);
    }
  });

  it('longer behind the filter than in the room counts for its volume; nothing in the room shows nothing', () => {
    expect(penetrationLimits(counts(0, 900, 10)).high).toBeCloseTo(penetrationLimits(counts(0, 900)).high / 10, 10);
    expect(penetrationLimits(counts(0, 0)).high).toBe(Number.POSITIVE_INFINITY);
    for (const bad of [-1, 0.5, Number.NaN]) expect(() => penetrationLimits(counts(bad, 900))).toThrow(RangeError);
    expect(() => penetrationLimits(counts(0, 900, 0))).toThrow(RangeError);
  });
});

describe('screening by a count', () => {
  it('600 of 900 fails every class; a clean minute screens and proves none of H; a short one cannot tell', () => {
    for (const c of ['L', 'M', 'H', 'HEPA'] as const)
      expect(judgeScreening(counts(600, 900), { limit: classLimit(c) }).outcome).toBe('fails');
    expect(judgeScreening(counts(0, 2547), { limit: classLimit('H') })).toMatchObject({
      outcome: 'screened',
      provesLimit: false,
    });
    expect(judgeScreening(counts(0, 300), { limit: classLimit('H') }).outcome).toBe('notShown');
    expect(judgeScreening(counts(0, 100_000), { limit: classLimit('H') })).toMatchObject({
      outcome: 'screened',
      provesLimit: true,
    });
  });

  it('asks a figure of its own, never under the class: an L machine screens at its own 1 %', () => {
    expect(judgeScreening(counts(0, 320), { limit: classLimit('L') })).toMatchObject({
      outcome: 'screened',
      figure: 0.01,
    });
    expect(judgeScreening(counts(0, 320), { limit: classLimit('L'), figure: 0.02 }).figure).toBe(0.02);
    // One particle in the exhaust of few: shown to be neither.
    expect(judgeScreening(counts(1, 900), { limit: classLimit('H') }).outcome).toBe('fails');
  });
});
