import { fail, failure, ok, type Result } from '../failure/failure';
import { toSi } from './convert';
import { findUnit, normaliseUnit, quantityOfUnit, type QuantityKind } from './kinds';

export interface ParsedQuantity {
  readonly valueSi: number;
  /** The number as typed, in `unit`. */
  readonly number: number;
  /** The unit's symbol; becomes the field's default for the next entry. */
  readonly unit: string;
  /** One step of the last digit typed, in SI: what the display could resolve. */
  readonly resolutionSi: number;
}

const MAX_LENGTH = 40;
const NUMBER = /^([+-]?)\s*((?:\d+(?: \d{3}(?!\d))*(?:[.,]\d+)*[.,]?|[.,]\d+)(?:e[+-]?\d+)?)\s*(.*)$/i;

/** The plain decimal text of a number written in the European or the US way, or 'ambiguous' for "1,234". */
const plainDecimal = (text: string): string => {
  const compact = text.replace(/\s/g, '');
  const comma = compact.lastIndexOf(',');
  const dot = compact.lastIndexOf('.');
  if (comma < 0) return compact;
  if (dot >= 0) {
    const grouped = comma > dot ? /^\d{1,3}(\.\d{3})*,\d+$/ : /^\d{1,3}(,\d{3})*\.\d+$/;
    if (!grouped.test(compact)) return 'NaN';
    return comma > dot ? compact.replace(/\./g, '').replace(',', '.') : compact.replace(/,/g, '');
  }
  if (/^\d{1,3}(,\d{3}){2,}$/.test(compact)) return compact.replace(/,/g, '');
  if (/^[1-9]\d{0,2},\d{3}$/.test(compact)) return 'ambiguous';
  return compact.replace(',', '.');
};

const lastDigitStep = (plain: string): number => {
  const [mantissa = '', exponent = '0'] = plain.toLowerCase().split('e');
  const decimals = mantissa.includes('.') ? mantissa.length - mantissa.indexOf('.') - 1 : 0;
  return 10 ** (Number(exponent) - decimals);
};

/**
 * Reads what a technician typed ("61 cfm", "29,5 L/s", "-92 inH2O") into SI. Sign is kept: what a minus means
 * is the field's business.
 * Valid: at most 40 characters, one number, one unit of the asked quantity; a bare number takes `defaultUnit`.
 * Returns a named failure for an empty text, no number, "1,234", an unknown unit, a unit of another quantity,
 * or pounds where a pressure is wanted.
 * @example parseQuantity('61 cfm', 'flow', 'L/s') // { valueSi: 0.02878879..., unit: 'cfm', ... }
 */
export const parseQuantity = (text: string, kind: QuantityKind, defaultUnit: string | null): Result<ParsedQuantity> => {
  const trimmed = text
    .trim()
    .replace(/[\u2212\u2013]/g, '-')
    .replace(/\u00a0/g, ' ');
  if (trimmed === '') return fail(failure('quantity.empty', '', { kind }));
  if (trimmed.length > MAX_LENGTH)
    return fail(failure('quantity.too-long', '', { length: trimmed.length, most: MAX_LENGTH }));
  const match = NUMBER.exec(trimmed);
  if (!match) return fail(failure('quantity.not-a-number', '', { typed: trimmed }));
  const [, sign = '', digits = '', unitText = ''] = match;
  const plain = plainDecimal(digits);
  if (plain === 'ambiguous') return fail(failure('quantity.ambiguous-comma', '', { typed: digits.trim() }));
  const number = Number(`${sign}${plain}`);
  if (!(Math.abs(number) < 1e12)) return fail(failure('quantity.not-a-number', '', { typed: trimmed }));
  return withUnit({ number, unitText, kind, defaultUnit, step: lastDigitStep(plain) });
};

interface NumberWithUnit {
  readonly number: number;
  readonly unitText: string;
  readonly kind: QuantityKind;
  readonly defaultUnit: string | null;
  readonly step: number;
}

const withUnit = ({ number, unitText, kind, defaultUnit, step }: NumberWithUnit): Result<ParsedQuantity> => {
  const wanted = unitText === '' ? defaultUnit : unitText;
  if (wanted === null) return fail(failure('quantity.unit-missing', '', { kind }));
  const unit = findUnit(kind, wanted);
  if (unit) {
    const valueSi = toSi(kind, number, unit.symbol);
    return ok({ valueSi, number, unit: unit.symbol, resolutionSi: step * unit.factor });
  }
  if (kind === 'pressure' && /^(lbs?|pounds?|#)$/.test(normaliseUnit(wanted))) {
    return fail(failure('quantity.pounds', '', { number }));
  }
  const other = quantityOfUnit(wanted);
  return other
    ? fail(failure('quantity.wrong-unit', '', { unit: wanted, is: other, wanted: kind }))
    : fail(failure('quantity.unknown-unit', '', { unit: wanted.slice(0, 20), wanted: kind }));
};
