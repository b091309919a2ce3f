import { ICAO, STANDARD_PRESSURE } from '../constants/air';
import { fail, failure, ok, type Result } from '../failure/failure';

/**
 * Barometric pressure in Pa at a geopotential altitude in m.
 * Source: ICAO Standard Atmosphere (ISO 2533), troposphere. Valid: -500 to 5000 m; returns `air.state` outside.
 * @example standardPressurePa(1500) // 84556 Pa
 */
export const standardPressurePa = (altitudeM: number): Result<number> => {
  if (!(altitudeM >= -500 && altitudeM <= 5000)) return fail(failure('air.state', 'altitude', { altitudeM }));
  const { seaLevelTemperature: t0, lapseRate: l, gravity: g, gasConstant: r } = ICAO;
  const ratio = 1 - (l.value * altitudeM) / t0.value;
  return ok(STANDARD_PRESSURE.value * ratio ** (g.value / (r.value * l.value)));
};

/** From this altitude on, a pressure this near the sea-level standard and this far above the site's own is a reduced one. Weather moves a site's pressure by less. */
const REDUCED = { fromM: 300, nearSeaLevelPa: 3000, abovePa: 2500 } as const;

/**
 * True when a typed barometric pressure looks like a weather report reduced to sea level at a high site.
 * Source: common practice, no published source. Pressures in Pa, altitude in m.
 */
export const looksReducedToSeaLevel = ({
  pressurePa,
  altitudeM,
}: {
  pressurePa: number;
  altitudeM: number;
}): boolean => {
  const expected = standardPressurePa(altitudeM);
  return (
    expected.ok &&
    altitudeM >= REDUCED.fromM &&
    Math.abs(pressurePa - STANDARD_PRESSURE.value) < REDUCED.nearSeaLevelPa &&
    pressurePa - expected.value > REDUCED.abovePa
  );
};
