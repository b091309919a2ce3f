import { CONFIDENCE } from '../constants/limits';
import { studentFactor } from '../numeric/student';

/** The components of an interval, in the unit of the result. */
export interface Spread {
  /** Standard deviation of one reading. */
  readonly deviation: number;
  /** Standard uncertainty that more repeats do not lessen: instrument, rig, baseline. */
  readonly fixed: number;
  readonly n: number;
  /** Distance from the result to the limit it straddles. */
  readonly distance: number;
}

export type HowToSettle =
  { readonly by: 'repeats'; readonly more: number } | { readonly by: 'method'; readonly neededExpanded: number };

/** Above this many repeats the advice is a better method instead. A modelling choice. */
export const MOST_REPEATS = 30;

/**
 * Ways to settle a "cannot tell" if mean and spread stay the same: this many more repeats, or a method with a half
 * interval of at most the distance to the limit. Source: GUM G.4 for the interval at n repeats; the search is ours.
 * Throws RangeError for an n under 2.
 */
export const howToSettle = ({ deviation, fixed, n, distance }: Spread): HowToSettle => {
  if (!(n >= 2)) throw new RangeError(`${n} repeats have no spread`);
  for (let total = n + 1; total <= MOST_REPEATS; total += 1) {
    const repeat = deviation / Math.sqrt(total);
    const u = Math.hypot(repeat, fixed);
    const degreesOfFreedom = repeat > 0 ? ((total - 1) * u ** 4) / repeat ** 4 : Number.POSITIVE_INFINITY;
    if (studentFactor({ confidence: CONFIDENCE.value, degreesOfFreedom }) * u <= distance)
      return { by: 'repeats', more: total - n };
  }
  return { by: 'method', neededExpanded: distance };
};
