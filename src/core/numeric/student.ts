import tCdf from '@stdlib/stats-base-dists-t-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';

/**
 * Two-sided Student factor for a level of confidence.
 * Source: Student's t distribution; GUM table G.2 prints it. Valid: 0 < confidence < 1, degrees of freedom above 0
 * or Infinity (then the normal's 1.96 at 95 %). Throws RangeError otherwise.
 * @example studentFactor({ confidence: 0.95, degreesOfFreedom: 4 }) // 2.776
 */
export const studentFactor = ({
  confidence,
  degreesOfFreedom,
}: {
  confidence: number;
  degreesOfFreedom: number;
}): number => {
  if (!(confidence > 0 && confidence < 1)) throw new RangeError(`confidence ${confidence} is not between 0 and 1`);
  if (!(degreesOfFreedom > 0)) throw new RangeError(`degrees of freedom ${degreesOfFreedom} are not above 0`);
  // Beyond 1e6 the normal limit holds to seven digits and the incomplete beta loses its own.
  return tQuantile(0.5 + confidence / 2, Math.min(degreesOfFreedom, 1e6));
};

/**
 * Two-sided p of a t statistic. Source, validity and errors: as `studentFactor`.
 * Valid: as `studentFactor`.
 * @example studentTwoSidedP({ t: 2.776, degreesOfFreedom: 4 }) // 0.05
 */
export const studentTwoSidedP = ({ t, degreesOfFreedom }: { t: number; degreesOfFreedom: number }): number => {
  if (!(degreesOfFreedom > 0)) throw new RangeError(`degrees of freedom ${degreesOfFreedom} are not above 0`);
  return 2 * tCdf(-Math.abs(t), Math.min(degreesOfFreedom, 1e6));
};
