import { SHEETS, type SheetKind } from '@/core/sheet/fields';
import type { Column, DateOrder } from '@/core/sheet/read';
import type { Table } from './read-table';
import { columnFor, hasDays } from './state';

interface ColumnsProps {
  readonly kind: SheetKind;
  readonly table: Table;
  readonly columns: readonly Column[];
  readonly setColumns: (columns: readonly Column[]) => void;
  readonly order: DateOrder;
  readonly setOrder: (order: DateOrder) => void;
}

const sample = (table: Table, column: number): string =>
  table.rows
    .map((r) => r[column] ?? '')
    .filter((c) => c !== '')
    .slice(0, 2)
    .join(', ');

const ORDERS: readonly (readonly [DateOrder, string])[] = [
  ['dayFirst', 'day first: 31/12/2026'],
  ['monthFirst', 'month first: 12/31/2026'],
];

/** The field of each column. */
export const Columns = ({ kind, table, columns, setColumns, order, setOrder }: ColumnsProps) => (
  <section aria-labelledby="sheet-columns" className="space-y-2">
    <h2 id="sheet-columns" className="text-xl font-bold">
      What each column is
    </h2>
    <ul className="grid gap-x-6 gap-y-2 sm:grid-cols-2 lg:grid-cols-3">
      {table.headings.map((heading, i) => {
        const said = heading === '' ? `column ${i + 1}, without a heading` : heading;
        const taken = columns[i] ?? { field: null, unit: null };
        return (
          <li key={`${heading}-${i}`}>
            <label className="block">
              <span className="block font-semibold break-words">
                {said}
                {taken.unit !== null && <span className="soft font-normal"> in {taken.unit}</span>}
              </span>
              <span className="soft block truncate text-sm">{sample(table, i) || 'empty'}</span>
              <select
                className="field"
                value={taken.field ?? ''}
                onChange={(e) => {
                  const key = e.currentTarget.value === '' ? null : e.currentTarget.value;
                  setColumns(columns.map((c, j) => (j === i ? columnFor(kind, heading, key) : c)));
                }}
              >
                <option value="">leave it out</option>
                {SHEETS[kind].map((f) => (
                  <option key={f.key} value={f.key}>
                    {f.label}
                    {f.needed ? ' (needed)' : ''}
                  </option>
                ))}
              </select>
            </label>
          </li>
        );
      })}
    </ul>
    {hasDays({ kind, columns }) && (
      <fieldset>
        <legend className="caption">Days in figures are written</legend>
        <div className="flex flex-wrap gap-2">
          {ORDERS.map(([key, words]) => (
            <button
              key={key}
              type="button"
              className="choice"
              aria-pressed={order === key}
              onClick={() => setOrder(key)}
            >
              {words}
            </button>
          ))}
        </div>
        <p className="soft text-sm">Year first (2026-12-31) is always understood.</p>
      </fieldset>
    )}
  </section>
);
