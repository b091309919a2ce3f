import { fromSi } from './convert';
import type { QuantityKind } from './kinds';

export const UNIT_SYSTEMS = ['metric', 'us'] as const;
export type UnitSystem = (typeof UNIT_SYSTEMS)[number];

interface Shown {
  readonly unit: string;
  readonly decimals: number;
}

const SAME_EVERYWHERE = {
  voltage: { unit: 'V', decimals: 0 },
  current: { unit: 'A', decimals: 1 },
  rotation: { unit: 'rpm', decimals: 0 },
  duration: { unit: 's', decimals: 0 },
  count: { unit: 'counts', decimals: 0 },
} as const;

/** Which unit a quantity is shown in, and to how many decimals a technician can use it. */
export const SHOWN: Record<UnitSystem, Record<QuantityKind, Shown>> = {
  metric: {
    pressure: { unit: 'kPa', decimals: 2 },
    flow: { unit: 'L/s', decimals: 1 },
    velocity: { unit: 'm/s', decimals: 1 },
    length: { unit: 'mm', decimals: 0 },
    area: { unit: 'm2', decimals: 4 },
    mass: { unit: 'g', decimals: 0 },
    temperature: { unit: 'degC', decimals: 1 },
    temperatureDifference: { unit: 'K', decimals: 1 },
    power: { unit: 'W', decimals: 0 },
    volume: { unit: 'L', decimals: 1 },
    concentration: { unit: 'mg/m3', decimals: 3 },
    countConcentration: { unit: '1/L', decimals: 1 },
    relativeHumidity: { unit: '%', decimals: 0 },
    density: { unit: 'kg/m3', decimals: 3 },
    ...SAME_EVERYWHERE,
  },
  us: {
    pressure: { unit: 'inH2O', decimals: 1 },
    flow: { unit: 'cfm', decimals: 1 },
    velocity: { unit: 'fpm', decimals: 0 },
    length: { unit: 'in', decimals: 2 },
    area: { unit: 'ft2', decimals: 4 },
    mass: { unit: 'oz', decimals: 1 },
    temperature: { unit: 'degF', decimals: 0 },
    temperatureDifference: { unit: 'degF', decimals: 1 },
    power: { unit: 'hp', decimals: 2 },
    volume: { unit: 'gal', decimals: 2 },
    concentration: { unit: 'mg/m3', decimals: 3 },
    countConcentration: { unit: '1/ft3', decimals: 0 },
    relativeHumidity: { unit: '%', decimals: 0 },
    density: { unit: 'lb/ft3', decimals: 4 },
    ...SAME_EVERYWHERE,
  },
};

const PRETTY: Readonly<Record<string, string>> = {
  'm3/s': 'm³/s',
  'm3/h': 'm³/h',
  m2: 'm²',
  ft2: 'ft²',
  degC: '°C',
  degF: '°F',
  inH2O: 'inH₂O',
  mmH2O: 'mmH₂O',
  cmH2O: 'cmH₂O',
  'kg/m3': 'kg/m³',
  'lb/ft3': 'lb/ft³',
  'mg/m3': 'mg/m³',
};

/** The printed form of a unit. */
export const prettyUnit = (symbol: string): string => PRETTY[symbol] ?? symbol;

export interface ShownQuantity {
  readonly number: string;
  readonly unit: string;
}

/** An SI value as a number and a unit for the chosen system; never "-0". */
export const showParts = (kind: QuantityKind, valueSi: number, system: UnitSystem): ShownQuantity => {
  const { unit, decimals } = SHOWN[system][kind];
  const text = fromSi(kind, valueSi, unit).toFixed(decimals);
  return { number: /^-0(\.0*)?$/.test(text) ? text.slice(1) : text, unit: prettyUnit(unit) };
};

export const show = (kind: QuantityKind, valueSi: number, system: UnitSystem): string => {
  const { number, unit } = showParts(kind, valueSi, system);
  return `${number} ${unit}`;
};

/** An SI value with four significant digits, for a working where the display's decimals would round it away. */
export const showFine = (kind: QuantityKind, valueSi: number, system: UnitSystem): string => {
  const { unit } = SHOWN[system][kind];
  return `${Number(fromSi(kind, valueSi, unit).toPrecision(4))} ${prettyUnit(unit)}`;
};

/** Half an interval with two significant digits, as an uncertainty is written (GUM 7.2.6). */
export const showTwo = (kind: QuantityKind, valueSi: number, system: UnitSystem): string => {
  const { unit } = SHOWN[system][kind];
  return `${Number(fromSi(kind, valueSi, unit).toPrecision(2))} ${prettyUnit(unit)}`;
};

/** A share as whole per cent, one decimal under ten. */
export const showPercent = (fraction: number): string => {
  const percent = Math.abs(fraction * 100);
  return `${percent.toFixed(percent < 10 ? 1 : 0)} %`;
};
