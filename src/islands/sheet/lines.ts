import { type SheetKind, SHEETS } from '@/core/sheet/fields';
import { type Column, type DateOrder, readRow, type SheetRow } from '@/core/sheet/read';
import { type Problem, problemsOf } from '@/messages/failures';
import type { Table } from './read-table';

export interface LineProblem {
  /** The field it is about; '' for the whole row. */
  readonly field: string;
  readonly sentence: string;
}

/** One row of a sheet: its values, its typed text, and its problems. */
export interface ReadLine {
  /** Below the heading, from 1. */
  readonly n: number;
  readonly values: SheetRow;
  readonly typed: Readonly<Record<string, string>>;
  readonly problems: readonly LineProblem[];
}

interface How {
  readonly kind: SheetKind;
  readonly columns: readonly Column[];
  readonly order: DateOrder;
}

/** Problems the server found, by row. */
export const byRow = (problems: readonly Problem[]): ReadonlyMap<number, readonly LineProblem[]> => {
  const found = new Map<number, LineProblem[]>();
  for (const { path, sentence } of problems) {
    const [, row, field = ''] = /^rows\.(\d+)(?:\.(.*))?$/.exec(path) ?? [];
    if (row === undefined) continue;
    found.set(Number(row), [...(found.get(Number(row)) ?? []), { field: field.split('.')[0] ?? '', sentence }]);
  }
  return found;
};

/** Every row, with the server's problems added. */
export const readLines = (
  table: Table,
  how: How,
  said: ReadonlyMap<number, readonly LineProblem[]>,
): readonly ReadLine[] => {
  const first = SHEETS[how.kind].find((f) => how.columns.some((c) => c.field === f.key))?.key ?? '';
  return table.rows.map((cells, i) => {
    const read = readRow(how.kind, cells, how);
    const own = read.ok
      ? []
      : problemsOf(read.failures).map(({ path, sentence }) => ({ field: path.split('.')[0] ?? '', sentence }));
    const more = (said.get(i) ?? []).filter((p) => !own.some((o) => o.field === p.field));
    const shown = how.columns.map((c) => c.field);
    const typed = Object.fromEntries(
      how.columns.flatMap((c, j) => (c.field === null ? [] : [[c.field, cells[j] ?? ''] as const])),
    );
    return {
      n: i + 1,
      values: read.ok ? read.value : {},
      typed,
      // A problem of a hidden column is shown in the first column.
      problems: [...own, ...more].map((p) => (shown.includes(p.field) ? p : { ...p, field: first })),
    };
  });
};
