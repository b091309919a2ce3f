import { BOLTZMANN, PARTICLE_DENSITY, ROOM_TEMPERATURE } from '../constants/aerosol';
import { REFERENCE_VISCOSITY } from '../constants/path';
import { slipFactor } from './slip';

/** A bed of equal fibres across the air. */
export interface FibreBed {
  readonly fibreUm: number;
  /** Solid fraction, 0 to 0.3. */
  readonly solidity: number;
  readonly thicknessM: number;
}

export interface FibreEfficiency {
  readonly diffusion: number;
  readonly interception: number;
  readonly coupling: number;
  readonly inertia: number;
  /** All of them together, 0 to 1. */
  readonly total: number;
}

const cap = (e: number): number => Math.min(1, Math.max(0, e));

/** Kuwabara's hydrodynamic factor of a solidity. Source: Hinds, eq. 9.22. Valid: 0 < solidity <= 0.3. */
export const kuwabara = (solidity: number): number => -Math.log(solidity) / 2 - 0.75 + solidity - solidity ** 2 / 4;

const inertiaJ = (solidity: number, r: number): number =>
  r < 0.4 ? (29.6 - 28 * solidity ** 0.62) * r ** 2 - 27.5 * r ** 2.8 : 2;

/**
 * Single-fibre efficiency by mechanism: particle size in um, face velocity in m/s. Source: Hinds, Aerosol Technology,
 * 2nd ed., 9.3: eq. 9.21, 9.24, 9.27, 9.28 as the handbook writes them; the total is 1 - product(1 - E). Valid: size
 * 0.01 to 10 um, velocity above 0, solidity 0 to 0.3; throws RangeError otherwise.
 */
export const fibreEfficiency = (
  { fibreUm, solidity }: Pick<FibreBed, 'fibreUm' | 'solidity'>,
  { sizeUm, faceMs }: { readonly sizeUm: number; readonly faceMs: number },
): FibreEfficiency => {
  if (!(sizeUm > 0 && faceMs > 0 && fibreUm > 0))
    throw new RangeError(`particle ${sizeUm} um at ${faceMs} m/s on a fibre of ${fibreUm} um`);
  if (!(solidity > 0 && solidity <= 0.6)) throw new RangeError(`solidity ${solidity} is not 0 to 0.6`);
  const [d, df, eta] = [sizeUm * 1e-6, fibreUm * 1e-6, REFERENCE_VISCOSITY.value];
  const slip = slipFactor(sizeUm);
  const ku = kuwabara(solidity);
  const diffusivity = (BOLTZMANN.value * ROOM_TEMPERATURE.value * slip) / (3 * Math.PI * eta * d);
  const peclet = (df * faceMs) / diffusivity;
  const r = d / df;
  const stokes = (PARTICLE_DENSITY.value * d ** 2 * slip * faceMs) / (18 * eta * df);
  const diffusion = cap(2 * peclet ** (-2 / 3));
  const interception = cap(((1 - solidity) * r ** 2) / (ku * (1 + r)));
  const coupling = cap((1.24 * r ** (2 / 3)) / Math.sqrt(ku * peclet));
  const inertia = cap((stokes * Math.max(0, inertiaJ(solidity, r))) / (2 * ku ** 2));
  const total = 1 - (1 - diffusion) * (1 - interception) * (1 - coupling) * (1 - inertia);
  return { diffusion, interception, coupling, inertia, total };
};

/** Exponent of a bed's penetration: P = exp(-exponent). Source: Hinds, eq. 9.19. Valid and errors: as `fibreEfficiency`. */
export const bedExponent = (bed: FibreBed, at: { readonly sizeUm: number; readonly faceMs: number }): number =>
  (4 * bed.solidity * fibreEfficiency(bed, at).total * bed.thicknessM) / (Math.PI * bed.fibreUm * 1e-6);

/**
 * Pressure drop of a clean fibre bed, Pa, at a face velocity in m/s.
 * Source: Davies 1953; Hinds, eq. 9.36: dp = eta t U 64 alpha^1.5 (1 + 56 alpha^3) / d_f^2.
 * Valid: solidity 0.006 to 0.3. @example 2 um fibres, 5 %, 1 mm, 0.1 m/s // 326 Pa
 */
export const daviesDropPa = ({ fibreUm, solidity, thicknessM }: FibreBed, faceMs: number): number =>
  (REFERENCE_VISCOSITY.value * thicknessM * faceMs * 64 * solidity ** 1.5 * (1 + 56 * solidity ** 3)) /
  (fibreUm * 1e-6) ** 2;
