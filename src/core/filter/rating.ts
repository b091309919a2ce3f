import { SIZE_RANGE_UM } from '../constants/aerosol';
import { fail, failure, ok, type Result } from '../failure/failure';

/** Filter classes of EN 1822-1, at the most penetrating particle size. */
export const EN1822_GRADES = ['E10', 'E11', 'E12', 'H13', 'H14', 'U15', 'U16', 'U17'] as const;
export type En1822Grade = (typeof EN1822_GRADES)[number];
export type Merv = 8 | 9 | 10 | 11 | 12 | 13 | 14 | 15 | 16;
/** Whole-machine classes of EN/IEC 60335-2-69, as a filter maker names an element meant for one. */
export const DUST_CLASSES = ['L', 'M', 'H'] as const;
export type DustClass = (typeof DUST_CLASSES)[number];

/** The maker's stated efficiency of a clean filter. */
export type FilterRating =
  | { readonly scale: 'none' }
  | { readonly scale: 'point'; readonly efficiency: number; readonly sizeUm: number }
  | { readonly scale: 'en1822'; readonly grade: En1822Grade }
  | { readonly scale: 'merv'; readonly merv: Merv }
  | { readonly scale: 'dustClass'; readonly dustClass: DustClass };

/** Minimum integral and local efficiency in per cent, as printed. Source: EN 1822-1, from memory of the table. */
export const EN_1822: Record<En1822Grade, { readonly integralPercent: number; readonly localPercent: number | null }> =
  {
    E10: { integralPercent: 85, localPercent: null },
    E11: { integralPercent: 95, localPercent: null },
    E12: { integralPercent: 99.5, localPercent: null },
    H13: { integralPercent: 99.95, localPercent: 99.75 },
    H14: { integralPercent: 99.995, localPercent: 99.975 },
    U15: { integralPercent: 99.9995, localPercent: 99.9975 },
    U16: { integralPercent: 99.99995, localPercent: 99.99975 },
    U17: { integralPercent: 99.999995, localPercent: 99.9999 },
  };

/** The three size ranges of ASHRAE 52.2, um. */
export const MERV_RANGES_UM: readonly (readonly [number, number])[] = [
  [0.3, 1],
  [1, 3],
  [3, 10],
];

/** Minimum efficiency in per cent in E1, E2 and E3; null where none is asked. Source: ASHRAE 52.2-2017, from memory of the table. */
export const MERV_MINIMA: Record<Merv, readonly [number | null, number, number]> = {
  8: [null, 20, 70],
  9: [null, 35, 75],
  10: [null, 50, 80],
  11: [20, 65, 85],
  12: [35, 80, 90],
  13: [50, 85, 90],
  14: [75, 90, 95],
  15: [85, 90, 95],
  16: [95, 95, 95],
};

/** Most that may pass a whole machine, as a share. Source: EN/IEC 60335-2-69 Annex AA, from memory of the table. */
export const DUST_CLASS_PENETRATION: Record<DustClass, number> = { L: 0.01, M: 0.001, H: 0.00005 };

/** HEPA in US usage: 99.97 % at 0.3 um. Source: DOE-STD-3020; 29 CFR 1926.1153 defines it the same way. */
export const US_HEPA = { efficiency: 0.9997, sizeUm: 0.3 } as const;

/** Below this size no maker of vacuum filters states a figure: "99.97 % at 0.03 um" is 0.3 with a slip. */
const SMALLEST_STATED_UM = 0.1;

/**
 * Whether a rating is one that can be meant: an efficiency between none and all, at a size filters are stated at.
 * HEPA is 99.97 % at 0.3 um (29 CFR 1926.1153, DOE-STD-3020); a claim at 0.03 is explained, not taken. Returns
 * `train.rating`, `path.range` or `train.claim`.
 */
export const checkRating = (rating: FilterRating): Result<FilterRating> => {
  if (rating.scale !== 'point') return ok(rating);
  const { efficiency, sizeUm } = rating;
  if (!(efficiency > 0 && efficiency < 1)) return fail(failure('train.rating', 'rating', { efficiency }));
  if (!(sizeUm >= SIZE_RANGE_UM[0] && sizeUm <= SIZE_RANGE_UM[1]))
    return fail(
      failure('path.range', 'rating.sizeUm', {
        field: 'sizeUm',
        value: sizeUm,
        low: SIZE_RANGE_UM[0],
        high: SIZE_RANGE_UM[1],
      }),
    );
  return sizeUm < SMALLEST_STATED_UM
    ? fail(failure('train.claim', 'rating.sizeUm', { efficiency, sizeUm }))
    : ok(rating);
};
