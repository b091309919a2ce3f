import chiSquareQuantile from '@stdlib/stats-base-dists-chisquare-quantile';
import fc from 'fast-check';
import { jStat } from 'jstat';
import { linearRegression } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { judgeParticles, poissonLimits } from '@/core/measure/particle-count';
import { reduceAny } from '@/core/measure/reduce-any';
import { orificeFlowM3s } from '@/core/measure/orifice';
import { airPowerW, fitSuctionCurve } from '@/core/measure/suction-curve';
import { leastSquares } from '@/core/numeric/least-squares';
import { toSi } from '@/core/units';
import { flowTest } from '../../support/readings';

const quadratic = (p0: number, qmax: number, a: number) => (q: number) =>
  p0 * (1 - a * (q / qmax) - (1 - a) * (q / qmax) ** 2);

describe('air power', () => {
  it('SI beside ASTM F558: 0.117354 x cfm x inH2O is of a 68 degF inch; the conventional inch gives 0.117557, 0.17 % more', () => {
    const watts = airPowerW({ suctionPa: toSi('pressure', 1, 'inH2O'), flowM3s: toSi('flow', 1, 'cfm') });
    expect(watts).toBeCloseTo(0.117557, 6);
    expect(watts / 0.117354 - 1).toBeCloseTo(0.0017, 4);
  });
});

describe('the suction curve', () => {
  it('finds p0, the shape and the peak of a known curve', () => {
    const curve = quadratic(22_000, 0.055, 0.8);
    const flows = [0, 0.01, 0.02, 0.03, 0.04, 0.05];
    const fit = fitSuctionCurve(flows.map((flowM3s) => ({ flowM3s, suctionPa: curve(flowM3s) })));
    if (!fit.ok) throw new Error('no fit');
    expect(fit.value.p0Pa).toBeCloseTo(22_000, 3);
    const finest = Array.from({ length: 50_001 }, (_, i) => (i / 50_000) * 0.05).map((q) => q * curve(q));
    expect(fit.value.peak.airPowerW).toBeCloseTo(Math.max(...finest), 3);
    expect(fit.value.peak.inside).toBe(true);
  });

  it('never rises with the flow, whatever the points', () => {
    const points = fc.array(
      fc.record({
        flowM3s: fc.double({ min: 0, max: 0.1, noNaN: true }),
        suctionPa: fc.double({ min: 10, max: 30_000, noNaN: true }),
      }),
      { minLength: 3, maxLength: 12 },
    );
    fc.assert(
      fc.property(points, (list) => {
        const fit = fitSuctionCurve(list);
        if (!fit.ok) return;
        expect(fit.value.bPaSM3).toBeGreaterThanOrEqual(0);
        expect(fit.value.cPaS2M6).toBeGreaterThanOrEqual(0);
        const [low, high] = fit.value.rangeM3s;
        expect(fit.value.peak.flowM3s).toBeGreaterThanOrEqual(low);
        expect(fit.value.peak.flowM3s).toBeLessThanOrEqual(high);
      }),
    );
  });

  it('a nearly straight fan is fitted straight, by bounded least squares: 19.92 kPa, 66 Pa off, 253 W', () => {
    const points = [
      [0, 20],
      [10, 15.95],
      [20, 12],
      [30, 8.1],
      [40, 4.3],
    ].map(([q = 0, p = 0]) => ({ flowM3s: q / 1000, suctionPa: p * 1000 }));
    const fit = fitSuctionCurve(points);
    if (!fit.ok) throw new Error('no fit');
    expect(fit.value.p0Pa).toBeCloseTo(19_920, 0);
    expect(Math.sqrt(fit.value.residualsPa.reduce((s, r) => s + r * r, 0) / 5)).toBeCloseTo(66, 0);
    expect(fit.value.peak.airPowerW).toBeCloseTo(253, 0);
  });

  it('no falling curve fits better, searched by hand over the bounds', () => {
    const noisy = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 5, maxLength: 5 });
    fc.assert(
      fc.property(noisy, fc.double({ min: -0.5, max: 1, noNaN: true }), (noise, bend) => {
        const points = noise.map((n, i) => {
          const x = i / 4;
          return { flowM3s: 0.04 * x, suctionPa: 20_000 * (1 - 0.8 * ((1 - bend) * x + bend * x * x)) + 200 * n };
        });
        const fit = fitSuctionCurve(points);
        if (!fit.ok) throw new Error('no fit');
        const cost = (p0: number, b: number, c: number) =>
          points.reduce((s, p) => s + (p.suctionPa - p0 + b * p.flowM3s + c * p.flowM3s ** 2) ** 2, 0);
        const { p0Pa: p0, bPaSM3: b, cPaS2M6: c } = fit.value;
        const best = cost(p0, b, c);
        for (const d0 of [-20, 0, 20])
          for (const db of [-2000, 0, 2000])
            for (const dc of [-50_000, 0, 50_000]) {
              const near = cost(p0 + d0, Math.max(0, b + db), Math.max(0, c + dc));
              expect(near).toBeGreaterThanOrEqual(best * (1 - 1e-9));
            }
      }),
      { numRuns: 200 },
    );
  });

  it('refuses a suction that rises with the flow, or does not fall at all', () => {
    const of = (suctions: readonly number[]) => {
      const fit = fitSuctionCurve(suctions.map((suctionPa, i) => ({ flowM3s: i / 100, suctionPa })));
      return fit.ok ? 'fitted' : fit.failures[0]?.code;
    };
    expect([of([4000, 5000, 6000]), of([5000, 5000, 5000]), of([5000, 4900, 5300, 5400])]).toEqual([
      'curve.no-fit',
      'curve.no-fit',
      'curve.no-fit',
    ]);
  });

  it('names the reading that lies further off than its meter can be wrong, and none of a good curve', () => {
    const detail = { kind: 'curve' as const, orificesM: [0, 0.012, 0.02, 0.028, 0.036], coefficient: 0.61 };
    const meter = { meaning: 'limits' as const, coverageFactor: 2, relative: 0.01, absoluteSi: 20, resolutionSi: 10 };
    // Suction where 22000 - 3e5 q - 2e6 q^2 meets each hole: solved by halving.
    const suctionAt = (d: number) => {
      let [low, high] = [0, 22_000];
      for (let i = 0; i < 60; i += 1) {
        const p = (low + high) / 2;
        const q = orificeFlowM3s({
          orificeM: d,
          coefficient: 0.61,
          differentialPa: p,
          upstreamPa: 101_325,
          densityKgM3: 1.2,
          pipeM: null,
        });
        if (22_000 - 3e5 * q - 2e6 * q * q > p) low = p;
        else high = p;
      }
      return (low + high) / 2;
    };
    const good = detail.orificesM.map((d) => (d === 0 ? 22_000 : suctionAt(d)));
    const offOf = (readings: readonly number[]) => {
      const reduced = reduceAny(
        flowTest(readings, { method: 'suctionCurve', detail, accuracy: meter, resolutionSi: 10 }),
      );
      if (!reduced.ok || reduced.value.form !== 'curve') throw new Error('no curve');
      return reduced.value.off;
    };
    expect(offOf(good)).toBeNull();
    expect(offOf(good.map((p, i) => (i === 2 ? p + 3000 : p)))?.point).toBe(2);
  });

  it('says when the peak lies outside the points, and refuses two openings', () => {
    const curve = quadratic(22_000, 0.055, 0.8);
    const low = fitSuctionCurve([0, 0.005, 0.01].map((flowM3s) => ({ flowM3s, suctionPa: curve(flowM3s) })));
    expect(low.ok && low.value.peak.inside).toBe(false);
    // The most it can state is the power of the last opening, by hand: suction times flow there.
    expect(low.ok && low.value.peak.flowM3s).toBeCloseTo(0.01, 12);
    expect(low.ok && low.value.peak.airPowerW).toBeCloseTo(curve(0.01) * 0.01, 6);
    const two = fitSuctionCurve([
      { flowM3s: 0, suctionPa: 1 },
      { flowM3s: 0, suctionPa: 1 },
      { flowM3s: 1, suctionPa: 0.5 },
    ]);
    expect(two.ok ? 'fitted' : two.failures[0]?.code).toBe('curve.too-few');
  });

  it('goes from readings at holes to watts, the sealed reading at no flow', () => {
    const detail = { kind: 'curve' as const, orificesM: [0, 0.016, 0.03], coefficient: 0.61 };
    const reduced = reduceAny(flowTest([22_000, 15_000, 4_000], { method: 'suctionCurve', place: 'inlet', detail }));
    if (!reduced.ok || reduced.value.form !== 'curve') throw new Error('no curve');
    expect(reduced.value.points[0]).toEqual({ flowM3s: 0, suctionPa: 22_000 });
    expect(reduced.value.curve.peak.airPowerW).toBeGreaterThan(100);
  });

  it('its least squares agree with a statistics package', () => {
    const points = [
      [1, 2.1],
      [2, 3.9],
      [3, 6.2],
      [4, 7.8],
    ] as const;
    const theirs = linearRegression(points.map((p) => [...p]));
    const ours = leastSquares(
      points.map(([x]) => [1, x]),
      points.map(([, y]) => y),
    );
    expect(ours?.coefficients[0]).toBeCloseTo(theirs.b, 10);
    expect(ours?.coefficients[1]).toBeCloseTo(theirs.m, 10);
    expect(
      leastSquares(
        [
          [1, 1],
          [1, 1],
        ],
        [1, 2],
      ),
    ).toBeNull();
  });
});

describe('particle counts', () => {
  // Garwood's exact limits as tabled (Pearson and Hartley, Biometrika Tables vol. 1, table 40), two decimals.
  it.each([
    [0, 0, 3.69],
    [1, 0.03, 5.57],
    [5, 1.62, 11.67],
    [10, 4.8, 18.39],
  ])('%d counts: %d to %d', (count, low, high) => {
    const limits = poissonLimits(count);
    expect(limits.low).toBeCloseTo(low, 1.9);
    expect(limits.high).toBeCloseTo(high, 1.9);
  });

  it('the limits are where the tail is 2.5 % (exact, from another package)', () => {
    for (const count of [3, 17, 60]) {
      const { low, high } = poissonLimits(count);
      expect(jStat.poisson.cdf(count, high)).toBeCloseTo(0.025, 6);
      expect(1 - jStat.poisson.cdf(count - 1, low)).toBeCloseTo(0.025, 6);
      expect(high).toBeCloseTo(chiSquareQuantile(0.975, 2 * count + 2) / 2, 12);
    }
  });

  const litre = 1e-3;
  const judge = (exhaust: number, room: number) =>
    judgeParticles({ exhaust: { count: exhaust, volumeM3: litre }, room: { count: room, volumeM3: litre } });

  it('6 counts against 333: the difference is shown, in both directions (common practice, no published source)', () => {
    expect(judge(6, 333).outcome).toBe('belowRoom');
    expect(judge(333, 6).outcome).toBe('aboveRoom');
    expect(judge(6, 333).netLimits.high).toBeLessThan(0);
  });

  it('0 counts in a litre still allow 3.7 a litre, and prove nothing against a clean room', () => {
    expect(judge(0, 2)).toMatchObject({ outcome: 'notShown' });
    expect(judge(0, 2).exhaustLimits.high * litre).toBeCloseTo(3.69, 2);
    expect(judge(0, 0)).toMatchObject({ outcome: 'notShown', p: 1 });
  });

  it('equal counts are never a difference, and swapping the sides swaps the verdict', () => {
    const swapped = { belowRoom: 'aboveRoom', aboveRoom: 'belowRoom', notShown: 'notShown' } as const;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }), (a, b) => {
        expect(judge(b, a).outcome).toBe(swapped[judge(a, b).outcome]);
        expect(judge(a, a).outcome).toBe('notShown');
      }),
    );
  });

  it('needs both counts, whole ones, and a time', () => {
    const detail = { kind: 'particles' as const, sizeUm: 0.3, flowM3s: 4.7e-5, exhaustS: 60, roomS: 60 };
    const code = (readings: readonly number[], slots: readonly number[]) => {
      const r = reduceAny(flowTest(readings, { method: 'particles', slots, detail }));
      return r.ok ? r.value.form : r.failures[0]?.code;
    };
    expect(code([6], [0])).toBe('particles.both');
    expect(code([6.5, 3], [0, 1])).toBe('particles.whole');
    expect(code([6, 333], [0, 1])).toBe('particles');
    expect(() => judgeParticles({ exhaust: { count: 1, volumeM3: 0 }, room: { count: 1, volumeM3: 1 } })).toThrow(
      RangeError,
    );
    expect(() => poissonLimits(-1)).toThrow(RangeError);
  });
});
