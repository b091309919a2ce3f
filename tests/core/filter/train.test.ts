import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MEDIA, type Medium } from '@/core/constants/media';
import { classOfPenetration, type Deserved, deservedClass, mostBypass } from '@/core/filter/deserved-class';
import { trainOfMachine } from '@/core/machine/machine-train';
import { DUST_CLASS_PENETRATION, EN_1822, type FilterRating, MERV_MINIMA, MERV_RANGES_UM } from '@/core/filter/rating';
import { mostPenetrating, ratedCurve } from '@/core/filter/rated-curve';
import { bedExponent, daviesDropPa, fibreEfficiency, kuwabara } from '@/core/filter/single-fibre';
import { slipFactor } from '@/core/filter/slip';
import { filterTrain, pastSeat, sideBySide, type Train, type TrainStage } from '@/core/filter/train';
import { CLEAN_STATE, templateMachine } from '../../support/machines';

const HINDS_BED = { fibreUm: 2, solidity: 0.05, thicknessM: 1e-3 };

describe('single fibres (Hinds, Aerosol Technology, 2nd ed., ch. 3 and 9; values from memory of the source)', () => {
  // Table A11: 22.98 at 0.01 um, 2.928 at 0.1, 1.155 at 1, 1.015 at 10.
  it.each([
    [0.01, 22.98],
    [0.1, 2.928],
    [1, 1.155],
    [10, 1.015],
  ])('slip factor at %d um is %d', (size, factor) => {
    expect(slipFactor(size)).toBeCloseTo(factor, size < 0.05 ? 2 : 3);
  });

  it('Davies: 2 um fibres, 5 % solid, 1 mm, 0.1 m/s drop 326 Pa (eq. 9.36, worked by hand)', () => {
    // 1.81e-5 x 1e-3 x 0.1 x 64 x 0.05^1.5 x 1.007 / 4e-12 = 326.
    expect(daviesDropPa(HINDS_BED, 0.1)).toBeCloseTo(326, -0.7);
  });

  it('Kuwabara factor of 5 % is 0.797, and the mechanisms of a 0.3 um particle, each by hand', () => {
    // -ln(0.05)/2 - 0.75 + 0.05 - 0.000625 = 0.7972.
    expect(kuwabara(0.05)).toBeCloseTo(0.7972, 4);
    const e = fibreEfficiency(HINDS_BED, { sizeUm: 0.3, faceMs: 0.1 });
    // R = 0.15: E_R = 0.95 x 0.0225 / (0.7972 x 1.15) = 0.02332. D = 1.23e-10 m2/s, Pe = 1625, E_D = 2 Pe^(-2/3) = 0.01447.
    expect(e.interception).toBeCloseTo(0.02332, 4);
    expect(e.diffusion).toBeCloseTo(0.01447, 3);
    // J = (29.6 - 28 x 0.05^0.62) x 0.0225 - 27.5 x 0.15^2.8 = 0.5677 - 0.1357 = 0.4320; Stk = 1000 x 9e-14 x 1.554 x 0.1 / (18 x 1.813e-5 x 2e-6) = 0.02143.
    expect(e.inertia).toBeCloseTo((0.02143 * 0.432) / (2 * 0.7972 ** 2), 4);
  });

  it('the efficiency minimum lies between 0.1 and 0.4 um and moves down with faster air', () => {
    const worst = [0.01, 0.05, 0.1, 0.5, 1].map(
      (faceMs) => mostPenetrating((sizeUm) => Math.exp(-bedExponent(HINDS_BED, { sizeUm, faceMs }))).sizeUm,
    );
    expect(Math.max(...worst)).toBeLessThan(0.4);
    expect(Math.min(...worst)).toBeGreaterThan(0.1 - 1e-3);
    expect([...worst].sort((a, b) => b - a)).toEqual(worst);
  });
});

describe('the tables', () => {
  it('EN 1822-1: integral minima, and local penetration five times the integral from H13 on', () => {
    expect(Object.values(EN_1822).map((g) => g.integralPercent)).toEqual([
      85, 95, 99.5, 99.95, 99.995, 99.9995, 99.99995, 99.999995,
    ]);
    for (const grade of ['H13', 'H14', 'U15', 'U16'] as const) {
      const { integralPercent, localPercent } = EN_1822[grade];
      expect((100 - (localPercent ?? 0)) / (100 - integralPercent)).toBeCloseTo(5, 3);
    }
  });

  it('ASHRAE 52.2-2017: a higher MERV never holds less in any range', () => {
    expect(MERV_RANGES_UM).toEqual([
      [0.3, 1],
      [1, 3],
      [3, 10],
    ]);
    expect(MERV_MINIMA[15]).toEqual([85, 90, 95]);
    expect(MERV_MINIMA[8]).toEqual([null, 20, 70]);
    const rows = Object.values(MERV_MINIMA);
    rows
      .slice(1)
      .forEach((row, i) =>
        row.forEach((minimum, range) => expect(minimum ?? 0).toBeGreaterThanOrEqual(rows[i]?.[range] ?? 0)),
      );
  });

  it('EN 60335-2-69 Annex AA: 1, 0.1 and 0.005 % pass, limits inclusive even as 1 - 0.999', () => {
    expect(DUST_CLASS_PENETRATION).toEqual({ L: 0.01, M: 0.001, H: 0.00005 });
    expect(classOfPenetration(1 - 0.999)).toBe('M');
    expect(classOfPenetration(0.00005)).toBe('H');
    expect(classOfPenetration(0.000051)).toBe('M');
    expect(classOfPenetration(0.0011)).toBe('L');
    expect(classOfPenetration(0.011)).toBeNull();
  });
});

const hepa: FilterRating = { scale: 'point', efficiency: 0.9997, sizeUm: 0.3 };
const stage = (over: Partial<TrainStage> = {}): TrainStage => ({
  name: 'HEPA',
  medium: 'hepaGlass',
  rating: hepa,
  bypass: 0,
  faceMs: null,
  timesClean: 1,
  ...over,
});
const train = (stages: readonly TrainStage[], wholeBypass = 0): Train => {
  const built = filterTrain({ stages, wholeBypass });
  if (!built.ok) throw new Error(built.failures.map((f) => f.code).join());
  return built.value;
};
const judged = (stages: readonly TrainStage[], wholeBypass = 0): Deserved => deservedClass(train(stages, wholeBypass));

const ratings: readonly FilterRating[] = [
  hepa,
  { scale: 'en1822', grade: 'H14' },
  { scale: 'en1822', grade: 'E10' },
  { scale: 'merv', merv: 13 },
  { scale: 'merv', merv: 8 },
  { scale: 'dustClass', dustClass: 'M' },
  { scale: 'none' },
];

describe('a rated curve', () => {
  it('meets each rated value at its rated size and velocity', () => {
    const at = (rating: FilterRating, sizeUm: number) => {
      const curve = ratedCurve({ medium: 'hepaGlass', rating });
      if (!curve.ok) throw new Error('no curve');
      return curve.value.penetration({ sizeUm, faceMs: curve.value.ratedFaceMs });
    };
    expect(at(hepa, 0.3)).toBeCloseTo(0.0003, 9);
    MERV_RANGES_UM.forEach(([low, high], i) =>
      expect(at({ scale: 'merv', merv: 13 }, Math.sqrt(low * high))).toBeCloseTo(
        1 - (MERV_MINIMA[13][i] ?? 0) / 100,
        6,
      ),
    );
    const h14 = ratedCurve({ medium: 'hepaGlass', rating: { scale: 'en1822', grade: 'H14' } });
    if (!h14.ok) throw new Error('no curve');
    const worst = mostPenetrating((sizeUm) => h14.value.penetration({ sizeUm, faceMs: h14.value.ratedFaceMs }));
    expect(worst.penetration).toBeCloseTo(0.00005, 8);
  });

  it('99.97 % at 0.3 um is not the worst size', () => {
    const t = train([stage()]);
    expect(t.mostPenetrating.sizeUm).toBeGreaterThan(0.1);
    expect(t.mostPenetrating.sizeUm).toBeLessThan(0.3);
    expect(t.mostPenetrating.penetration).toBeGreaterThan(0.0003);
  });

  it('is straight in the logarithm of the size between two rated sizes, keeps the last beyond it, and the shape of its bed below the first', () => {
    const rating: FilterRating = { scale: 'merv', merv: 13 };
    const curve = ratedCurve({ medium: 'pleatedPolyester', rating });
    if (!curve.ok) throw new Error('no curve');
    const { ratedFaceMs: faceMs } = curve.value;
    const exponent = (sizeUm: number) => -Math.log(curve.value.penetration({ sizeUm, faceMs }));
    const [first, second, third] = MERV_RANGES_UM.map(([low, high]) => Math.sqrt(low * high));
    if (!first || !second || !third) throw new Error('no sizes');
    expect(exponent(Math.sqrt(first * second))).toBeCloseTo((exponent(first) + exponent(second)) / 2, 9);
    const quarter = first ** 0.75 * second ** 0.25;
    expect(exponent(quarter)).toBeCloseTo(0.75 * exponent(first) + 0.25 * exponent(second), 9);
    expect(exponent(Math.sqrt(second * third))).toBeCloseTo((exponent(second) + exponent(third)) / 2, 9);
    expect(exponent(9)).toBeCloseTo(exponent(third), 9);
    // A rating at one size keeps the shape of its bed to both sides: the ratio of two exponents is the bed's own.
    const single = (efficiency: number) => {
      const c = ratedCurve({ medium: 'pleatedPolyester', rating: { scale: 'point', efficiency, sizeUm: 1 } });
      if (!c.ok) throw new Error('no curve');
      return (sizeUm: number) => -Math.log(c.value.penetration({ sizeUm, faceMs: c.value.ratedFaceMs }));
    };
    const [low, high] = [single(0.5), single(0.9)];
    for (const size of [0.05, 0.3, 1, 4]) expect(high(size) / low(size)).toBeCloseTo(Math.log(10) / Math.log(2), 6);
    expect(exponent(0.1) / exponent(first)).toBeCloseTo(low(0.1) / low(first), 6);
  });

  it('a cake holds more where the medium seasons, with the logarithm of what it grew by, and nothing where it does not', () => {
    const exponent = (medium: Medium, timesClean: number) => {
      const c = ratedCurve({ medium, rating: { scale: 'none' }, timesClean });
      if (!c.ok) throw new Error('no curve');
      return -Math.log(c.value.penetration({ sizeUm: 0.3, faceMs: c.value.ratedFaceMs }));
    };
    const seasoning = (medium: Medium) =>
      [Math.E, Math.E ** 2].map((t) => exponent(medium, t) / exponent(medium, 1) - 1);
    for (const medium of Object.keys(MEDIA) as Medium[]) {
      const [once, twice] = seasoning(medium);
      if (MEDIA[medium].seasons) {
        expect(once).toBeGreaterThan(0.05);
        expect(twice).toBeCloseTo(2 * (once ?? 0), 9);
      } else expect([once, twice]).toEqual([0, 0]);
      // Cleaner than clean is clean.
      expect(exponent(medium, 0.2)).toBeCloseTo(exponent(medium, 1), 12);
    }
  });

  it('stays between none and all for every medium, rating, size, velocity and load (property)', () => {
    const media = Object.keys(MEDIA) as Medium[];
    fc.assert(
      fc.property(
        fc.constantFrom(...media),
        fc.constantFrom(...ratings),
        fc.double({ min: 0.01, max: 10, noNaN: true }),
        fc.double({ min: 1e-4, max: 5, noNaN: true }),
        fc.double({ min: 1, max: 1000, noNaN: true }),
        (medium, rating, sizeUm, faceMs, timesClean) => {
          const curve = ratedCurve({ medium, rating, timesClean });
          if (!curve.ok) throw new Error('no curve');
          const p = curve.value.penetration({ sizeUm, faceMs });
          expect(p >= 0 && p <= 1).toBe(true);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('a dust cake helps a medium that seasons and no other', () => {
    const passes = (medium: Medium, timesClean: number) =>
      train([stage({ medium, rating: { scale: 'none' }, timesClean })]).whole(1);
    expect(passes('clothBag', 5)).toBeLessThan(passes('clothBag', 1));
    expect(passes('hepaGlass', 5)).toBe(passes('hepaGlass', 1));
    // ln P of a cake of e times the clean resistance is half as much again as clean: the default of 0.5 per e-fold.
    expect(Math.log(passes('clothBag', Math.E)) / Math.log(passes('clothBag', 1))).toBeCloseTo(1.5, 9);
  });
});

describe('a train', () => {
  it('multiplies what passes each stage and its seat', () => {
    const [bag, main] = [
      stage({ name: 'bag', medium: 'fleeceBag', rating: { scale: 'merv', merv: 13 }, bypass: 0.01 }),
      stage({ bypass: 0.0005 }),
    ];
    const t = train([bag, main], 0.001);
    const seated = (s: TrainStage) => pastSeat(s.bypass, train([{ ...s, bypass: 0 }]).whole(0.3));
    expect(t.whole(0.3)).toBeCloseTo(0.001 + 0.999 * seated(bag) * seated(main), 12);
  });

  it('bypass decides: M needs under 0.07 % past a 99.97 % element and 0.095 % past an H14; H under 0.005 % less its own', () => {
    expect(mostBypass({ limit: 0.001, penetration: 0.0003 }) * 100).toBeCloseTo(0.07, 3);
    expect(mostBypass({ limit: 0.001, penetration: 0.00005 }) * 100).toBeCloseTo(0.095, 3);
    // Judged at the size it holds worst, a 99.97 % element at 0.3 um leaves less room for its seat than that.
    expect(judged([stage({ bypass: 0.0001 })]).dustClass).toBe('M');
    expect(judged([stage({ bypass: 0.00069 })]).dustClass).toBe('L');
    const h14: FilterRating = { scale: 'en1822', grade: 'H14' };
    expect(judged([stage({ rating: h14, bypass: 0.00094 })]).dustClass).toBe('M');
    expect(judged([stage({ rating: h14, bypass: 0.00096 })]).dustClass).toBe('L');
    const u15: FilterRating = { scale: 'en1822', grade: 'U15' };
    expect(judged([stage({ rating: u15, bypass: 0.000044 })]).dustClass).toBe('H');
    expect(judged([stage({ rating: u15, bypass: 0.000046 })]).dustClass).toBe('M');
  });

  it('overspeed and a dust cake never better a class: judged at the worst size, never above the rating', () => {
    const face = (times: number) =>
      judged([stage({ faceMs: Math.sqrt(MEDIA.hepaGlass.adviceMs[0] * MEDIA.hepaGlass.adviceMs[1]) * times })]);
    const rated = face(1);
    expect(rated.dustClass).toBe('M');
    for (const times of [0.25, 0.5, 2, 4, 8]) {
      expect(face(times).penetration).toBeGreaterThanOrEqual(rated.penetration * (1 - 1e-9));
      expect(face(times).dustClass).not.toBe('H');
    }
    const cloth = { medium: 'pleatedPolyester', rating: { scale: 'point', efficiency: 0.9, sizeUm: 0.3 } } as const;
    expect(judged([stage({ ...cloth, timesClean: 50 })]).penetration).toBeCloseTo(
      judged([stage(cloth)]).penetration,
      12,
    );
    // The size it is judged at is the worst there is: none of a fine scan passes more.
    const t = train([stage({ bypass: 0.0001 })]);
    const d = deservedClass(t);
    for (let i = 0; i <= 400; i += 1)
      expect(t.claimed(0.01 * 1000 ** (i / 400))).toBeLessThanOrEqual(d.penetration * (1 + 1e-6));
  });

  it('says what dominates', () => {
    expect(judged([stage({ bypass: 0.001 })]).reason).toEqual({ kind: 'bypass', stageName: 'HEPA', bypass: 0.001 });
    expect(judged([stage()]).reason.kind).toBe('element');
    expect(judged([stage()], 0.01).reason).toEqual({ kind: 'wholeBypass', bypass: 0.01 });
    // Past the whole train less than past the seat: the seat is named, not the whole.
    expect(judged([stage({ bypass: 0.002 })], 0.001).reason.kind).toBe('bypass');
    expect(judged([stage({ bypass: 0.002 })], 0.004).reason.kind).toBe('wholeBypass');
    expect(judged([stage({ rating: { scale: 'none' } })]).reason.kind).toBe('unrated');
  });

  it('US HEPA is 99.97 % at 0.3 um, inclusive; MERV 16 is none; an unrated filter earns nothing', () => {
    expect(judged([stage()]).usHepa).toBe(true);
    expect(judged([stage({ bypass: 1e-5 })]).usHepa).toBe(false);
    expect(judged([stage({ rating: { scale: 'merv', merv: 16 } })])).toMatchObject({ usHepa: false, dustClass: null });
    const unrated = judged([stage({ medium: 'fleeceBag', rating: { scale: 'none' } })]);
    expect(unrated).toMatchObject({ dustClass: null, essential: null, penetration: 1 });
  });

  it('elements side by side are averaged by flow: one torn twin ruins the pair', () => {
    expect(
      sideBySide([
        { flowM3s: 0.03, penetration: 0.0003 },
        { flowM3s: 0.01, penetration: 1 },
      ]),
    ).toBeCloseTo(0.250225, 9);
    expect(() => sideBySide([])).toThrow(RangeError);
  });

  it('a missing stage is out of the train of its machine', () => {
    const machine = templateMachine('hepaTank');
    const gone = { ...machine, stages: machine.stages.map((s) => (s.kind === 'hepa' ? { ...s, missing: true } : s)) };
    const of = (m: typeof machine) => trainOfMachine({ machine: m, stairs: null, asNew: null, state: CLEAN_STATE });
    const [whole, without] = [of(machine), of(gone)];
    expect(whole.ok && whole.value.stages.map((s) => s.stage.name)).toEqual(['bag', 'prefilter', 'hepa']);
    expect(without.ok && without.value.stages.map((s) => s.stage.name)).toEqual(['bag', 'prefilter']);
    expect(without.ok && deservedClass(without.value).usHepa).toBe(false);
    expect(whole.ok && deservedClass(whole.value)).toMatchObject({ dustClass: 'M', usHepa: true });
  });

  it('refuses what is none, by name and stage', () => {
    const codes = (stages: readonly TrainStage[], wholeBypass = 0) => {
      const built = filterTrain({ stages, wholeBypass });
      return built.ok ? [] : built.failures.map((f) => `${f.code} ${f.path}`);
    };
    expect(codes([])).toEqual(['train.empty ']);
    expect(codes([stage(), stage({ bypass: 1.5 })])).toEqual(['train.bypass stages.1.bypass']);
    expect(codes([stage({ rating: { scale: 'point', efficiency: 1, sizeUm: 0.3 } })])).toEqual([
      'train.rating stages.0.rating',
    ]);
    expect(codes([stage()], Number.NaN)).toEqual(['train.bypass wholeBypass']);
    expect(codes([stage({ faceMs: 0 })])).toEqual(['train.face stages.0.faceMs']);
    expect(codes([stage({ faceMs: -0.02 })])).toEqual(['train.face stages.0.faceMs']);
    // HEPA is 99.97 % at 0.3 um (29 CFR 1926.1153, DOE-STD-3020): at 0.03 it is a slip, and is explained.
    expect(codes([stage({ rating: { scale: 'point', efficiency: 0.9997, sizeUm: 0.03 } })])).toEqual([
      'train.claim stages.0.rating.sizeUm',
    ]);
  });
});
