import { addDays, type CalendarDate, isCalendarDate } from '../calendar/calendar-date';
import { fail, failure, type Failure, ok, type Result } from '../failure/failure';
import { parseQuantity } from '../units';
import { type Cell, type SheetField, type SheetKind, SHEETS } from './fields';

/** In which order a sheet writes a day; year first is always understood. */
export const DATE_ORDERS = ['dayFirst', 'monthFirst'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

/**
 * The value of a read cell: text, a day or a choice, a number (SI for a quantity), yes or no, or the readings as typed.
 */
export type CellValue = string | number | boolean | readonly string[];

/** Days of a spreadsheet are counted from here, its own mistake about 1900 allowed for. Source: ECMA-376, 18.17.4.1 (1900 date base). */
const SERIAL_ZERO = '1899-12-30';
const SERIALS = { from: 20_000, to: 55_000 };
const YES = ['yes', 'y', 'true', '1', 'x', 'ja', 'oui'];
const NO = ['no', 'n', 'false', '0', '', '-', 'nein', 'non'];

const two = (n: string): string => n.padStart(2, '0');

/**
 * A day as spreadsheets write it: 2026-03-02, 2.3.2026, 3/2/26, 2 Mar 2026, or the number of a day. Two figures of a year
 * are of this century. Which of two small numbers is the month, `order` says.
 */
export const readDay = (cell: string, order: DateOrder): Result<CalendarDate> => {
  const typed = cell.trim().replace(/[T ]\d{1,2}:\d{2}(:\d{2}(\.\d+)?)?Z?$/, '');
  const wrong = fail(failure('sheet.day', '', { typed: typed.slice(0, 40) }));
  const day = (y: string, m: string, d: string): Result<CalendarDate> => {
    const iso = `${y.length === 2 ? `20${y}` : y}-${two(m)}-${two(d)}`;
    return isCalendarDate(iso) ? ok(iso) : wrong;
  };
  if (/^\d{5}$/.test(typed)) {
    const n = Number(typed);
    return n >= SERIALS.from && n <= SERIALS.to
      ? ok(addDays(addDays(SERIAL_ZERO, SERIALS.from), n - SERIALS.from))
      : wrong;
  }
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(typed);
  if (iso) return day(iso[1] ?? '', iso[2] ?? '', iso[3] ?? '');
  const figures = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4}|\d{2})$/.exec(typed);
  if (figures) {
    const [, a = '', b = '', y = ''] = figures;
    return order === 'dayFirst' ? day(y, b, a) : day(y, a, b);
  }
  const word = /^(\d{1,2})[ -]([a-z]{3,9})\.?[ -](\d{4}|\d{2})$/i.exec(typed) ?? null;
  const us = /^([a-z]{3,9})\.? (\d{1,2}),? (\d{4})$/i.exec(typed);
  const month = (name: string) => String(MONTHS.indexOf(name.slice(0, 3).toLowerCase()) + 1);
  if (word) return day(word[3] ?? '', month(word[2] ?? ''), word[1] ?? '');
  return us ? day(us[3] ?? '', month(us[1] ?? ''), us[2] ?? '') : wrong;
};
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

const choose = (typed: string, of: Readonly<Record<string, readonly string[]>>): Result<string> => {
  const wanted = plain(typed);
  const found = Object.entries(of).find(([key, words]) => [key, ...words].some((w) => plain(w) === wanted));
  const allowed = Object.entries(of)
    .map(([key, words]) => words[0] ?? key)
    .join(', ');
  return found ? ok(found[0]) : fail(failure('sheet.choice', '', { typed: typed.slice(0, 40), allowed }));
};

const readNumber = (typed: string, { least, most }: { least: number; most: number }): Result<number> => {
  const read = parseQuantity(typed, 'count', 'counts');
  if (!read.ok)
    return read.failures[0]?.code === 'quantity.ambiguous-comma'
      ? read
      : fail(failure('sheet.number', '', { typed: typed.slice(0, 40) }));
  const n = read.value.number;
  return n >= least && n <= most ? ok(n) : fail(failure('sheet.range', '', { typed: typed.slice(0, 40), least, most }));
};

const readQuantity = (typed: string, cell: Extract<Cell, { as: 'quantity' }>, unit: string | null): Result<number> => {
  const read = parseQuantity(typed, cell.of, unit ?? cell.unit);
  if (!read.ok) return read;
  const { valueSi } = read.value;
  return valueSi >= cell.low && valueSi <= cell.high
    ? ok(valueSi)
    : fail(failure('sheet.size', '', { typed: typed.slice(0, 40) }));
};

interface How {
  readonly order: DateOrder;
  /** The unit of a bare number in this column; null takes the field's own. */
  readonly unit: string | null;
}

/** Reads one cell that is not empty. */
export const readCell = (typed: string, cell: Cell, { order, unit }: How): Result<CellValue> => {
  switch (cell.as) {
    case 'text':
      return typed.length <= cell.most ? ok(typed) : fail(failure('text.too-long', '', { most: cell.most }));
    case 'day':
      return readDay(typed, order);
    case 'whole': {
      const n = readNumber(typed, cell);
      return n.ok && !Number.isInteger(n.value) ? fail(failure('sheet.whole', '', { typed: typed.slice(0, 40) })) : n;
    }
    case 'number':
      return readNumber(typed, cell);
    case 'quantity':
      return readQuantity(typed, cell, unit);
    case 'readings':
      return ok(
        typed
          .split(/[;|]|\s\/\s/)
          .map((r) => r.trim())
          .filter((r) => r !== ''),
      );
    case 'choice':
      return choose(typed, cell.of);
    case 'yesNo': {
      const word = typed.toLowerCase();
      return YES.includes(word)
        ? ok(true)
        : NO.includes(word)
          ? ok(false)
          : fail(failure('sheet.yes-no', '', { typed: typed.slice(0, 40) }));
    }
  }
};

export interface Column {
  /** Its field; null for a column that is left out. */
  readonly field: string | null;
  readonly unit: string | null;
}

export type SheetRow = Readonly<Record<string, CellValue>>;

/** Reads one row of a sheet: the filled fields, or the problem of each cell, by the name of its field. */
export const readRow = (
  kind: SheetKind,
  cells: readonly string[],
  { columns, order }: { readonly columns: readonly Column[]; readonly order: DateOrder },
): Result<SheetRow> => {
  const values: Record<string, CellValue> = {};
  const wrong: Failure[] = [];
  const read = ({ key, cell, needed, label }: SheetField): void => {
    const at = columns.findIndex((c) => c.field === key);
    const typed = (at < 0 ? '' : (cells[at] ?? '')).trim();
    if (typed === '') {
      if (needed) wrong.push(failure('sheet.needed', key, { label }));
      return;
    }
    const value = readCell(typed, cell, { order, unit: columns[at]?.unit ?? null });
    if (value.ok) values[key] = value.value;
    else wrong.push(...value.failures.map((f) => ({ ...f, path: key })));
  };
  SHEETS[kind].forEach(read);
  return wrong.length > 0 ? fail(...wrong) : ok(values);
};
