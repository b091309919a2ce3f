import {
  type ColumnDef,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getPaginationRowModel,
  getSortedRowModel,
  type Table,
  useReactTable,
} from '@tanstack/react-table';
import { useEffect, useMemo, useState } from 'react';
import type { RegisterColumn, RegisterRow } from '@/contracts/register-row';
import { ToneMark } from '@/ui/tone-mark';

interface RegisterProps {
  /** Accessible name of the list. */
  readonly label: string;
  readonly columns: readonly RegisterColumn[];
  readonly rows: readonly RegisterRow[];
  /** Initial text of the search box. */
  readonly q?: string;
}

const A_PAGE = 50;

const Tight = ({ text }: { readonly text: string }) =>
  text.split(/(?<=, )/).map((word) => (
    <span key={word} className="whitespace-nowrap">
      {word}
    </span>
  ));

const columnOf = (c: RegisterColumn, at: number): ColumnDef<RegisterRow> => ({
  id: c.id,
  header: c.label,
  accessorFn: (row) => row.cells[at]?.sort ?? row.cells[at]?.text ?? '',
  sortingFn: c.numeric ? 'basic' : 'alphanumeric',
  sortDescFirst: false,
  cell: ({ row }) => {
    const cell = row.original.cells[at];
    if (!cell) return null;
    const word = cell.tone ? (
      <ToneMark tone={cell.tone} word={cell.text} size={15} />
    ) : c.tight ? (
      <Tight text={cell.text} />
    ) : (
      cell.text
    );
    return (
      <>
        {at === 0 ? (
          <a
            className="inline-flex min-h-11 items-center font-bold underline underline-offset-4"
            href={row.original.href}
          >
            {word}
          </a>
        ) : (
          word
        )}
        {cell.note && <span className="soft block text-sm font-normal">{cell.note}</span>}
      </>
    );
  },
});

const SAID = { asc: 'ascending', desc: 'descending' } as const;
const sortSaid = (sorted: false | 'asc' | 'desc') => (sorted === false ? 'none' : SAID[sorted]);
const ARROWS = { ascending: ' ↑', descending: ' ↓', none: '' } as const;

const Heads = ({ table }: { readonly table: Table<RegisterRow> }) => (
  <thead className="max-sm:sr-only">
    {table.getHeaderGroups().map((group) => (
      <tr key={group.id} className="border-base-content/50 border-b-2">
        {group.headers.map((h) => {
          const sorted = sortSaid(h.column.getIsSorted());
          return (
            <th key={h.id} scope="col" aria-sort={sorted}>
              <button
                type="button"
                className="min-h-11 pr-3 text-left font-bold"
                onClick={h.column.getToggleSortingHandler()}
              >
                {flexRender(h.column.columnDef.header, h.getContext())}
                {ARROWS[sorted]}
              </button>
            </th>
          );
        })}
      </tr>
    ))}
  </thead>
);

const Body = ({
  table,
  columns,
}: {
  readonly table: Table<RegisterRow>;
  readonly columns: readonly RegisterColumn[];
}) => (
  <tbody>
    {table.getRowModel().rows.map((row) => (
      <tr
        key={row.id}
        className="border-base-300 border-b align-baseline max-sm:grid max-sm:grid-cols-2 max-sm:gap-x-3 max-sm:py-2"
      >
        {row.getVisibleCells().map((cell, at) => (
          <td
            key={cell.id}
            className={`py-1 pr-3 break-words max-sm:block ${columns[at]?.numeric ? 'dial' : ''} ${at === 0 ? 'max-sm:col-span-2' : ''} ${row.original.gone ? 'soft line-through' : ''}`}
          >
            {at > 0 && (
              <span className="caption sm:hidden" aria-hidden="true">
                {columns[at]?.label}{' '}
              </span>
            )}
            {flexRender(cell.column.columnDef.cell, cell.getContext())}
          </td>
        ))}
      </tr>
    ))}
  </tbody>
);

const Pager = ({ table }: { readonly table: Table<RegisterRow> }) =>
  table.getPageCount() > 1 && (
    <nav aria-label="Pages" className="mt-3 flex items-center gap-3">
      <button
        type="button"
        className="choice"
        disabled={!table.getCanPreviousPage()}
        onClick={() => table.previousPage()}
      >
        Before
      </button>
      <span>
        Page {table.getState().pagination.pageIndex + 1} of {table.getPageCount()}
      </span>
      <button type="button" className="choice" disabled={!table.getCanNextPage()} onClick={() => table.nextPage()}>
        Next
      </button>
    </nav>
  );

/** A phone has no headings to tap: it sorts by a list. */
const SortBy = ({
  table,
  columns,
}: {
  readonly table: Table<RegisterRow>;
  readonly columns: readonly RegisterColumn[];
}) => (
  <label className="block w-40 sm:hidden">
    <span className="caption">Sort by</span>
    <select
      className="field"
      value={table.getState().sorting[0]?.id ?? ''}
      onChange={(e) => table.setSorting(e.target.value === '' ? [] : [{ id: e.target.value, desc: false }])}
    >
      <option value="">as listed</option>
      {columns.map((c) => (
        <option key={c.id} value={c.id}>
          {c.label}
        </option>
      ))}
    </select>
  </label>
);

/** A register of the yard: every row leads to its own page; typing narrows it, a heading sorts it. */
export const RegisterTable = ({ label, columns, rows, q = '' }: RegisterProps) => {
  const [search, setSearch] = useState(q);
  const defs = useMemo(() => columns.map(columnOf), [columns]);
  const table = useReactTable({
    data: rows as RegisterRow[],
    columns: defs,
    state: { globalFilter: search },
    onGlobalFilterChange: setSearch,
    // The search covers all shown text, the small print too.
    globalFilterFn: (row, _, typed: string) => row.original.words.includes(typed.trim().toLowerCase()),
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getPaginationRowModel: getPaginationRowModel(),
    initialState: { pagination: { pageIndex: 0, pageSize: A_PAGE } },
  });
  const found = table.getFilteredRowModel().rows.length;
  useEffect(() => {
    document.documentElement.dataset['register'] = 'ready';
  }, []);
  return (
    <section aria-label={label}>
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <label className="block min-w-0 flex-1 basis-56 sm:max-w-md">
          <span className="caption">Search</span>
          <input
            className="field"
            type="search"
            value={search}
            maxLength={60}
            onChange={(e) => setSearch(e.target.value)}
          />
        </label>
        <SortBy table={table} columns={columns} />
        <p className="soft pb-2 text-sm" role="status">
          {search.trim() === '' ? `${rows.length} in all` : `${found} of ${rows.length}`}
        </p>
      </div>
      {found === 0 ? (
        <p className="py-3">Nothing here matches "{search.trim()}".</p>
      ) : (
        <table className="w-full text-left max-sm:block">
          <Heads table={table} />
          <Body table={table} columns={columns} />
        </table>
      )}
      <Pager table={table} />
    </section>
  );
};
