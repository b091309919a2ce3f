import { findUnit, type QuantityKind } from './kinds';

const known = (kind: QuantityKind, symbol: string) => {
  const unit = findUnit(kind, symbol);
  if (!unit) throw new RangeError(`no unit "${symbol}" for ${kind}`);
  return unit;
};

/**
 * Converts a number in a named unit to SI.
 * Source: NIST SP 811 (2008) Appendix B. Valid: any finite number. Throws RangeError for a unit the quantity lacks.
 * @example toSi('flow', 92, 'cfm') // 0.0434192 m3/s
 */
export const toSi = (kind: QuantityKind, value: number, symbol: string): number => {
  const unit = known(kind, symbol);
  return value * unit.factor + (unit.offset ?? 0);
};

/**
 * Converts an SI value to a number in a named unit; the inverse of `toSi`. Source: as `toSi`.
 * Valid: as `toSi`.
 * @example fromSi('pressure', 22916.18, 'inH2O') // 92.0
 */
export const fromSi = (kind: QuantityKind, valueSi: number, symbol: string): number => {
  const unit = known(kind, symbol);
  return (valueSi - (unit.offset ?? 0)) / unit.factor;
};
