import type { Constant } from './constant';

export const STANDARD_DENSITY: Constant = {
  value: 1.2,
  unit: 'kg/m3',
  source: 'Standard air in Moorwind; ASHRAE and ACGIH print 0.075 lb/ft3, which is 1.2014 kg/m3',
};

export const STANDARD_PRESSURE: Constant = {
  value: 101_325,
  unit: 'Pa',
  source: 'ICAO Standard Atmosphere, ISO 2533, sea level',
};

export const MOLAR_GAS: Constant = { value: 8.314472, unit: 'J/(mol K)', source: 'CIPM-2007, table 1 (CODATA 2006)' };

export const MOLAR_MASS_DRY_AIR: Constant = {
  value: 0.02896546,
  unit: 'kg/mol',
  source: 'CIPM-2007, eq. 4 at 400 umol/mol CO2',
};

export const MOLAR_MASS_WATER: Constant = { value: 0.01801528, unit: 'kg/mol', source: 'CIPM-2007, section 1.2' };

export const ZERO_CELSIUS: Constant = { value: 273.15, unit: 'K', source: 'SI definition of the degree Celsius' };

export const ICAO = {
  seaLevelTemperature: { value: 288.15, unit: 'K', source: 'ISO 2533' },
  lapseRate: { value: 0.0065, unit: 'K/m', source: 'ISO 2533, troposphere' },
  gravity: { value: 9.80665, unit: 'm/s2', source: 'ISO 2533' },
  gasConstant: { value: 287.05287, unit: 'J/(kg K)', source: 'ISO 2533' },
} as const satisfies Record<string, Constant>;
