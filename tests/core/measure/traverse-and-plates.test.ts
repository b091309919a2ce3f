import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expansibility, orificeFlowM3s, pipePlateCoefficient, plateFlowM3s } from '@/core/measure/orifice';
import {
  LOG_LINEAR,
  LOG_TCHEBYCHEFF,
  traverseAreaM2,
  traverseMeansMs,
  type TraversePlan,
  traversePoints,
} from '@/core/measure/traverse';
import { flowTest, limits, reduce } from '../../support/readings';
import { reduceTest } from '@/core/measure/reduce-test';

const ROUND: TraversePlan = { shape: 'round', diameterM: 0.125, pointsPerDiameter: 10, diameters: 2 };
const RECT: TraversePlan = { shape: 'rectangular', widthM: 0.3, heightM: 0.2, linesAcross: 6, linesUp: 5 };
const power = (fromWall: number, size: number) => (1 - Math.abs(2 * (fromWall / size) - 1)) ** (1 / 7);

const meanOf = (plan: TraversePlan, velocity: (p: ReturnType<typeof traversePoints>[number]) => number) => {
  const result = traverseMeansMs(
    plan,
    traversePoints(plan).map((p, slot) => ({ slot, velocityMs: velocity(p) })),
  );
  if (!result.ok) throw new Error('no mean');
  return result.value[0]!;
};

describe('traverses', () => {
  it('positions are symmetric about the axis (ISO 3966)', () => {
    for (const list of [...Object.values(LOG_LINEAR), ...Object.values(LOG_TCHEBYCHEFF)]) {
      list.forEach((f, i) => expect(f + list[list.length - 1 - i]!).toBeCloseTo(1, 9));
    }
  });

  it.each([6, 10] as const)(
    'log-linear at %d points integrates the 1/7-power law (mean 0.8167 of the centre) within 1 %%',
    (pointsPerDiameter) => {
      const plan: TraversePlan = { ...ROUND, pointsPerDiameter };
      expect(Math.abs(meanOf(plan, (p) => power(p.fromWallM, 0.125)) / (98 / 120) - 1)).toBeLessThan(0.01);
    },
  );

  it.each([5, 6, 7] as const)(
    'log-Tchebycheff at %d lines integrates a 1/7-power law both ways within 1.5 %%',
    (lines) => {
      const plan: TraversePlan = { ...RECT, linesAcross: lines, linesUp: lines };
      const mean = meanOf(plan, (p) => power(p.fromWallM, 0.3) * power(p.lineAtM, 0.2));
      expect(Math.abs(mean / (7 / 8) ** 2 - 1)).toBeLessThan(0.015);
    },
  );

  it('a flat profile has its own velocity as mean, whatever the plan', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 60, noNaN: true }), fc.constantFrom(ROUND, RECT), (v, plan) => {
        expect(meanOf(plan, () => v)).toBeCloseTo(v, 9);
      }),
    );
  });

  it('counts whole traverses only, and takes no point twice', () => {
    const points = traversePoints(ROUND).map((_, slot) => ({ slot, velocityMs: 10 }));
    const code = (list: typeof points) => {
      const result = traverseMeansMs(ROUND, list);
      return result.ok ? 'accepted' : result.failures[0]?.code;
    };
    expect(code(points.slice(0, -1))).toBe('traverse.incomplete');
    expect(code([...points, { slot: 3, velocityMs: 10 }])).toBe('traverse.repeated-point');
    expect(code([])).toBe('readings.none');
    expect(code([...points].reverse())).toBe('accepted');
  });

  it('three whole traverses make a verdict: each is one repeat', () => {
    const points = traversePoints(ROUND).length;
    const velocities = [19, 20, 21].flatMap((v) => Array.from({ length: points }, () => v));
    const reduced = reduce(
      flowTest(velocities, { method: 'anemometerTraverse', detail: { kind: 'traverse', plan: ROUND } }),
    );
    expect(reduced.repeats).toMatchObject({ n: 3 });
    expect(reduced.repeats.mean).toBeCloseTo(20 * traverseAreaM2(ROUND), 12);
  });

  it('pitot: the velocities are averaged, never the pressures', () => {
    const points = traversePoints(ROUND).length;
    // Half the points at 60 Pa (10 m/s at 1.2 kg/m3), half at 240 Pa (20 m/s): 15 m/s, not the 15.8 of the mean pressure.
    const pressures = Array.from({ length: points }, (_, i) => (i % 2 === 0 ? 60 : 240));
    const reduced = reduce(flowTest(pressures, { method: 'pitotTraverse', detail: { kind: 'traverse', plan: ROUND } }));
    const density = reduced.densityKgM3;
    expect(reduced.repeats.mean / traverseAreaM2(ROUND)).toBeCloseTo(15 * Math.sqrt(1.2 / density), 6);
  });
});

describe('plates', () => {
  it('at 20 kPa from the free room the incompressible formula reads 5.4 % high (ISO 5167-2:2003 eq. 5)', () => {
    const state = {
      orificeM: 0.02,
      coefficient: 0.61,
      differentialPa: 20_000,
      upstreamPa: 101_325,
      densityKgM3: 1.2,
      pipeM: null,
    };
    const plain = 0.61 * (Math.PI / 4) * 0.02 ** 2 * Math.sqrt((2 * 20_000) / 1.2);
    expect(plain / orificeFlowM3s(state)).toBeCloseTo(1.054, 3);
    expect(expansibility(0, 1)).toBe(1);
  });

  // ISO 5167-2:2003 eq. 4 (corner tappings), its terms worked by hand: 0.5961 + 0.0261 b^2 - 0.216 b^8 + ...
  it.each([
    [0.5, 1e8, 0.6022],
    [0.2, 1e8, 0.5972],
    [0.75, 1e8, 0.5909],
    [0.5, 1e5, 0.6069],
  ])('b %d at Re %d has C %d (ISO 5167-2:2003 eq. 4)', (beta, reynolds, printed) => {
    const plate = { orificeM: beta * 0.1, pipeM: 0.1, reynolds };
    expect(Math.abs(pipePlateCoefficient(plate) - printed)).toBeLessThan(0.0001);
  });

  it('a bore under 71.12 mm has its own term: 0.0023 more at 50 mm and b 0.5, and none from 71.12 mm on (ISO 5167-2:2003 eq. 4)', () => {
    const at = (pipeM: number, beta: number) =>
      pipePlateCoefficient({ orificeM: beta * pipeM, pipeM, reynolds: 50_000 });
    // 0.011 x 0.25 x (2.8 - 50/25.4) by hand.
    expect(at(0.05, 0.5) - at(0.1, 0.5)).toBeCloseTo(0.0022866, 6);
    expect(at(0.05, 0.75) - at(0.1, 0.75)).toBeCloseTo(0, 9);
    expect(at(0.072, 0.5) - at(0.1, 0.5)).toBe(0);
  });

  it('is held to where the equation is stated: hole, bore, their ratio, and a Reynolds number that grows with it (ISO 5167-2:2003, 5.3.1)', () => {
    const good = { orificeM: 0.06, pipeM: 0.1, reynolds: 6000 };
    expect(pipePlateCoefficient(good)).toBeGreaterThan(0.6);
    for (const outside of [
      { orificeM: 0.03, pipeM: 0.049 },
      { orificeM: 0.012, pipeM: 0.06 },
      { orificeM: 0.078, pipeM: 0.1 },
      { reynolds: 5700 },
      { orificeM: 0.05, reynolds: 4900 },
      { pipeM: 1.2, orificeM: 0.6, reynolds: 1e6 },
    ])
      expect(() => pipePlateCoefficient({ ...good, ...outside }), JSON.stringify(outside)).toThrow(RangeError);
  });

  it('a flow too small for the equation of the plate is refused, not computed and not thrown (ISO 5167-2, 5.3.1)', () => {
    const plate = { orificeM: 0.05, pipeM: 0.1, coefficient: null, densityKgM3: 1.2, upstreamPa: 101_325 };
    const at = (differentialPa: number) => plateFlowM3s({ ...plate, differentialPa }, 1.8e-5);
    const code = (r: ReturnType<typeof at>) => (r.ok ? 'ok' : r.failures[0]?.code);
    // 250 Pa: Re about 1.6e5 in the pipe; 0.01 Pa: about 1000, below the least of 5000.
    expect([code(at(250)), code(at(0.01)), code(at(1e-9))]).toEqual([
      'ok',
      'orifice.coefficient',
      'orifice.coefficient',
    ]);
  });

  it('a plate in a pipe carries the approach factor: b 0.5 adds 3.3 %', () => {
    const state = { orificeM: 0.05, coefficient: 0.6, differentialPa: 500, upstreamPa: 101_325, densityKgM3: 1.2 };
    const free = orificeFlowM3s({ ...state, pipeM: null });
    expect(orificeFlowM3s({ ...state, pipeM: 0.1 }) / free).toBeCloseTo(1 / Math.sqrt(1 - 0.5 ** 4), 3);
  });

  it('in a pipe the coefficient is the one that is given, and without one that of ISO 5167 at the flow itself', () => {
    const at = (coefficient: number | null) =>
      reduce(
        flowTest([500, 500, 500], {
          method: 'orifice',
          detail: { kind: 'plate', plate: { orificeM: 0.05, coefficient, pipeM: 0.1 } },
        }),
      ).repeats.mean;
    expect(at(0.62) / at(0.6)).toBeCloseTo(0.62 / 0.6, 9);
    // 50 mm in 100 mm at 500 Pa: about 0.035 m3/s, Re about 29 000, C about 0.611.
    const free = orificeFlowM3s({
      orificeM: 0.05,
      coefficient: 0.611,
      differentialPa: 500,
      upstreamPa: 101_325,
      densityKgM3: 1.1988,
      pipeM: 0.1,
    });
    expect(Math.abs(at(null) / free - 1)).toBeLessThan(0.003);
    expect(at(null)).not.toBeCloseTo(at(0.61), 6);
  });

  it('names a hole as wide as its pipe and a drop beyond the formula, and throws below zero', () => {
    const plate = (orificeM: number, pipeM: number | null) => ({
      kind: 'plate' as const,
      plate: { orificeM, coefficient: 0.61, pipeM },
    });
    const code = (readings: readonly number[], detail: ReturnType<typeof plate>) => {
      const result = reduceTest(flowTest(readings, { method: 'orifice', detail }));
      return result.ok ? 'accepted' : result.failures[0]?.code;
    };
    expect(code([500], plate(0.05, 0.05))).toBe('orifice.too-large');
    expect(code([40_000], plate(0.05, null))).toBe('orifice.pressure');
    expect(code([500], plate(0.05, null))).toBe('accepted');
    expect(() =>
      orificeFlowM3s({
        orificeM: 0.05,
        coefficient: 0.6,
        differentialPa: -1,
        upstreamPa: 101_325,
        densityKgM3: 1.2,
        pipeM: null,
      }),
    ).toThrow(RangeError);
  });

  it('the instrument error of a root method counts half, and the rig is in the budget', () => {
    const over = {
      method: 'orifice' as const,
      detail: { kind: 'plate' as const, plate: { orificeM: 0.05, coefficient: 0.61, pipeM: null } },
      accuracy: limits(0.06),
    };
    const { repeats, rigParts } = reduce(flowTest([500, 500, 500], over));
    expect(repeats.instrumentUncertainty! / repeats.mean).toBeCloseTo((0.5 * 0.06) / Math.sqrt(3), 9);
    // Coefficient 0.61 +- 0.01: 0.0095 relative after sqrt 3.
    expect(rigParts.find((p) => p.name === 'plate')?.relative).toBeCloseTo(0.01 / 0.61 / Math.sqrt(3), 9);
    expect(repeats.standardUncertainty!).toBeGreaterThan(repeats.rigUncertainty);
  });
});
