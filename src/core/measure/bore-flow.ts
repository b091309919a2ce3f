/**
 * Cross-section of a round bore, m2, from its diameter in m. Valid: above 0; throws RangeError otherwise.
 * Source: area of a circle, geometry.
 * @example boreAreaM2(0.027) // 5.7256e-4 m2
 */
export const boreAreaM2 = (diameterM: number): number => {
  if (!(diameterM > 0)) throw new RangeError(`bore ${diameterM} m is not above 0`);
  return (Math.PI / 4) * diameterM ** 2;
};

export interface CentrePoint {
  readonly centreVelocityMs: number;
  readonly boreM: number;
  /** Mean over centre velocity, 0.5 to 1. */
  readonly profileFactor: number;
}

/**
 * Volume flow in m3/s from one centre-line velocity: Q = factor x v x A.
 * Source: continuity; the factor by ACGIH practice (0.9) or the 1/7-power law (0.82). Valid: bore above 0, factor
 * 0.5 to 1; throws RangeError otherwise.
 */
export const flowFromCentreVelocityM3s = ({ centreVelocityMs, boreM, profileFactor }: CentrePoint): number => {
  if (!(profileFactor >= 0.5 && profileFactor <= 1))
    throw new RangeError(`profile factor ${profileFactor} is not 0.5 to 1`);
  return profileFactor * centreVelocityMs * boreAreaM2(boreM);
};

/**
 * Mean air velocity in m/s of a flow in m3/s through a bore in m. Source: continuity. Throws as `boreAreaM2`.
 * Valid: a bore above 0.
 * @example boreVelocityMs({ flowM3s: 41.2 / 3600, boreM: 0.027 }) // 20.0 m/s
 */
export const boreVelocityMs = ({ flowM3s, boreM }: { flowM3s: number; boreM: number }): number =>
  flowM3s / boreAreaM2(boreM);

/**
 * The bore in m that makes a velocity in m/s and a flow in m3/s of one rig agree. A check of the rig, to 1-2 %;
 * with a profile factor in the meter's flow it is not the true bore.
 * Source: continuity; as a check: common practice, no published source. Throws RangeError unless both are above 0.
 * Valid: flow and velocity above 0.
 * @example effectiveBoreM({ flowM3s: toSi('flow', 92, 'cfm'), velocityMs: toSi('velocity', 3523, 'fpm') }) // 0.0556 m
 */
export const effectiveBoreM = ({ flowM3s, velocityMs }: { flowM3s: number; velocityMs: number }): number => {
  if (!(flowM3s > 0 && velocityMs > 0)) throw new RangeError('flow and velocity must be above 0');
  return Math.sqrt((4 * flowM3s) / (Math.PI * velocityMs));
};
