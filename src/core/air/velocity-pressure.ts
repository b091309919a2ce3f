export interface VelocityPressure {
  readonly velocityPressurePa: number;
  readonly densityKgM3: number;
}

/**
 * Air velocity in m/s from velocity pressure in Pa and density in kg/m3.
 * Source: Bernoulli, p_v = rho v^2 / 2 (ACGIH Industrial Ventilation, chapter on principles).
 * Valid: velocity pressure 0 or more, density above 0; throws RangeError otherwise.
 * @example velocityFromPressureMs({ velocityPressurePa: 60, densityKgM3: 1.2 }) // 10 m/s
 */
export const velocityFromPressureMs = ({ velocityPressurePa, densityKgM3 }: VelocityPressure): number => {
  if (!(velocityPressurePa >= 0)) throw new RangeError(`velocity pressure ${velocityPressurePa} Pa is below 0`);
  if (!(densityKgM3 > 0)) throw new RangeError(`density ${densityKgM3} kg/m3 is not above 0`);
  return Math.sqrt((2 * velocityPressurePa) / densityKgM3);
};
