import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { REFERENCE_AIR } from '@/core/path/model/air';
import { dropOf } from '@/core/path/model/drop';
import type { Element } from '@/core/path/model/element';
import { darcyFactor, frictionGroup } from '@/core/path/model/friction';

const line = (over: Partial<Extract<Element, { kind: 'line' }>> = {}): Extract<Element, { kind: 'line' }> => ({
  kind: 'line',
  boreM: 0.1,
  lengthM: 10,
  friction: { by: 'roughness', roughnessM: 1.5e-4 },
  entryK: 0,
  exitK: 0,
  ...over,
});

const at = (e: Element, flowM3s: number, air = REFERENCE_AIR) => {
  const drop = { pa: 0, slope: 0 };
  dropOf(e, air)(flowM3s, drop);
  return drop;
};

describe('friction of a round pipe', () => {
  // Moody 1944, read off the chart and off the printed Colebrook tables; values from memory of the source.
  it.each([
    [1e4, 0, 0.0309],
    [1e5, 0, 0.018],
    [1e6, 0, 0.01165],
    [1e5, 0.001, 0.0222],
    [1e6, 0.001, 0.0199],
    [1e5, 0.01, 0.0385],
    [1e7, 0.05, 0.0716],
  ])('Re %d, roughness %d of the bore: f = %d (Moody 1944, Colebrook 1939)', (reynolds, relativeRoughness, f) => {
    expect(darcyFactor({ reynolds, relativeRoughness }) / f).toBeCloseTo(1, 2);
  });

  it('satisfies Colebrook-White itself to working precision', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4000, max: 1e8, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        (reynolds, relativeRoughness) => {
          const x = 1 / Math.sqrt(darcyFactor({ reynolds, relativeRoughness }));
          expect(x + 2 * Math.log10(relativeRoughness / 3.7 + (2.51 * x) / reynolds)).toBeCloseTo(0, 9);
        },
      ),
    );
  });

  it('is 64/Re while laminar, and the pressure drop never falls when the flow rises', () => {
    expect(darcyFactor({ reynolds: 2000, relativeRoughness: 0.02 })).toBeCloseTo(0.032, 12);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2e4, noNaN: true }),
        fc.double({ min: 1, max: 3000, noNaN: true }),
        fc.double({ min: 0, max: 0.05, noNaN: true }),
        (reynolds, more, rough) => {
          const [low, high] = [
            { value: 0, slope: 0, root: 0 },
            { value: 0, slope: 0, root: 0 },
          ];
          frictionGroup(reynolds, rough / 3.7, low);
          frictionGroup(reynolds + more, rough / 3.7, high);
          expect(high.value).toBeGreaterThan(low.value);
          expect(low.slope).toBeGreaterThan(0);
        },
      ),
    );
  });

  it('White, Fluid Mechanics, example on the Moody chart: oil, 500 m of 200 mm cast iron, 0.2 m3/s, head loss 117 m', () => {
    // rho 900 kg/m3, nu 1e-5 m2/s, roughness 0.26 mm, f 0.0225; from memory of the source.
    const air = { densityKgM3: 900, viscosityPaS: 900 * 1e-5 };
    const pipe = line({ boreM: 0.2, lengthM: 500, friction: { by: 'roughness', roughnessM: 2.6e-4 } });
    expect(at(pipe, 0.2, air).pa / (900 * 9.81)).toBeCloseTo(117, -0.5);
  });

  it('ACGIH duct: 6 in galvanised at 4000 fpm loses 0.0432 velocity pressures a foot (Hf = 0.0307 V^0.533 / Q^0.612)', () => {
    // Industrial Ventilation, equation of the friction chart for galvanised duct, from memory of the source.
    const [fpm, cfm] = [4000, 785.4];
    const published = (0.0307 * fpm ** 0.533) / cfm ** 0.612;
    expect(published).toBeCloseTo(0.0432, 3);
    const boreM = 6 * 0.0254;
    const flowM3s = fpm * 0.00508 * (Math.PI / 4) * boreM ** 2;
    const velocityPressure = (REFERENCE_AIR.densityKgM3 * (fpm * 0.00508) ** 2) / 2;
    const ours = at(line({ boreM, lengthM: 0.3048 }), flowM3s).pa / velocityPressure;
    // A power law over the whole chart against Colebrook: 4 % is what the law itself is good for.
    expect(Math.abs(ours / published - 1)).toBeLessThan(0.04);
  });
});

describe('elements', () => {
  it('the drag model of a filter in EPA units: S = S_E + K2 W gives dp = S V', () => {
    // EPA Air Pollution Control Cost Manual, section 6, ch. 1, form of eq. 1.6; S_E 0.35 inH2O/(ft/min), K2 7 inH2O/(ft/min)/(lb/ft2),
    // 0.1 lb/ft2 of dust at 3 ft/min: S = 1.05, dp = 3.15 inH2O, worked by hand.
    const [inH2O, fpm, lbFt2] = [249.08891, 0.00508, 0.45359237 / 0.09290304];
    const areaM2 = 2;
    const medium: Element = {
      kind: 'medium',
      k1PaSM: (0.35 * inH2O) / fpm,
      k2PaSMKg: (7 * inH2O) / fpm / lbFt2,
      areaM2,
      dustKg: 0.1 * lbFt2 * areaM2,
    };
    expect(at(medium, 3 * fpm * areaM2).pa / inH2O).toBeCloseTo(3.15, 6);
    // One EPA unit of K2 in SI, as the constant's source says.
    expect(inH2O / fpm / lbFt2).toBeCloseTo(10_043, -1);
  });

  it('a fitting loses K velocity pressures, a line its ends besides its wall', () => {
    const velocityPressure = (flow: number, bore: number) => (1.2 * (flow / ((Math.PI / 4) * bore ** 2)) ** 2) / 2;
    expect(at({ kind: 'fitting', lossK: 2, boreM: 0.05 }, 0.03).pa).toBeCloseTo(2 * velocityPressure(0.03, 0.05), 6);
    const bare = at(line(), 0.05).pa;
    expect(at(line({ entryK: 0.5, exitK: 1 }), 0.05).pa - bare).toBeCloseTo(1.5 * velocityPressure(0.05, 0.1), 6);
    expect(at(line({ friction: { by: 'factor', factor: 0.045 } }), 0.05).pa).toBeCloseTo(
      4.5 * velocityPressure(0.05, 0.1),
      6,
    );
  });

  it('media scale with viscosity, inertial losses with density (Darcy; Bernoulli)', () => {
    const cold = { densityKgM3: 1.4, viscosityPaS: 1.6e-5 };
    const medium: Element = { kind: 'medium', k1PaSM: 1300, k2PaSMKg: 0, areaM2: 0.5, dustKg: 0 };
    expect(at(medium, 0.03, cold).pa / at(medium, 0.03).pa).toBeCloseTo(1.6e-5 / 1.813e-5, 9);
    const fitting: Element = { kind: 'fitting', lossK: 1, boreM: 0.05 };
    expect(at(fitting, 0.03, cold).pa / at(fitting, 0.03).pa).toBeCloseTo(1.4 / 1.2, 9);
  });

  it('two equal media side by side are one of twice the area, and unequal ones share by their conductance', () => {
    const medium = (areaM2: number): Element => ({ kind: 'medium', k1PaSM: 6000, k2PaSMKg: 0, areaM2, dustKg: 0 });
    expect(at({ kind: 'parallel', ways: [[medium(0.9)], [medium(0.9)]] }, 0.04).pa).toBeCloseTo(
      at(medium(1.8), 0.04).pa,
      9,
    );
    expect(at({ kind: 'parallel', ways: [[medium(0.9)], [medium(0.3)]] }, 0.04).pa).toBeCloseTo(
      at(medium(1.2), 0.04).pa,
      9,
    );
  });

  it('ways of any kind side by side: the general search agrees with the shortcut (slow twin)', () => {
    const wall = (lengthM: number) => line({ lengthM, friction: { by: 'factor', factor: 0.02 } });
    const shortcut = at({ kind: 'parallel', ways: [[wall(5)], [wall(20)]] }, 0.05).pa;
    // A flap that opens at nothing is no parabola to the code, though it is one: it takes the slow way.
    const flap: Element = { kind: 'check', crackPa: 0, r2PaS2M6: 0 };
    expect(
      at(
        {
          kind: 'parallel',
          ways: [
            [wall(5), flap],
            [wall(20), flap],
          ],
        },
        0.05,
      ).pa,
    ).toBeCloseTo(shortcut, 5);
  });

  it('every slope is the slope (central difference), for every kind of element', () => {
    const kinds: readonly Element[] = [
      line(),
      line({ friction: { by: 'roughness', roughnessM: 0 } }),
      { kind: 'check', crackPa: 200, r2PaS2M6: 1e5 },
      {
        kind: 'parallel',
        ways: [[line()], [line({ lengthM: 3 }), { kind: 'medium', k1PaSM: 900, k2PaSMKg: 0, areaM2: 1, dustKg: 0 }]],
      },
      { kind: 'series', parts: [line(), { kind: 'resistance', r1PaSM3: 1e4, r2PaS2M6: 1e5 }] },
    ];
    for (const e of kinds) {
      for (const q of [0.002, 0.02, 0.08, -0.02]) {
        const h = Math.abs(q) * 1e-5;
        const difference = (at(e, q + h).pa - at(e, q - h).pa) / (2 * h);
        expect(at(e, q).slope / difference, `${e.kind} at ${q}`).toBeCloseTo(1, 4);
      }
    }
  });
});
