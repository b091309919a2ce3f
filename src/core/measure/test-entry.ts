import { type AirState } from '../air/density';
import { looksReducedToSeaLevel, standardPressurePa } from '../air/standard-atmosphere';
import { at, fail, failure, type Failure, ok, type Result } from '../failure/failure';
import type { Place } from './place';
import type { Reading, ReadingHow } from './reading';
import { parseQuantity, type QuantityKind } from '../units';
import type { Accuracy } from './accuracy';
import { type DetailEntry, DETAILS_OF, parseDetail } from './detail-entry';
import { METHODS, type Method, type Precondition } from './methods';
import { signedReading } from './reading-sign';
import type { TestReadings } from './test-readings';
import type { Typed } from './typed';

export interface AirEntry {
  readonly temperature: Typed;
  readonly humidity: Typed;
  /** Station pressure; null takes the standard atmosphere at the site's altitude. */
  readonly pressure: Typed | null;
}

/** One reading as typed, or as the meter held it; `slot` is its point of a traverse or curve, or its count. */
export interface ReadingEntry extends Typed {
  readonly slot: number;
  readonly how: ReadingHow;
  readonly struckBecause: string | null;
}

/** A test as typed on the bench, before anything is believed. */
export interface TestEntry {
  readonly method: Method;
  readonly place: Place;
  readonly readings: readonly ReadingEntry[];
  readonly bore: Typed | null;
  readonly profileFactor: number | null;
  readonly hoseBore: Typed | null;
  readonly air: AirEntry;
  readonly detail: DetailEntry;
  readonly volts: Typed | null;
  readonly rigSeries: number;
  readonly failedPreconditions: readonly Precondition[];
}

export interface EntryContext {
  readonly altitudeM: number;
  readonly instrument: { readonly id: number; readonly reads: QuantityKind; readonly accuracy: Accuracy } | null;
}

export interface ParsedTest {
  readonly readings: readonly Reading[];
  readonly test: TestReadings;
}

/** Five traverses of three diameters at ten points, and some struck out. */
const MAX_READINGS = 200;
const BORE_RANGE_M = [0.005, 1] as const;

const parseAir = (entry: AirEntry, altitudeM: number): Result<AirState> => {
  const temperature = at(
    'air.temperature',
    parseQuantity(entry.temperature.typed, 'temperature', entry.temperature.unit),
  );
  if (!temperature.ok) return temperature;
  const humidity = at('air.humidity', parseQuantity(entry.humidity.typed, 'relativeHumidity', entry.humidity.unit));
  if (!humidity.ok) return humidity;
  const pressure = entry.pressure
    ? at('air.pressure', parseQuantity(entry.pressure.typed, 'pressure', entry.pressure.unit))
    : standardPressurePa(altitudeM);
  if (!pressure.ok) return pressure;
  const pressurePa = typeof pressure.value === 'number' ? pressure.value : pressure.value.valueSi;
  if (entry.pressure && looksReducedToSeaLevel({ pressurePa, altitudeM })) {
    return fail(failure('air.sea-level-pressure', 'air.pressure', { pressurePa, altitudeM }));
  }
  return ok({ temperatureK: temperature.value.valueSi, relativeHumidity: humidity.value.valueSi, pressurePa });
};

/** One typed reading of a method in SI, its sign settled. Barometric pressure in Pa bounds a suction. Source: as `signedReading`. */
export const parseReading = (
  entry: TestEntry['readings'][number],
  { method, barometricPa }: { method: Method; barometricPa: number },
): Result<Reading> => {
  const parsed = parseQuantity(entry.typed, METHODS[method].reads, entry.unit);
  if (!parsed.ok) return parsed;
  const { valueSi, number, unit } = parsed.value;
  const value = signedReading({ method, valueSi, shown: { number, unit }, barometricPa });
  if (!value.ok) return value;
  return ok({
    typed: entry.typed.trim(),
    unit: parsed.value.unit,
    valueSi: value.value,
    resolutionSi: parsed.value.resolutionSi,
    slot: entry.slot,
    how: entry.how,
    struckBecause: entry.struckBecause,
  });
};

const parseBore = (entry: Typed | null, path: string): Result<number | null> => {
  if (!entry) return ok(null);
  const parsed = at(path, parseQuantity(entry.typed, 'length', entry.unit));
  if (!parsed.ok) return parsed;
  const { valueSi } = parsed.value;
  const [low, high] = BORE_RANGE_M;
  return valueSi >= low && valueSi <= high
    ? ok(valueSi)
    : fail(failure('quantity.out-of-range', path, { kind: 'length', value: valueSi, low, high }));
};

const parseReadings = (entry: TestEntry, barometricPa: number): Result<readonly Reading[]> => {
  if (METHODS[entry.method].form === 'word') return ok([]);
  if (entry.readings.length === 0) return fail(failure('readings.none', 'readings'));
  if (entry.readings.length > MAX_READINGS) {
    return fail(failure('readings.too-many', 'readings', { count: entry.readings.length, most: MAX_READINGS }));
  }
  const results = entry.readings.map((r, i) =>
    at(`readings.${i}`, parseReading(r, { method: entry.method, barometricPa })),
  );
  const failures = results.flatMap((r) => (r.ok ? [] : r.failures));
  if (failures.length > 0) return fail(...failures);
  const readings = results.flatMap((r) => (r.ok ? [r.value] : []));
  return readings.every((r) => r.struckBecause !== null)
    ? fail(failure('readings.all-struck', 'readings'))
    : ok(readings);
};

/** The display's step: the instrument's own where it is known, else the finest digit typed. */
const resolutionOf = (readings: readonly Reading[], context: EntryContext): number =>
  context.instrument?.accuracy.resolutionSi ??
  (readings.length > 0 ? Math.min(...readings.map((r) => r.resolutionSi)) : 0);

/** Valid range of a supply, V, single phase to three: a value outside is a typing error. */
const SUPPLY_VOLTS = { low: 50, high: 600 } as const;

const parseVolts = (entry: Typed | null): Result<number | null> => {
  if (!entry) return ok(null);
  const parsed = at('volts', parseQuantity(entry.typed, 'voltage', entry.unit));
  if (!parsed.ok) return parsed;
  const { valueSi } = parsed.value;
  return valueSi >= SUPPLY_VOLTS.low && valueSi <= SUPPLY_VOLTS.high
    ? ok(valueSi)
    : fail(failure('quantity.out-of-range', 'volts', { kind: 'voltage', value: valueSi, ...SUPPLY_VOLTS }));
};

const detailOf = (entry: TestEntry) =>
  DETAILS_OF[entry.method].includes(entry.detail.kind)
    ? parseDetail(entry.detail)
    : fail(failure('field.invalid', 'detail'));

/**
 * Reads a whole test entry into SI, or says everything that is wrong with it, each beside its field. The bench and
 * the server call this same function, so that what the screen accepts the record accepts. Source: as each part names it.
 */
export const parseTestEntry = (entry: TestEntry, context: EntryContext): Result<ParsedTest> => {
  const air = parseAir(entry.air, context.altitudeM);
  if (!air.ok) return air;
  const method = METHODS[entry.method];
  const readings = parseReadings(entry, air.value.pressurePa);
  const needsBore = method.needs.includes('bore');
  const bore = parseBore(needsBore ? entry.bore : null, 'bore');
  const detail = detailOf(entry);
  const volts = parseVolts(entry.volts);
  const hose = parseBore(entry.hoseBore, 'hoseBore');
  const failures: Failure[] = [readings, bore, hose, detail, volts].flatMap((r) => (r.ok ? [] : [...r.failures]));
  if (context.instrument && context.instrument.reads !== method.reads) {
    failures.push(
      failure('instrument.wrong-quantity', 'instrumentId', { reads: context.instrument.reads, wanted: method.reads }),
    );
  }
  if (needsBore && entry.bore === null) failures.push(failure('bore.missing', 'bore'));
  if (!readings.ok || !bore.ok || !hose.ok || !detail.ok || !volts.ok || failures.length > 0) return fail(...failures);
  const live = readings.value.filter((r) => r.struckBecause === null);
  return ok({
    readings: readings.value,
    test: {
      method: entry.method,
      place: entry.place,
      readingsSi: live.map((r) => r.valueSi),
      slots: live.map((r) => r.slot),
      resolutionSi: resolutionOf(live, context),
      boreM: bore.value,
      profileFactor: needsBore ? entry.profileFactor : null,
      detail: detail.value,
      rigSeries: entry.rigSeries,
      volts: volts.value,
      maxHold: live.some((r) => r.how === 'max'),
      instrumentId: context.instrument?.id ?? null,
      accuracy: context.instrument?.accuracy ?? null,
      air: air.value,
      hoseBoreM: hose.value,
      failedPreconditions: entry.failedPreconditions,
    },
  });
};

const WHEEL_RANGE_M = [0.02, 1] as const;

/** A grinder's wheel as typed, m. Valid: 20 mm to 1 m. Source: the range is Moorwind's own. */
export const parseWheel = (entry: Typed): Result<number> => {
  const parsed = at('wheel', parseQuantity(entry.typed, 'length', entry.unit));
  if (!parsed.ok) return parsed;
  const { valueSi } = parsed.value;
  const [low, high] = WHEEL_RANGE_M;
  return valueSi >= low && valueSi <= high
    ? ok(valueSi)
    : fail(failure('quantity.out-of-range', 'wheel', { kind: 'length', value: valueSi, low, high }));
};
