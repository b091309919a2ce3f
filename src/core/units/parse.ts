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

/** A number with its last digit's step, both in the unit that follows it. */
interface Written {
  readonly number: number;
  readonly step: number;
  readonly unitText: string;
}

/** Halves to sixty-fourths, as a rule or a set of drills is marked. */
const FRACTION = /^(?:(\d+)(?:\s+|-))?(\d+)\/(2|4|8|16|32|64)(?!\d)\s*(.*)$/;

const fraction = (text: string): Written | null => {
  const [, whole = '0', top = '', bottom = '', unitText = ''] = FRACTION.exec(text) ?? [];
  if (bottom === '' || !(Number(top) < Number(bottom))) return null;
  return { number: Number(whole) + Number(top) / Number(bottom), step: 1 / Number(bottom), unitText };
};

/** Feet and inches, pounds and ounces: how many of the small one make the large one. */
const PAIRS: Partial<Record<QuantityKind, readonly [large: RegExp, small: RegExp, each: number, unit: string]>> = {
  length: [/^(\d+)\s*(?:'|ft\.?|foot|feet)\s*-?\s*(.+)$/i, /^(?:"|in\.?|inch|inches)$/i, 12, 'in'],
  mass: [/^(\d+)\s*(?:lbs?\.?|pounds?)\s*(.+)$/i, /^(?:oz\.?|ounces?)$/i, 16, 'oz'],
};

const pair = (text: string, kind: QuantityKind): Written | null => {
  const [large, small, each = 0, unit = ''] = PAIRS[kind] ?? [];
  const [, many = '', rest = ''] = large?.exec(text) ?? [];
  if (!small || many === '') return null;
  const plain = /^(\d{1,2}(?:\.\d+)?)(?!\d)\s*(.*)$/.exec(rest);
  const below =
    fraction(rest) ??
    (plain ? { number: Number(plain[1]), step: lastDigitStep(plain[1] ?? ''), unitText: plain[2] ?? '' } : null);
  if (!below || !small.test(below.unitText) || !(below.number < each)) return null;
  return { number: Number(many) * each + below.number, step: below.step, unitText: unit };
};

/** A stopwatch or a clock: 1:30 is a minute and a half, in a field of hours an hour and a half; 1:30:00 always hours first. */
const CLOCK = /^(\d{1,3}):([0-5]\d)(?::([0-5]\d))?$/;

const clock = (text: string, defaultUnit: string | null): Written | null => {
  const [, first = '', second = '', third] = CLOCK.exec(text) ?? [];
  if (first === '') return null;
  const hours = third !== undefined || defaultUnit === 'h';
  const seconds = Number(first) * (hours ? 3600 : 60) + Number(second) * (hours ? 60 : 1) + Number(third ?? 0);
  return { number: seconds, step: hours && third === undefined ? 60 : 1, unitText: 's' };
};

const DIAMETER = /^(?:[Ø∅⌀]|dia\.?|diameter)\s*/i;
/** Thousands marked off with an apostrophe; feet are never followed by three figures. */
const APOSTROPHES = /^(\d{1,3})((?:'\d{3})+)(?!\d|\s*"|\s*in)/;

/** Reads numbers that are not plain decimals; null for a plain one. */
const special = (text: string, kind: QuantityKind, defaultUnit: string | null): Written | null =>
  (kind === 'duration' ? clock(text, defaultUnit) : null) ?? pair(text, kind) ?? fraction(text);

const lastDigitStep = (plain: string): number => {
  const [mantissa = '', exponent = '0'] = plain.toLowerCase().split('e');
  const decimals = mantissa.includes('.') ? mantissa.length - mantissa.indexOf('.') - 1 : 0;
  return 10 ** (Number(exponent) - decimals);
};

/**
 * Reads what a technician typed ("61 cfm", "29,5 L/s", "-92 inH2O") into SI. Keeps the sign: the field decides the
 * meaning of a minus. Also read: fractions (`1 1/2"`), feet and inches, pounds and ounces, 1:30, 23'000, a diameter
 * sign; an inch typed for a pressure is one of water. Valid: at most 40 characters, one number, one unit of the asked
 * quantity; a bare number takes `defaultUnit`. Returns a named failure for an empty text, no number, "1,234", an
 * unknown unit, a unit of another quantity, or pounds where a pressure is wanted.
 * @example parseQuantity('61 cfm', 'flow', 'L/s') // { valueSi: 0.02878879..., unit: 'cfm', ... }
 */
export const parseQuantity = (text: string, kind: QuantityKind, defaultUnit: string | null): Result<ParsedQuantity> => {
  const trimmed = text
    .trim()
    .replace(/[\u2212\u2013]/g, '-')
    .replace(/[\u00a0\u202f\u2009]/g, ' ')
    .replace(/[\u2032\u2019]/g, "'")
    .replace(/[\u2033\u201d\u201c]|''/g, '"');
  if (trimmed === '') return fail(failure('quantity.empty', '', { kind }));
  if (trimmed.length > MAX_LENGTH)
    return fail(failure('quantity.too-long', '', { length: trimmed.length, most: MAX_LENGTH }));
  const written = (kind === 'length' ? trimmed.replace(DIAMETER, '') : trimmed).replace(
    APOSTROPHES,
    (_, first: string, rest: string) => `${first}${rest.replace(/'/g, '')}`,
  );
  const minus = written.startsWith('-');
  const odd = special(written.replace(/^[+-]\s*/, ''), kind, defaultUnit);
  if (odd) return withUnit({ ...odd, number: minus ? -odd.number : odd.number, kind, defaultUnit });
  const match = NUMBER.exec(written);
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

const INCH_MARKS = /^("|in|inch|inches)$/;

const withUnit = ({ number, unitText, kind, defaultUnit, step }: NumberWithUnit): Result<ParsedQuantity> => {
  const typed = unitText === '' ? defaultUnit : unitText;
  // A manometer's inch is one of water: read so, and shown as inH2O.
  const wanted = kind === 'pressure' && typed !== null && INCH_MARKS.test(normaliseUnit(typed)) ? 'inH2O' : typed;
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
