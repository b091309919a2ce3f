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
