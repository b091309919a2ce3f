import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DropOf } from '@/core/path/model/drop-of';
import { inSeries, waysOf } from '@/core/path/model/side-by-side';

/** A drop that grows with the square of the flow, k in Pa s2/m6, and one that grows with the flow, r in Pa s/m3. */
const square =
  (k: number): DropOf =>
  (q, out) => {
    out.pa = k * q * Math.abs(q);
    out.slope = 2 * k * Math.abs(q);
  };
const straight =
  (r: number): DropOf =>
  (q, out) => {
    out.pa = r * q;
    out.slope = r;
  };
const at = (drop: DropOf, flow: number) => {
  const out = { pa: 0, slope: 0 };
  drop(flow, out);
  return out;
};

describe('parts one after the other', () => {
  it('add up their drops and slopes at the same flow', () => {
    expect(at(inSeries([square(1e6), straight(2000)]), 0.03)).toEqual({ pa: 900 + 60, slope: 60_000 + 2000 });
    expect(at(inSeries([]), 0.03)).toEqual({ pa: 0, slope: 0 });
  });
});

describe('ways side by side (parallel pipes: White, Fluid Mechanics, 6.10)', () => {
  it('two alike take half each: a quarter of the drop by the square, half by the straight law', () => {
    expect(at(waysOf([[square(1e6)], [square(1e6)]]), 0.04).pa).toBeCloseTo(1e6 * 0.02 ** 2, 6);
    expect(at(waysOf([[straight(3000)], [straight(3000)]]), 0.04).pa).toBeCloseTo(60, 8);
  });

  it('any number of square ways: 1/sqrt(k) adds up; straight ways: 1/r adds up', () => {
    const k = fc.array(fc.double({ min: 1e4, max: 1e8, noNaN: true }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(k, fc.double({ min: 1e-4, max: 0.2, noNaN: true }), (ks, flow) => {
        const whole = 1 / ks.reduce((sum, x) => sum + 1 / Math.sqrt(x), 0) ** 2;
        const { pa, slope } = at(waysOf(ks.map((x) => [square(x)])), flow);
        expect(pa / (whole * flow ** 2)).toBeCloseTo(1, 6);
        expect(slope / (2 * whole * flow)).toBeCloseTo(1, 4);
        const resistance = 1 / ks.reduce((sum, x) => sum + 1 / x, 0);
        const linear = at(waysOf(ks.map((x) => [straight(x)])), flow);
        expect(linear.pa / (resistance * flow)).toBeCloseTo(1, 6);
        expect(linear.slope / resistance).toBeCloseTo(1, 4);
      }),
      { numRuns: 60 },
    );
  });

  it('a way of two parts counts as their sum', () => {
    const { pa } = at(waysOf([[square(1e6), square(3e6)], [square(4e6)]]), 0.02);
    expect(pa).toBeCloseTo(4e6 * 0.01 ** 2, 6);
  });

  it('turns its sign with the flow, and is nothing at no flow', () => {
    const ways = waysOf([[square(1e6)], [straight(3000)]]);
    expect(at(ways, -0.03).pa).toBeCloseTo(-at(ways, 0.03).pa, 9);
    expect(at(ways, 0)).toEqual({ pa: 0, slope: 0 });
    expect(at(waysOf([[straight(0)], [square(1e6)]]), 0.03).pa).toBe(0);
  });

  it('its slope is what a small step of the flow shows', () => {
    const ways = waysOf([[square(2e6), straight(500)], [square(7e5)], [straight(9000)]]);
    const step = 1e-6;
    const measured = (at(ways, 0.03 + step).pa - at(ways, 0.03 - step).pa) / (2 * step);
    expect(at(ways, 0.03).slope / measured).toBeCloseTo(1, 4);
  });
});
