import psychrolib from 'psychrolib';
import { describe, expect, it } from 'vitest';
import { moistAirDensity } from '@/core/air/density';
import { looksReducedToSeaLevel, standardPressurePa } from '@/core/air/standard-atmosphere';
import { velocityFromPressureMs } from '@/core/air/velocity-pressure';
import { fromSi, toSi } from '@/core/units';

const density = (celsius: number, relativeHumidity: number, pressurePa: number): number => {
  const result = moistAirDensity({ temperatureK: celsius + 273.15, relativeHumidity, pressurePa });
  if (!result.ok) throw new Error('no density');
  return result.value;
};

describe('density of moist air', () => {
  it('20 degC, 50 %, 101 325 Pa gives 1.199 kg/m3 (CIPM-2007, value as in the trade handbook)', () => {
    expect(density(20, 0.5, 101_325)).toBeCloseTo(1.199, 3);
  });

  it.each([
    [20, 0.5, 101_325],
    [-10, 0.8, 101_325],
    [5, 0.9, 99_000],
    [35, 0.7, 101_325],
    [25, 0.3, 84_556],
    [45, 0.2, 95_000],
  ])(
    'agrees with psychrolib (ASHRAE Fundamentals 2017, ch. 1) at %d degC, %d, %d Pa within 0.1 %%',
    (celsius, humidity, pressure) => {
      psychrolib.SetUnitSystem(psychrolib.SI);
      const ratio = psychrolib.GetHumRatioFromRelHum(celsius, humidity, pressure);
      const theirs = psychrolib.GetMoistAirDensity(celsius, ratio, pressure);
      expect(Math.abs(density(celsius, humidity, pressure) / theirs - 1)).toBeLessThan(1e-3);
    },
  );

  it.each([
    [-40, 0.5, 101_325],
    [20, 1.2, 101_325],
    [20, 0.5, 10],
    [Number.NaN, 0.5, 101_325],
  ])('names a state outside its range: %d, %d, %d', (celsius, humidity, pressure) => {
    const result = moistAirDensity({
      temperatureK: celsius + 273.15,
      relativeHumidity: humidity,
      pressurePa: pressure,
    });
    expect(result.ok ? 'accepted' : result.failures[0]?.code).toBe('air.state');
  });
});

describe('standard atmosphere', () => {
  // ISO 2533 table values, Pa.
  it.each([
    [0, 101_325],
    [1000, 89_874.6],
    [1500, 84_556],
    [3000, 70_108.5],
  ])('%d m is %d Pa (ISO 2533)', (altitude, pascal) => {
    const result = standardPressurePa(altitude);
    expect(result.ok && Math.abs(result.value / pascal - 1)).toBeLessThan(1e-4);
  });

  it('asks about 1013 hPa at a high site, and not at sea level (common practice, no published source)', () => {
    expect(looksReducedToSeaLevel({ pressurePa: 101_300, altitudeM: 1200 })).toBe(true);
    expect(looksReducedToSeaLevel({ pressurePa: 87_700, altitudeM: 1200 })).toBe(false);
    expect(looksReducedToSeaLevel({ pressurePa: 101_300, altitudeM: 4 })).toBe(false);
  });
});

describe('velocity pressure', () => {
  it('V = 4005 sqrt(VP) (ACGIH Industrial Ventilation) at 0.075 lb/ft3 and a 60-70 degF inch', () => {
    // The warm-water inch, 248.84 Pa at 60 degF: NIST SP 811 B.8.
    const v = velocityFromPressureMs({ velocityPressurePa: 248.84, densityKgM3: toSi('density', 0.075, 'lb/ft3') });
    expect(fromSi('velocity', v, 'fpm')).toBeGreaterThan(4003);
    expect(fromSi('velocity', v, 'fpm')).toBeLessThan(4008);
  });

  it('is 4010.9 with 1.2 kg/m3 and the conventional inch', () => {
    const v = velocityFromPressureMs({ velocityPressurePa: toSi('pressure', 1, 'inH2O'), densityKgM3: 1.2 });
    expect(fromSi('velocity', v, 'fpm')).toBeCloseTo(4010.9, 1);
  });

  it('throws below zero', () => {
    expect(() => velocityFromPressureMs({ velocityPressurePa: -1, densityKgM3: 1.2 })).toThrow(RangeError);
  });
});
