import { LEAK_COEFFICIENT } from '../../constants/path';

/** Below this pressure, Pa, a leak is taken as linear: its root has no slope at zero. */
export const LEAK_LINEAR_PA = 1e-6;

/** Flow of a leak over the root of its pressure, m3/s per sqrt Pa, from area in m2 and density in kg/m3. Source: Q = C_d A sqrt(2 dp/rho). Valid: area 0 or more. */
export const leakConductance = ({ areaM2, densityKgM3 }: { areaM2: number; densityKgM3: number }): number =>
  LEAK_COEFFICIENT.value * areaM2 * Math.sqrt(2 / densityKgM3);

/**
 * Air drawn in through a leak, m3/s; negative when it blows out. Gauge pressure inside in Pa, area in m2.
 * Source: Q = C_d A sqrt(2 |dp| / rho), C_d 0.61. Valid: area 0 or more, density above 0; throws RangeError otherwise.
 */
export const leakInflowM3s = ({
  areaM2,
  insidePa,
  densityKgM3,
}: {
  areaM2: number;
  insidePa: number;
  densityKgM3: number;
}): number => {
  if (!(areaM2 >= 0 && densityKgM3 > 0)) throw new RangeError(`leak of ${areaM2} m2 in air of ${densityKgM3} kg/m3`);
  return -Math.sign(insidePa) * leakConductance({ areaM2, densityKgM3 }) * Math.sqrt(Math.abs(insidePa));
};

/** Area in m2 of a perforated wall: round holes of one size, as in a chafed hose or a punctured bag. Throws RangeError for a negative count or size. Definition: geometry. Valid: 0 holes or more, m. */
export const perforatedAreaM2 = ({ holes, holeM }: { holes: number; holeM: number }): number => {
  if (!(holes >= 0 && holeM >= 0)) throw new RangeError(`${holes} holes of ${holeM} m`);
  return (holes * Math.PI * holeM ** 2) / 4;
};
