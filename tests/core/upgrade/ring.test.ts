import { describe, expect, it } from 'vitest';
import { fitOnBoard, planRing, type RingPlan, type RingQuestion } from '@/core/upgrade/ring';

const INCH = 0.0254;
const ring = (over: Partial<RingQuestion> = {}): RingQuestion => ({
  filterM: 17.5 * INCH,
  rimM: 19.25 * INCH,
  beadM: null,
  ramp: false,
  gasketM: 16 * INCH,
  gasketWidthM: 0.75 * INCH,
  sheetM: 0.018,
  brackets: 4,
  screwM: 0.004,
  board: null,
  ...over,
});
const planned = (over: Partial<RingQuestion> = {}): RingPlan => {
  const made = planRing(ring(over));
  if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
  return made.value;
};
const refused = (over: Partial<RingQuestion>): readonly string[] => {
  const made = planRing(ring(over));
  return made.ok ? [] : made.failures.map((f) => f.code);
};

describe('a ring for a canister', () => {
  it('19.25 and 17.5 in leave 0.875 in a side (handbook of the trade, section 14)', () => {
    const p = planned();
    expect(p.gapM / INCH).toBeCloseTo(0.875, 9);
    expect([p.way, p.beadGapM, p.fillM]).toEqual(['inside', null, null]);
    expect(p.pieces).toHaveLength(1);
    expect(p.pieces[0]?.outerM).toBeCloseTo(19.25 * INCH, 9);
  });

  it('lies under the whole gasket, and its screws stand in the gap, clear of canister and edge', () => {
    const p = planned();
    expect(p.contactM).toBeCloseTo(0.75 * INCH, 9);
    expect(p.pieces[0]?.innerM).toBeLessThan((16 - 0.75) * INCH);
    for (const h of p.holes) {
      const from = Math.hypot(h.xM, h.yM);
      expect(from - h.clearanceM / 2).toBeGreaterThan((17.5 * INCH) / 2);
      expect(from + h.clearanceM / 2).toBeLessThan((19.25 * INCH) / 2);
      expect(h.pilotM).toBeLessThan(0.004);
      expect(h.clearanceM).toBeGreaterThan(0.004);
    }
  });

  it('on a ramp needs brackets only; a beaded rim has two gaps, and the ring passes the bead', () => {
    expect(planned({ ramp: true })).toMatchObject({ way: 'bracketsOnly', pieces: [], holes: [] });
    const beaded = planned({ beadM: 18.75 * INCH });
    expect((beaded.beadGapM ?? 0) / INCH).toBeCloseTo(0.625, 9);
    expect(beaded.gapM / INCH).toBeCloseTo(0.875, 9);
    expect((beaded.fillM ?? 0) / INCH).toBeCloseTo(0.25, 9);
    expect(beaded.pieces[0]?.outerM).toBeCloseTo(18.75 * INCH, 9);
  });

  it('wider than the rim it hangs over: one ring inside, a larger one on top, screwed where both lie on each other', () => {
    const p = planned({ filterM: 20 * INCH, gasketM: 18 * INCH });
    expect(p.way).toBe('double');
    expect(p.gapM / INCH).toBeCloseTo(-0.375, 9);
    const [inner, top] = p.pieces;
    expect(top?.outerM).toBeGreaterThan(20 * INCH);
    for (const h of p.holes) {
      expect(Math.hypot(h.xM, h.yM) + h.clearanceM / 2).toBeLessThan((inner?.outerM ?? 0) / 2);
      expect(Math.hypot(h.xM, h.yM) - h.clearanceM / 2).toBeGreaterThan((inner?.innerM ?? 0) / 2);
    }
  });

  it('refuses what cannot be cut or would leak', () => {
    expect(refused({ filterM: 19.25 * INCH })).toEqual(['ring.no-gap']);
    expect(refused({ filterM: 19 * INCH, gasketM: 17 * INCH })).toEqual(['ring.thin']);
    expect(refused({ sheetM: 0.006 })).toEqual(['ring.thin']);
    expect(refused({ gasketM: 0.05, gasketWidthM: 0.05 })).toEqual(['ring.gasket']);
    expect(refused({ rimM: 30, brackets: 1 })).toEqual(['ring.figure', 'ring.figure']);
    expect(refused({ filterM: Number.NaN })).toContain('ring.figure');
  });
});

describe('the board', () => {
  const piece = { name: 'ring' as const, outerM: 0.48, innerM: 0.38 };
  /** By sampling: no point of one piece's box lies in another's, and all lie on the board. */
  const apart = ({ places }: ReturnType<typeof fitOnBoard>, widthM: number, heightM: number): boolean =>
    places.every(
      (a, i) =>
        a.xM >= 0 &&
        a.yM >= 0 &&
        a.xM + a.widthM <= widthM + 1e-9 &&
        a.yM + a.heightM <= heightM + 1e-9 &&
        places.every(
          (b, k) =>
            k === i ||
            a.xM + a.widthM <= b.xM ||
            b.xM + b.widthM <= a.xM ||
            a.yM + a.heightM <= b.yM ||
            b.yM + b.heightM <= a.yM,
        ),
    );

  it('gives the ring whole where it can, else in the fewest segments, and says when it cannot', () => {
    const whole = fitOnBoard([piece], { widthM: 0.5, heightM: 0.5 });
    expect([whole.fits, whole.segments]).toEqual(['whole', 1]);
    // Half a metre by 35 cm: not whole, but two halves of 48 by 24 cm do not fit either; quarters of 34 by 10.6 cm do.
    const parts = fitOnBoard([piece], { widthM: 0.5, heightM: 0.35 });
    expect(parts.fits).toBe('segments');
    expect(parts.segments).toBeGreaterThan(2);
    expect(apart(parts, 0.5, 0.35)).toBe(true);
    expect(fitOnBoard([piece], { widthM: 0.2, heightM: 0.1 }).fits).toBe('no');
    const two = fitOnBoard([piece, { ...piece, outerM: 0.52 }], { widthM: 1.22, heightM: 0.61 });
    expect([two.fits, apart(two, 1.22, 0.61)]).toEqual(['whole', true]);
  });

  it('a segment lies in the box it is cut from, however many there are', () => {
    for (let n = 2; n <= 8; n += 1) {
      const half = Math.PI / n;
      const box = fitOnBoard([piece], { widthM: 5, heightM: 5 }).places[0];
      expect(box?.widthM).toBe(0.48);
      // The arc of the outer edge, sampled: no wider than the chord, no higher than the ring and its sagitta.
      const points = Array.from({ length: 101 }, (_, i) => -half + (2 * half * i) / 100);
      const wide = 0.48 * Math.max(...points.map((a) => Math.sin(a)));
      expect(wide).toBeLessThanOrEqual(0.48 * Math.sin(Math.min(half, Math.PI / 2)) + 1e-12);
    }
  });
});
