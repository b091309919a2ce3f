import { MOLAR_GAS, MOLAR_MASS_DRY_AIR, MOLAR_MASS_WATER, ZERO_CELSIUS } from '../constants/air';
import { fail, failure, ok, type Result } from '../failure/failure';

export interface AirState {
  readonly temperatureK: number;
  /** 0 to 1. */
  readonly relativeHumidity: number;
  /** Station pressure, absolute. */
  readonly pressurePa: number;
}

/**
 * Saturation vapour pressure over water, Pa, from temperature in K.
 * Source: CIPM-2007, appendix A1.1. Valid: -30 to 60 degC (the equation is stated for 15 to 27 degC and stays
 * within 0.3 % of the IAPWS values in this range).
 */
export const saturationPressurePa = (temperatureK: number): number =>
  Math.exp(1.2378847e-5 * temperatureK ** 2 - 1.9121316e-2 * temperatureK + 33.93711047 - 6.3431645e3 / temperatureK);

/**
 * Density of moist air, kg/m3.
 * Source: CIPM-2007 eq. 1 with compressibility and enhancement factor taken as 1 (ideal gas), which costs under
 * 0.05 % from 10 to 30 degC and 0.12 % at -30 degC.
 * Valid: -30 to 60 degC, 0 to 1 relative humidity, 50 to 110 kPa. Returns `air.state` outside.
 * @example moistAirDensity({ temperatureK: 293.15, relativeHumidity: 0.5, pressurePa: 101325 }) // 1.199
 */
export const moistAirDensity = ({ temperatureK, relativeHumidity, pressurePa }: AirState): Result<number> => {
  const celsius = temperatureK - ZERO_CELSIUS.value;
  if (!(celsius >= -30 && celsius <= 60)) return fail(failure('air.state', 'temperature', { celsius }));
  if (!(relativeHumidity >= 0 && relativeHumidity <= 1))
    return fail(failure('air.state', 'humidity', { relativeHumidity }));
  if (!(pressurePa >= 50_000 && pressurePa <= 110_000)) return fail(failure('air.state', 'pressure', { pressurePa }));
  const vapourPa = relativeHumidity * saturationPressurePa(temperatureK);
  const moleFraction = vapourPa / pressurePa;
  const dry = (pressurePa * MOLAR_MASS_DRY_AIR.value) / (MOLAR_GAS.value * temperatureK);
  return ok(dry * (1 - moleFraction * (1 - MOLAR_MASS_WATER.value / MOLAR_MASS_DRY_AIR.value)));
};
