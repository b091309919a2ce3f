import { type SheetField, type SheetKind, SHEETS } from '@/core/sheet/fields';
import { guessColumns, unitInHeading } from '@/core/sheet/guess';
import type { CellValue, Column, DateOrder } from '@/core/sheet/read';
import { METHODS } from '@/core/measure/methods';
import { type QuantityKind, show, type UnitSystem } from '@/core/units';
import type { Table } from './read-table';

export interface Setup {
  readonly kind: SheetKind;
  readonly columns: readonly Column[];
  readonly order: DateOrder;
}

/** Quantities of the readings in a sheet of tests. */
const READ: readonly QuantityKind[] = [...new Set(Object.values(METHODS).map((m) => m.reads))];

const unitFor = (heading: string, field: SheetField | undefined): string | null => {
  if (field?.cell.as === 'quantity') return unitInHeading(heading, field.cell.of);
  if (field?.cell.as !== 'readings') return null;
  return READ.map((of) => unitInHeading(heading, of)).find((u) => u !== null) ?? null;
};

/** A column with its field, and the unit named in its heading. */
export const columnFor = (kind: SheetKind, heading: string, key: string | null): Column => ({
  field: key,
  unit: unitFor(
    heading,
    SHEETS[kind].find((f) => f.key === key),
  ),
});

export const guessed = (kind: SheetKind, { headings }: Table): readonly Column[] =>
  guessColumns(headings, kind).map((key, i) => columnFor(kind, headings[i] ?? '', key));

/** Fields that a sheet must have and has no column for. */
export const missingFields = ({ kind, columns }: Pick<Setup, 'kind' | 'columns'>): readonly SheetField[] =>
  SHEETS[kind].filter((f) => f.needed && !columns.some((c) => c.field === f.key));

/** Fields with two columns. */
export const doubledFields = ({ kind, columns }: Pick<Setup, 'kind' | 'columns'>): readonly SheetField[] =>
  SHEETS[kind].filter((f) => columns.filter((c) => c.field === f.key).length > 1);

/** Whether the order of day and month matters anywhere. */
export const hasDays = ({ kind, columns }: Pick<Setup, 'kind' | 'columns'>): boolean =>
  SHEETS[kind].some((f) => f.cell.as === 'day' && columns.some((c) => c.field === f.key));

/** A cell as it will be. */
export const sayValue = ({ cell }: SheetField, value: CellValue | undefined, units: UnitSystem): string => {
  if (value === undefined) return '';
  if (cell.as === 'quantity' && typeof value === 'number') return show(cell.of, value, units);
  if (cell.as === 'choice') return cell.of[String(value)]?.[0] ?? String(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return Array.isArray(value) ? value.join(', ') : String(value);
};
