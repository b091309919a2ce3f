import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getPaginationRowModel,
  getSortedRowModel,
  type Table,
  useReactTable,
} from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { SHEETS, type SheetKind } from '@/core/sheet/fields';
import type { UnitSystem } from '@/core/units';
import type { ReadLine } from './lines';
import { sayValue } from './state';

interface PreviewProps {
  readonly kind: SheetKind;
  readonly lines: readonly ReadLine[];
  readonly fields: readonly string[];
  readonly units: UnitSystem;
}

const PAGE = 25;
const helper = createColumnHelper<ReadLine>();

/** The number of a row, then each field that has a column. */
const columnsOf = (kind: SheetKind, fields: readonly string[], units: UnitSystem) => [
  helper.accessor('n', { header: 'Row', cell: (c) => <span className="dial">{c.getValue()}</span> }),
  ...SHEETS[kind]
    .filter((f) => fields.includes(f.key))
    .map((f) =>
      helper.accessor((l) => sayValue(f, l.values[f.key], units) || (l.typed[f.key] ?? ''), {
        id: f.key,
        header: f.label,
        cell: (c) => {
          const problem = c.row.original.problems.find((p) => p.field === f.key);
          return (
            <span className={problem ? 'tone-stop font-semibold' : ''}>
              {c.getValue()}
              {problem && <span className="block min-w-56 text-sm font-normal">{problem.sentence}</span>}
            </span>
          );
        },
      }),
    ),
];

/** The page of rows at hand; a heading sorts by its column. */
const Rows = ({ table }: { readonly table: Table<ReadLine> }) => (
  <div className="overflow-x-auto">
    <table className="w-full text-left">
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id} className="border-base-content/50 border-b-2">
            {group.headers.map((h) => (
              <th
                key={h.id}
                scope="col"
                aria-sort={
                  h.column.getIsSorted() === 'asc'
                    ? 'ascending'
                    : h.column.getIsSorted() === 'desc'
                      ? 'descending'
                      : 'none'
                }
              >
                <button
                  type="button"
                  className="min-h-11 pr-3 text-left font-bold"
                  onClick={h.column.getToggleSortingHandler()}
                >
                  {flexRender(h.column.columnDef.header, h.getContext())}
                  {{ asc: ' ↑', desc: ' ↓' }[String(h.column.getIsSorted())] ?? ''}
                </button>
              </th>
            ))}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <tr key={row.id} className="border-base-300 border-b align-top">
            {row.getVisibleCells().map((cell) => (
              <td key={cell.id} className="max-w-64 py-1.5 pr-3 break-words">
                {flexRender(cell.column.columnDef.cell, cell.getContext())}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  </div>
);

const Pager = ({ table }: { readonly table: Table<ReadLine> }) =>
  table.getPageCount() > 1 && (
    <div className="flex items-center gap-3">
      <button
        type="button"
        className="choice"
        disabled={!table.getCanPreviousPage()}
        onClick={() => table.previousPage()}
      >
        Earlier rows
      </button>
      <span className="soft">
        page {table.getState().pagination.pageIndex + 1} of {table.getPageCount()}
      </span>
      <button type="button" className="choice" disabled={!table.getCanNextPage()} onClick={() => table.nextPage()}>
        Later rows
      </button>
    </div>
  );

/** Every row as it would be imported; a wrong cell is marked in its row. */
export const Preview = ({ kind, lines, fields, units }: PreviewProps) => {
  const [onlyWrong, setOnlyWrong] = useState(false);
  const wrong = lines.filter((l) => l.problems.length > 0).length;
  const shown = useMemo(
    () => (onlyWrong && wrong > 0 ? lines.filter((l) => l.problems.length > 0) : [...lines]),
    [lines, onlyWrong, wrong],
  );
  const columns = useMemo(() => columnsOf(kind, fields, units), [kind, fields, units]);
  const table = useReactTable({
    data: shown,
    columns,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getPaginationRowModel: getPaginationRowModel(),
    initialState: { pagination: { pageSize: PAGE } },
  });
  return (
    <section aria-labelledby="sheet-preview" className="space-y-2">
      <div className="flex flex-wrap items-end justify-between gap-2">
        <h2 id="sheet-preview" className="text-xl font-bold">
          {lines.length} rows as they will be
        </h2>
        {wrong > 0 && (
          <button type="button" className="choice" aria-pressed={onlyWrong} onClick={() => setOnlyWrong(!onlyWrong)}>
            Only rows with something wrong: {wrong}
          </button>
        )}
      </div>
      <Rows table={table} />
      <Pager table={table} />
    </section>
  );
};
