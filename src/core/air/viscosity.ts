/**
 * Dynamic viscosity of air, Pa s, from temperature in K.
 * Source: Sutherland's law, 1.716e-5 Pa s at 273.15 K and 110.4 K (White, Viscous Fluid Flow, table 1-2).
 * Valid: 170 to 1900 K; throws RangeError outside. @example airViscosityPaS(293.15) // 1.813e-5
 */
export const airViscosityPaS = (temperatureK: number): number => {
  if (!(temperatureK >= 170 && temperatureK <= 1900))
    throw new RangeError(`temperature ${temperatureK} K is not 170 to 1900`);
  return (1.716e-5 * (temperatureK / 273.15) ** 1.5 * (273.15 + 110.4)) / (temperatureK + 110.4);
};
