import { MEAN_FREE_PATH } from '../constants/aerosol';

/**
 * Cunningham slip factor of a particle in air at sea level and 20 degC, from its diameter in um.
 * Source: Hinds, Aerosol Technology, eq. 3.20 form, Cc = 1 + (lambda/d)(2.34 + 1.05 exp(-0.39 d/lambda)).
 * Valid: above 0; throws RangeError otherwise. @example slipFactor(0.1) // 2.93
 */
export const slipFactor = (sizeUm: number): number => {
  if (!(sizeUm > 0)) throw new RangeError(`particle of ${sizeUm} um is not above 0`);
  const ratio = (sizeUm * 1e-6) / MEAN_FREE_PATH.value;
  return 1 + (2.34 + 1.05 * Math.exp(-0.39 * ratio)) / ratio;
};
