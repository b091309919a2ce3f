import { jStat } from 'jstat';
import { standardDeviation } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { instrumentUncertainty } from '@/core/measure/accuracy';
import { summariseRepeats } from '@/core/measure/repeats';
import { studentFactor, studentTwoSidedP } from '@/core/numeric/student';
import { sampleDeviation } from '@/core/numeric/moments';
import { limits } from '../../support/readings';

describe("Student's factor", () => {
  // GUM (JCGM 100:2008) table G.2, 95 %.
  it.each([
    [1, 12.71],
    [2, 4.3],
    [3, 3.18],
    [4, 2.78],
    [5, 2.57],
    [10, 2.23],
    [20, 2.09],
    [50, 2.01],
    [Number.POSITIVE_INFINITY, 1.96],
  ])('at %d degrees of freedom is %d (GUM table G.2)', (degreesOfFreedom, printed) => {
    // Printed to two decimals.
    expect(Math.abs(studentFactor({ confidence: 0.95, degreesOfFreedom }) - printed)).toBeLessThan(0.00501);
  });

  it('agrees with another package between the printed lines', () => {
    for (const degreesOfFreedom of [2.5, 3.7, 7.2, 16.1]) {
      expect(studentFactor({ confidence: 0.95, degreesOfFreedom })).toBeCloseTo(
        jStat.studentt.inv(0.975, degreesOfFreedom),
        6,
      );
      expect(studentTwoSidedP({ t: 2.1, degreesOfFreedom })).toBeCloseTo(
        2 * jStat.studentt.cdf(-2.1, degreesOfFreedom),
        8,
      );
    }
  });

  it('throws on no degrees of freedom', () => {
    expect(() => studentFactor({ confidence: 0.95, degreesOfFreedom: 0 })).toThrow(RangeError);
  });
});

describe('mean and spread of repeats', () => {
  it('reproduces a certified set: NIST StRD univariate NumAcc1, mean 10000002, s 1', () => {
    const values = [10_000_001, 10_000_003, 10_000_002];
    const result = summariseRepeats({ values, resolution: 1, instrumentUncertainty: null });
    expect(result.mean).toBe(10_000_002);
    expect(result.deviation).toBe(1);
  });

  it('reproduces the temperature series of GUM 4.4.3: mean 100.145, s 1.489, of the mean 0.333', () => {
    const values = [
      96.9, 98.18, 98.25, 98.61, 99.03, 99.49, 99.56, 99.74, 99.89, 100.07, 100.33, 100.42, 100.68, 100.95, 101.11,
      101.2, 101.57, 101.84, 102.36, 102.72,
    ];
    const result = summariseRepeats({ values, resolution: 0.01, instrumentUncertainty: null });
    expect(result.mean).toBeCloseTo(100.145, 3);
    expect(result.deviation).toBeCloseTo(1.489, 3);
    expect(result.repeatUncertainty).toBeCloseTo(0.333, 3);
    expect(result.expanded).toBeCloseTo(2.093 * 0.333, 2);
  });

  it('agrees with a statistics package on its spread', () => {
    const values = [28.4, 28.9, 28.7, 29.1];
    expect(sampleDeviation(values)).toBeCloseTo(standardDeviation(values) * Math.sqrt(4 / 3), 12);
  });

  it('takes the instrument in with infinite degrees of freedom (Welch-Satterthwaite, GUM G.2b)', () => {
    const values = [10, 11, 12];
    const alone = summariseRepeats({ values, resolution: 0.1, instrumentUncertainty: null });
    const both = summariseRepeats({ values, resolution: 0.1, instrumentUncertainty: 1 });
    expect(alone.degreesOfFreedom).toBeCloseTo(2, 12);
    const u = Math.hypot(1 / Math.sqrt(3), 1);
    expect(both.standardUncertainty).toBeCloseTo(u, 12);
    expect(both.degreesOfFreedom).toBeCloseTo((2 * u ** 4) / (1 / 3) ** 2, 9);
  });

  it('limits are divided by sqrt 3, an expanded figure by its k (GUM 4.3.7, 4.3.3)', () => {
    expect(instrumentUncertainty(limits(0.03), 10)).toBeCloseTo(0.3 / Math.sqrt(3), 12);
    expect(instrumentUncertainty({ ...limits(0.03), meaning: 'expanded', coverageFactor: 2 }, 10)).toBeCloseTo(
      0.15,
      12,
    );
    expect(instrumentUncertainty({ ...limits(0.03), meaning: 'standard' }, 10)).toBeCloseTo(0.3, 12);
  });

  it('never claims an interval of zero: identical digits give resolution/sqrt 12 (GUM F.2.2.1)', () => {
    const result = summariseRepeats({ values: [92, 92, 92], resolution: 1, instrumentUncertainty: null });
    expect(result.displayLimited).toBe(true);
    expect(result.expanded).toBeCloseTo(1.96 / Math.sqrt(12), 3);
  });

  it('under three readings gives a mean and no interval (common practice, no published source)', () => {
    expect(summariseRepeats({ values: [92, 95], resolution: 1, instrumentUncertainty: 0.1 })).toMatchObject({
      mean: 93.5,
      expanded: null,
    });
  });
});
