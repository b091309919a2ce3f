import type { QuantityInput, QuantityOutput } from '@/contracts/calc/quantity';
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
  /** What it is read as, where that is not the method's own. */
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

export const inSi = (value: number, kind: QuantityKind): QuantityOutput => ({ value, unit: siUnit(kind) });

export const inSiOrNull = (value: number | null, kind: QuantityKind): QuantityOutput | null =>
  value === null ? null : inSi(value, kind);

/** All of several results, or every failure among them. */
export const collect = <T>(results: readonly Result<T>[]): Result<readonly T[]> => {
  const failures = results.flatMap((r) => (r.ok ? [] : r.failures));
  return failures.length > 0 ? fail(...failures) : ok(results.flatMap((r) => (r.ok ? [r.value] : [])));
};
