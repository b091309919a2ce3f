import type { AirInput, InstrumentInput, QuantityInput, QuantityOutput } from '@/contracts/calc/quantity';
import type { AirState } from '@/core/air/density';
import type { Accuracy } from '@/core/measure/accuracy';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import { METHODS, type Method } from '@/core/measure/methods';
import { signedReading } from '@/core/measure/reading-sign';
import { findUnit, quantityOfUnit, type QuantityKind, siUnit, toSi } from '@/core/units';

/** A quantity of the input in SI; a bare number already is. */
export const readQuantity = (input: QuantityInput, kind: QuantityKind, path: string): Result<number> => {
  if (typeof input === 'number') return ok(input);
  const unit = findUnit(kind, input.unit);
  if (unit) return ok(toSi(kind, input.value, unit.symbol));
  const other = quantityOfUnit(input.unit);
  return other
    ? fail(failure('quantity.wrong-unit', path, { unit: input.unit, is: other, wanted: kind }))
    : fail(failure('quantity.unknown-unit', path, { unit: input.unit, wanted: kind }));
};

interface Signed {
  readonly method: Method;
  /** The kind it is read as; left out, the method's own. */
  readonly kind?: QuantityKind;
  readonly path: string;
  readonly barometricPa: number;
}

/** A reading in SI with its sign settled as on the bench: suction may be typed with a minus, flow and velocity may not. */
export const readSigned = (
  input: QuantityInput,
  { method, kind = METHODS[method].reads, path, barometricPa }: Signed,
): Result<number> => {
  const read = readQuantity(input, kind, path);
  if (!read.ok) return read;
  const shown =
    typeof input === 'number' ? { number: input, unit: siUnit(kind) } : { number: input.value, unit: input.unit };
  return at(path, signedReading({ method, valueSi: read.value, shown, barometricPa }));
};

/** The state of the air in SI; calm standard air by default. */
export const readAir = (input: AirInput | undefined): Result<AirState> => {
  const air = input ?? { temperature: { value: 20, unit: 'degC' }, relativeHumidity: 0.5, pressure: 101_325 };
  const state = collect([
    readQuantity(air.temperature, 'temperature', 'air.temperature'),
    readQuantity(air.relativeHumidity, 'relativeHumidity', 'air.relativeHumidity'),
    readQuantity(air.pressure, 'pressure', 'air.pressure'),
  ]);
  if (!state.ok) return state;
  const [temperatureK = 0, relativeHumidity = 0, pressurePa = 0] = state.value;
  return ok({ temperatureK, relativeHumidity, pressurePa });
};

/** The maker's stated accuracy of a meter, in the SI unit it reads; null without one. */
export const readAccuracy = (input: InstrumentInput | undefined, reads: QuantityKind): Result<Accuracy | null> => {
  if (!input) return ok(null);
  const figures = collect([
    readQuantity(input.absolute, reads, 'instrument.absolute'),
    readQuantity(input.resolution, reads, 'instrument.resolution'),
  ]);
  if (!figures.ok) return figures;
  const [absoluteSi = 0, resolutionSi = 0] = figures.value;
  if (!(absoluteSi >= 0 && resolutionSi >= 0)) return fail(failure('instrument.negative', 'instrument'));
  const { meaning, coverageFactor, relative } = input;
  return ok({ meaning, coverageFactor, relative, absoluteSi, resolutionSi });
};

/** One step of the last digit that is given, in the unit's SI: what a display could resolve at the most. */
export const digitStep = (inputs: readonly QuantityInput[], kind: QuantityKind): number =>
  Math.min(
    ...inputs.map((input) => {
      const [value, unit] = typeof input === 'number' ? [input, siUnit(kind)] : [input.value, input.unit];
      const [mantissa = '', exponent = '0'] = String(value).split('e');
      const decimals = mantissa.includes('.') ? mantissa.length - mantissa.indexOf('.') - 1 : 0;
      return 10 ** (Number(exponent) - decimals) * (findUnit(kind, unit)?.factor ?? 1);
    }),
  );

export const inSi = (value: number, kind: QuantityKind): QuantityOutput => ({ value, unit: siUnit(kind) });

export const inSiOrNull = (value: number | null, kind: QuantityKind): QuantityOutput | null =>
  value === null ? null : inSi(value, kind);

/** All of several results, or every failure among them. */
export const collect = <T>(results: readonly Result<T>[]): Result<readonly T[]> => {
  const failures = results.flatMap((r) => (r.ok ? [] : r.failures));
  return failures.length > 0 ? fail(...failures) : ok(results.flatMap((r) => (r.ok ? [r.value] : [])));
};
