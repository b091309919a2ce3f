import { join } from 'node:path';
import { existsSync } from 'node:fs';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import {
  copiesFolder,
  CopyError,
  inspectCopy,
  isAsTaken,
  isInUse,
  knowsSchema,
  listCopies,
  restoreCopy,
} from '../../db/copies';

type Rows = Readonly<Record<string, number>>;

export interface RestoreLook {
  /** Rows of the copy. */
  readonly rows: Rows;
  /** Rows of each table that the records hold and the copy does not; null where the records are damaged. */
  readonly lost: Rows | null;
}

/** Rows that the records have and a backup lacks, table by table. */
export const lostRows = (now: Rows, then: Rows): Rows =>
  Object.fromEntries(
    Object.entries(now).flatMap(([table, n]) => (n > (then[table] ?? 0) ? [[table, n - (then[table] ?? 0)]] : [])),
  );

/** Rows of the records; null where the records are damaged: a backup is for that case. */
const rowsNow = (file: string): Rows | null => {
  if (!existsSync(file)) return {};
  try {
    return inspectCopy(file).rows;
  } catch (error) {
    if (error instanceof CopyError) return null;
    throw error;
  }
};

/** Reads a copy through and says what bringing it back would take away. */
export const lookAtCopy = async (file: string, from: string): Promise<Result<RestoreLook>> => {
  try {
    const copy = inspectCopy(from);
    if (!(await isAsTaken(from))) return fail(failure('restore.damaged', 'name'));
    if (!knowsSchema(copy.schema)) return fail(failure('restore.newer', 'name', { schema: copy.schema }));
    const now = rowsNow(file);
    return ok({ rows: copy.rows, lost: now && lostRows(now, copy.rows) });
  } catch (error) {
    if (error instanceof CopyError) return fail(failure('restore.damaged', 'name'));
    throw error;
  }
};

/** Restores a checked backup. Returns the name of the replaced records. */
export const bringBack = async (
  file: string,
  { from, at }: { readonly from: string; readonly at: string },
): Promise<Result<{ readonly replaced: string | null }>> => {
  if (isInUse(file)) return fail(failure('restore.in-use', 'name'));
  try {
    return ok({ replaced: await restoreCopy(file, from, at) });
  } catch (error) {
    if (error instanceof CopyError) return fail(failure('restore.damaged', 'name'));
    throw error;
  }
};

/** The path of a copy that is on the list; null for any other name. */
export const copyCalled = (file: string, name: string): string | null =>
  listCopies(file).some((c) => c.name === name) ? join(copiesFolder(file), name) : null;
