import { SEASONING, SIZE_RANGE_UM } from '../constants/aerosol';
import { MEDIA, type Medium } from '../constants/media';
import { ok, type Result } from '../failure/failure';
import { checkRating, DUST_CLASS_PENETRATION, EN_1822, type FilterRating, MERV_MINIMA, MERV_RANGES_UM } from './rating';
import { bedExponent, type FibreBed } from './single-fibre';

/** Share that passes a medium, by particle size in um and face velocity in m/s. */
export type PenetrationOf = (at: { readonly sizeUm: number; readonly faceMs: number }) => number;

export interface RatedCurve {
  readonly penetration: PenetrationOf;
  /** Size its rating is stated at, um; for MERV the middle of the lowest range it is rated in. */
  readonly ratedSizeUm: number;
  /** Face velocity its rating is taken to be stated at, m/s. */
  readonly ratedFaceMs: number;
  /** false: nothing is printed on it, and the curve is a typical one of its medium. */
  readonly rated: boolean;
}

interface Fixed {
  readonly sizeUm: number;
  readonly penetration: number;
}

/** Thickness is free: the exponent is scaled to the rating anyway. */
const bedOf = (medium: Medium): FibreBed => ({
  fibreUm: MEDIA[medium].fibreUm,
  solidity: Math.min(0.3, MEDIA[medium].solidity),
  thicknessM: 1e-3,
});

/** A rating is taken to be stated in the middle of the medium's usual face velocities. */
const ratedFaceOf = (medium: Medium): number => Math.sqrt(MEDIA[medium].adviceMs[0] * MEDIA[medium].adviceMs[1]);

const SCAN = 160;

/** Most penetrating size in um of a curve between two sizes, by a scan on a logarithmic grid and halving about its top. */
export const mostPenetrating = (
  penetrationAt: (sizeUm: number) => number,
  [low, high]: readonly [number, number] = SIZE_RANGE_UM,
): { readonly sizeUm: number; readonly penetration: number } => {
  const at = (i: number) => low * (high / low) ** (i / SCAN);
  const best = Array.from({ length: SCAN + 1 }, (_, i) => i).reduce(
    (a, i) => (penetrationAt(at(i)) > penetrationAt(at(a)) ? i : a),
    0,
  );
  let [a, b] = [Math.log(at(Math.max(0, best - 1))), Math.log(at(Math.min(SCAN, best + 1)))];
  for (let i = 0; i < 40; i += 1) {
    const [l, r] = [a + (b - a) / 3, b - (b - a) / 3];
    if (penetrationAt(Math.exp(l)) < penetrationAt(Math.exp(r))) a = l;
    else b = r;
  }
  const sizeUm = Math.exp((a + b) / 2);
  return { sizeUm, penetration: penetrationAt(sizeUm) };
};

const mervPoints = (merv: keyof typeof MERV_MINIMA): readonly Fixed[] =>
  MERV_RANGES_UM.flatMap(([low, high], i) => {
    const minimum = MERV_MINIMA[merv][i] ?? null;
    return minimum === null ? [] : [{ sizeUm: Math.sqrt(low * high), penetration: 1 - minimum / 100 }];
  });

const fixedPoints = (rating: FilterRating, medium: Medium, mppsUm: number): Result<readonly Fixed[]> => {
  switch (rating.scale) {
    case 'none': {
      const { efficiency, sizeUm } = MEDIA[medium].typical;
      return ok([{ sizeUm, penetration: 1 - efficiency }]);
    }
    case 'point': {
      const checked = checkRating(rating);
      return checked.ok ? ok([{ sizeUm: rating.sizeUm, penetration: 1 - rating.efficiency }]) : checked;
    }
    case 'en1822':
      return ok([{ sizeUm: mppsUm, penetration: 1 - EN_1822[rating.grade].integralPercent / 100 }]);
    case 'merv':
      return ok(mervPoints(rating.merv));
    case 'dustClass':
      return ok([{ sizeUm: mppsUm, penetration: DUST_CLASS_PENETRATION[rating.dustClass] }]);
  }
};

interface RatedPoint {
  readonly logSize: number;
  readonly exponent: number;
  /** Rated exponent over that of the bare bed. */
  readonly scale: number;
}

/**
 * Exponent at a size and the rated velocity: below the first rated point the bed's shape, scaled to meet it; between
 * two points straight in the logarithm of the size; beyond the last of several, the last (a minimum goes on to hold).
 */
const exponentAtRated = (points: readonly RatedPoint[], sizeUm: number, bed: number): number => {
  const x = Math.log(sizeUm);
  const after = points.findIndex((p) => p.logSize >= x);
  const [a, b] = [points[after - 1], points[after]];
  if (points.length === 1 || after === 0) return (points[0]?.scale ?? 1) * bed;
  if (!a || !b) return points.at(-1)?.exponent ?? bed;
  return a.exponent + ((b.exponent - a.exponent) * (x - a.logSize)) / (b.logSize - a.logSize);
};

/**
 * Penetration of a medium by size: the shape from single-fibre theory, its exponent scaled so that the curve meets each
 * rated value at its rated size. A dust cake (resistance so many times the clean one) raises the exponent where the
 * medium seasons. Source: P = P0^c, thickness scaling of Hinds eq. 9.19; ratings by their standards; seasoning is a
 * Moorwind default. Valid: sizes 0.01 to 10 um. Returns `train.rating` or `path.range`.
 */
export const ratedCurve = (input: {
  readonly medium: Medium;
  readonly rating: FilterRating;
  readonly timesClean?: number;
}): Result<RatedCurve> => {
  const { medium, rating, timesClean = 1 } = input;
  const [bed, ratedFaceMs] = [bedOf(medium), ratedFaceOf(medium)];
  const exponentAt = (sizeUm: number, faceMs: number) => bedExponent(bed, { sizeUm, faceMs });
  const mpps = mostPenetrating((sizeUm) => Math.exp(-exponentAt(sizeUm, ratedFaceMs))).sizeUm;
  const fixed = fixedPoints(rating, medium, mpps);
  if (!fixed.ok) return fixed;
  const points = fixed.value.map((p): RatedPoint => {
    const exponent = -Math.log(p.penetration);
    return { logSize: Math.log(p.sizeUm), exponent, scale: exponent / exponentAt(p.sizeUm, ratedFaceMs) };
  });
  const cake = MEDIA[medium].seasons ? 1 + SEASONING.value * Math.log(Math.max(1, timesClean)) : 1;
  return ok({
    penetration: ({ sizeUm, faceMs }) => {
      const atRated = exponentAt(sizeUm, ratedFaceMs);
      return Math.exp((-cake * exponentAtRated(points, sizeUm, atRated) * exponentAt(sizeUm, faceMs)) / atRated);
    },
    ratedSizeUm: fixed.value[0]?.sizeUm ?? mpps,
    ratedFaceMs,
    rated: rating.scale !== 'none',
  });
};
