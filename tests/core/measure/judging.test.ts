import fc from 'fast-check';
import { jStat } from 'jstat';
import { sampleVariance } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { boreVelocityMs } from '@/core/measure/bore-flow';
import { compareTests } from '@/core/measure/compare-tests';
import { decideAtLeast } from '@/core/measure/decide';
import { judgeAgainstBaseline } from '@/core/measure/judge-baseline';
import { judgeHoseVelocity } from '@/core/measure/judge-class';
import { studentFactor } from '@/core/numeric/student';
import { fromSi, toSi } from '@/core/units';
import { flowTest, limits, reduce } from '../../support/readings';

const thresholds = { warnLoss: 0.15, actLoss: 0.25 };
const around = (mean: number, half: number) => [mean - half, mean, mean + half];

const judge = (now: readonly number[], baseline: readonly number[], over = {}) =>
  judgeAgainstBaseline({ now: reduce(flowTest(now, over)), baseline: reduce(flowTest(baseline, over)), thresholds });

describe('flow and velocity of one rig', () => {
  it.each([
    [3523, 92],
    [3720, 97],
  ])('%d fpm and %d cfm mean one bore, 55.5-55.6 mm (common practice, no published source)', (fpm, cfm) => {
    const velocityAt = (boreM: number) => boreVelocityMs({ flowM3s: toSi('flow', cfm, 'cfm'), boreM });
    expect(velocityAt(0.05545)).toBeGreaterThan(toSi('velocity', fpm, 'fpm'));
    expect(velocityAt(0.05565)).toBeLessThan(toSi('velocity', fpm, 'fpm'));
  });

  it('an anemometer in a pipe: factor x v x A', () => {
    const test = flowTest([20, 20.2, 19.8], { method: 'anemometer', boreM: 0.05, profileFactor: 0.82 });
    expect(reduce(test).repeats.mean).toBeCloseTo(0.82 * 20 * Math.PI * 0.025 ** 2, 9);
  });
});

describe('more than the baseline', () => {
  it('is asked about only when the whole interval lies above it (JCGM 106: guarded, no gain is claimed that was not shown)', () => {
    const baseline = around(0.03, 0.00003);
    expect(judge(around(0.039, 0.00003), baseline).outcome).toBe('more');
    // As far above on the mean, but the readings scatter past the baseline: nothing is claimed.
    expect(judge([0.024, 0.039, 0.054], baseline).outcome).not.toBe('more');
    // 6 % more on the mean, and the interval reaches below the baseline: it is fine.
    expect(judge([0.0305, 0.0318, 0.0331], baseline).outcome).toBe('fine');
  });
});

describe('flow at standard density', () => {
  it('is the actual flow x density / 1.2 kg/m3, and the actual flow is kept beside it', () => {
    // 1500 m up: 84 556 Pa by ISO 2533, 20 degC, dry: 84 556 / (287.05 x 293.15) = 1.0048 kg/m3.
    const high = reduce(
      flowTest(around(0.03, 0.0001), { air: { temperatureK: 293.15, relativeHumidity: 0, pressurePa: 84_556 } }),
    );
    expect(high.repeats.mean).toBeCloseTo(0.03, 12);
    expect(high.standardFlowM3s).toBeCloseTo((0.03 * 1.0048) / 1.2, 5);
  });
});

describe('the class limit of 20 m/s in the hose', () => {
  // EN 60335-2-69 Annex AA: 20 m/s; the flows are 20 A.
  it.each([
    [27, 41.2],
    [36, 73.3],
    [50, 141.4],
  ])('a %d mm hose needs %d m3/h', (mm, m3h) => {
    expect(boreVelocityMs({ flowM3s: toSi('flow', m3h, 'm3/h'), boreM: mm / 1000 })).toBeCloseTo(20, 1);
  });

  const hose = (m3h: readonly number[], over = {}) =>
    judgeHoseVelocity(
      reduce(
        flowTest(
          m3h.map((f) => toSi('flow', f, 'm3/h')),
          { hoseBoreM: 0.036, ...over },
        ),
      ),
      true,
    );

  it('passes, fails, and cannot tell where the interval straddles it (JCGM 106, guarded acceptance)', () => {
    expect(hose(around(85, 1)).outcome).toBe('pass');
    expect(hose(around(60, 1)).outcome).toBe('fail');
    expect(hose(around(74, 2)).outcome).toBe('cannotTell');
  });

  it('gives no verdict on too few readings, a bare inlet, an outlet, or a failed precondition', () => {
    expect(hose([60]).outcome).toBe('tooFew');
    expect(hose(around(60, 1), { place: 'inlet' })).toMatchObject({ outcome: 'notJudged', because: 'hoseOff' });
    expect(hose(around(60, 1), { place: 'outlet' })).toMatchObject({ outcome: 'notJudged', because: 'outlet' });
    expect(hose(around(60, 1), { failedPreconditions: ['settled'] })).toMatchObject({
      outcome: 'notJudged',
      because: 'notUsable',
    });
  });
});

describe('against the baseline', () => {
  const clean = around(30, 0.05);

  it.each([
    [30, 'fine'],
    [24.6, 'warn'],
    [20.7, 'act'],
    [33, 'more'],
  ] as const)('%d of 30 L/s is %s', (mean, outcome) => {
    expect(judge(around(mean, 0.05), clean).outcome).toBe(outcome);
  });

  it('cannot tell when the interval straddles the warning line', () => {
    expect(judge(around(25.6, 0.9), clean)).toMatchObject({ outcome: 'cannotTell', straddles: 0.15 });
  });

  it('says the warning is sure while the acting line is still open', () => {
    // 27 % lost, but known only to about 4 %: past 15 % for sure, past 25 % not.
    expect(judge(around(21.9, 0.45), clean)).toMatchObject({ outcome: 'warn', straddles: 0.25 });
  });

  it('thresholds are inclusive: exactly 15 % lost, known exactly, is a warning', () => {
    const exact = { accuracy: limits(0, 0, 0), resolutionSi: 0 };
    expect(judge([85, 85, 85], [100, 100, 100], exact).outcome).toBe('warn');
    expect(judge([75, 75, 75], [100, 100, 100], exact).outcome).toBe('act');
    expect(judge([85.01, 85.01, 85.01], [100, 100, 100], exact).outcome).toBe('fine');
  });

  it('one instrument on both sides cancels its relative error, two do not', () => {
    const over = { accuracy: limits(0.05) };
    const same = judge(around(24, 0.02), around(30, 0.02), over);
    const other = judgeAgainstBaseline({
      now: reduce(flowTest(around(24, 0.02), over)),
      baseline: reduce(flowTest(around(30, 0.02), { ...over, instrumentId: 2 })),
      thresholds,
    });
    if (!('expanded' in same) || !('expanded' in other)) throw new Error('no interval');
    expect(same.expanded).toBeLessThan(0.005);
    // Two meters of 5 % limits: 0.8 x 0.05/sqrt 3 x sqrt 2 x 1.96.
    expect(other.expanded).toBeCloseTo(0.8 * (0.05 / Math.sqrt(3)) * Math.SQRT2 * 1.96, 2);
  });

  it('no verdict under three readings, none on a failed precondition, none without a baseline', () => {
    expect(judge([20, 21], clean).outcome).toBe('tooFew');
    expect(judge(around(20, 0.1), clean, { failedPreconditions: ['rigSealed'] }).outcome).toBe('notUsable');
    expect(judgeAgainstBaseline({ now: reduce(flowTest(clean)), baseline: null, thresholds }).outcome).toBe(
      'noBaseline',
    );
    expect(judge(clean, [0, 0, 0]).outcome).toBe('noBaseline');
  });

  it('refuses a baseline of another rig', () => {
    const now = reduce(flowTest(clean));
    const baseline = reduce(flowTest(clean, { place: 'inlet' }));
    expect(() => judgeAgainstBaseline({ now, baseline, thresholds })).toThrow(RangeError);
  });
});

describe('guarded acceptance', () => {
  it('never passes and fails at once, and a narrower interval never turns a pass into a fail', () => {
    const value = fc.double({ min: 0, max: 100, noNaN: true });
    fc.assert(
      fc.property(value, value, value, (v, u, limit) => {
        const wide = decideAtLeast({ value: v, expanded: u, limit });
        const narrow = decideAtLeast({ value: v, expanded: u / 2, limit });
        if (wide !== 'cannotTell') expect(narrow).toBe(wide);
      }),
    );
  });

  it('throws on an interval that is no number', () => {
    expect(() => decideAtLeast({ value: 1, expanded: Number.NaN, limit: 1 })).toThrow(RangeError);
  });
});

describe('before and after', () => {
  const cfm = (values: readonly number[]) => reduce(flowTest(values.map((v) => toSi('flow', v, 'cfm'))));

  it('486.5 to 570.8 cfm is +84.3 cfm, +17.3 %; one reading a side claims nothing (common practice, no published source)', () => {
    const c = compareTests({ before: cfm([486.5]), after: cfm([570.8]) });
    expect(fromSi('flow', c.difference ?? 0, 'cfm')).toBeCloseTo(84.3, 1);
    expect(c.relative).toBeCloseTo(0.173, 3);
    expect(c).toMatchObject({ outcome: 'tooFew', expanded: null, p: null });
  });

  it('reproduces NIST/SEMATECH e-Handbook 1.3.5.3 (AUTO83B: unequal variances, T 12.94627, 136.875 degrees of freedom)', () => {
    // The published n, means and standard deviations; a series of m - s, m, m + s has exactly that spread.
    const series = (n: number, mean: number, s: number) =>
      Array.from({ length: n }, (_, i) => mean + (i === 0 ? 0 : i % 2 === 0 ? s : -s));
    const c = compareTests({
      before: reduce(flowTest(series(249, 20.14458, 6.4147))),
      after: reduce(flowTest(series(79, 30.48101, 6.10771))),
    });
    const factor = studentFactor({ confidence: 0.95, degreesOfFreedom: c.degreesOfFreedom ?? 0 });
    expect(c.degreesOfFreedom).toBeCloseTo(136.875, 2);
    expect(((c.difference ?? 0) / (c.expanded ?? 1)) * factor).toBeCloseTo(12.94627, 3);
  });

  it('its p and interval agree with a statistics package on another set', () => {
    const [a, b] = [
      [27.5, 21, 19, 23.6, 17],
      [27.1, 22, 20.8, 23.4, 29.9, 31.2],
    ];
    const c = compareTests({ before: reduce(flowTest(a)), after: reduce(flowTest(b)) });
    const se = Math.sqrt(sampleVariance(a) / a.length + sampleVariance(b) / b.length);
    const dof =
      se ** 4 /
      ((sampleVariance(a) / a.length) ** 2 / (a.length - 1) + (sampleVariance(b) / b.length) ** 2 / (b.length - 1));
    expect(c.degreesOfFreedom).toBeCloseTo(dof, 9);
    expect(c.p).toBeCloseTo(2 * jStat.studentt.cdf(-Math.abs((c.difference ?? 0) / se), dof), 8);
    expect(c.expanded).toBeCloseTo(se * jStat.studentt.inv(0.975, dof), 6);
  });

  it('within the noise is no difference', () => {
    const c = compareTests({
      before: reduce(flowTest([27.5, 21, 19])),
      after: reduce(flowTest([27.1, 22, 20.8, 23.4])),
    });
    expect(c.outcome).toBe('noRealDifference');
    expect(c.p).toBeGreaterThan(0.05);
  });

  it('says a real gain and a real loss', () => {
    expect(compareTests({ before: cfm([486, 487, 486.5]), after: cfm([570, 571, 571.4]) }).outcome).toBe('more');
    expect(compareTests({ before: cfm([102.5, 103.1, 102.8]), after: cfm([91.8, 92.2, 92]) }).outcome).toBe('less');
  });

  it('does not compare places or methods, and names what differs', () => {
    const before = reduce(flowTest([1, 1.1, 0.9]));
    expect(compareTests({ before, after: reduce(flowTest([1, 1.1, 0.9], { place: 'inlet' })) })).toMatchObject({
      outcome: 'notComparable',
      differs: ['place'],
    });
    expect(
      compareTests({ before, after: reduce(flowTest([1, 1.1, 0.9], { instrumentId: 7, hoseBoreM: 0.03 })) }).differs,
    ).toEqual(['instrument', 'hose']);
  });
});
