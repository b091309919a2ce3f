import chiQuantile from '@stdlib/stats-base-dists-chisquare-quantile';
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import { CONFIDENCE } from '../constants/limits';
import { studentFactor } from '../numeric/student';

/** Points over the chi-square distribution. A modelling choice: the power holds to 1e-4 and better. */
const POINTS = 400;
/** Largest number of repeats considered. */
const MOST_REPEATS = 40;
/** A verdict needs so many a side. Source: `VERDICT_REPEATS`, DESIGN. */
const LEAST_REPEATS = 3;
/** The chance of seeing a gain that is there. Source: Cohen, Statistical Power Analysis, 2nd ed.: 0.80, by convention. */
export const WANTED_POWER = 0.8;

/**
 * Chance that a two-sided t test at 95 % tells two means apart, with so many repeats a side: the noncentral t distribution,
 * integrated over the chi-square of the spread. Source: Cohen, Statistical Power Analysis, 2nd ed., ch. 2. Valid: effect
 * (difference over the spread of one reading) 0 and more, repeats 2 and more; throws RangeError otherwise.
 * @example powerOf({ effect: 1, repeats: 17 }) // 0.807
 */
export const powerOf = ({ effect, repeats }: { readonly effect: number; readonly repeats: number }): number => {
  if (!(effect >= 0 && repeats >= 2)) throw new RangeError(`effect ${effect} with ${repeats} repeats`);
  const degreesOfFreedom = 2 * repeats - 2;
  const shift = effect * Math.sqrt(repeats / 2);
  const limit = studentFactor({ confidence: CONFIDENCE.value, degreesOfFreedom });
  // Given the spread that is found, the statistic is normal.
  const given = Array.from({ length: POINTS }, (_, i) => {
    const spread = Math.sqrt(chiQuantile((i + 0.5) / POINTS, degreesOfFreedom) / degreesOfFreedom);
    return normalCdf(-limit * spread, shift, 1) + 1 - normalCdf(limit * spread, shift, 1);
  });
  return given.reduce((a, b) => a + b, 0) / POINTS;
};

/**
 * Repeats a side to see a difference with the wanted power; null where no sensible number would do. Source: as `powerOf`.
 * Valid: effect above 0.
 * @example repeatsFor(1) // 17
 */
export const repeatsFor = (effect: number, power = WANTED_POWER): number | null => {
  if (!(effect > 0)) return null;
  for (let repeats = LEAST_REPEATS; repeats <= MOST_REPEATS; repeats += 1)
    if (powerOf({ effect, repeats }) >= power) return repeats;
  return null;
};
