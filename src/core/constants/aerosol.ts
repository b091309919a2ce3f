import type { Constant } from './constant';

export const MEAN_FREE_PATH: Constant = {
  value: 0.066e-6,
  unit: 'm',
  source: 'Hinds, Aerosol Technology, 2nd ed., ch. 2: air at sea level and 20 degC',
};

export const BOLTZMANN: Constant = { value: 1.380649e-23, unit: 'J/K', source: 'SI definition, 2019' };

export const ROOM_TEMPERATURE: Constant = { value: 293.15, unit: 'K', source: '20 degC, at which ratings are stated' };

/** Standard particles: unit density, as an aerodynamic diameter has it. */
export const PARTICLE_DENSITY: Constant = {
  value: 1000,
  unit: 'kg/m3',
  source: 'Definition of aerodynamic diameter (Hinds, ch. 3)',
};

/** Change of the exponent of a seasonable medium's penetration per e-fold of its resistance. */
export const SEASONING: Constant = {
  value: 0.5,
  unit: '1',
  source: 'Moorwind default, a modelling choice: a dust cake filters, and flows less',
};

export const SIZE_RANGE_UM: readonly [number, number] = [0.01, 10];
