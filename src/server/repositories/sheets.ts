import { sql } from 'kysely';
import type { Db } from '../db/connect';

export interface SheetImport {
  readonly id: number;
  readonly kind: string;
  readonly name: string;
  readonly rows: number;
  readonly at: string;
  readonly by: string;
  readonly undone: boolean;
}

/** The count of named records so far. */
export const lastSeq = async (db: Db): Promise<number> => {
  const row = await db
    .selectFrom('identity')
    .select(({ fn }) => fn.max('seq').as('seq'))
    .executeTakeFirst();
  return row?.seq ?? 0;
};

interface NewImport extends Omit<SheetImport, 'id' | 'undone'> {
  readonly firstSeq: number;
  readonly lastSeq: number;
}

export const insertImport = async (db: Db, { by, firstSeq, lastSeq: last, ...i }: NewImport): Promise<number> => {
  const { id } = await db
    .insertInto('sheet_import')
    .values({ ...i, by_initials: by, first_seq: firstSeq, last_seq: last })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

/** Spreadsheet imports, newest first. */
export const loadImports = async (db: Db, most: number): Promise<readonly SheetImport[]> => {
  const rows = await db
    .selectFrom('sheet_import as i')
    .leftJoin('sheet_undo as u', 'u.import_id', 'i.id')
    .select(['i.id', 'i.kind', 'i.name', 'i.rows', 'i.at', 'i.by_initials', 'u.id as undone'])
    .orderBy('i.id', 'desc')
    .limit(most)
    .execute();
  return rows.map(({ by_initials: by, undone, ...r }) => ({ ...r, by, undone: undone !== null }));
};

/** Rows that go with others and have no name of their own. */
const OWNED: Readonly<Record<string, readonly (readonly [table: string, column: string])[]>> = {
  airflow_test: [['test_reading', 'test_id']],
  stage: [['rule', 'stage_id']],
  part: [['stock_on_hand', 'part_id']],
};

/** A link that the schema does not keep: a change made by a test. */
const looseLink = async (db: Db, tests: readonly number[]): Promise<boolean> => {
  if (tests.length === 0) return false;
  const found = await db
    .selectFrom('stage_change')
    .select('id')
    .where('before_test_id', 'in', tests)
    .executeTakeFirst();
  return found !== undefined;
};

/**
 * Undoes one import; returns the table of a record that uses it, null where none does. Not null means a half-done undo:
 * the caller must roll back.
 */
export const takeBack = async (db: Db, importId: number): Promise<string | null> => {
  const found = await db.selectFrom('sheet_import').selectAll().where('id', '=', importId).executeTakeFirstOrThrow();
  const written = await db
    .selectFrom('identity')
    .select(['kind', 'row_id'])
    .where('seq', '>=', found.first_seq)
    .where('seq', '<=', found.last_seq)
    .orderBy('seq', 'desc')
    .execute();
  await sql`pragma defer_foreign_keys = on`.execute(db);
  await db.insertInto('undoing').values({ import_id: importId }).execute();
  for (const { kind, row_id: id } of written) {
    for (const [table, column] of OWNED[kind] ?? [])
      await sql`delete from ${sql.table(table)} where ${sql.ref(column)} = ${id}`.execute(db);
    await sql`delete from ${sql.table(kind)} where id = ${id}`.execute(db);
  }
  await db.deleteFrom('undoing').execute();
  const tests = written.filter((w) => w.kind === 'airflow_test').map((w) => w.row_id);
  for (let i = 0; i < tests.length; i += 500) if (await looseLink(db, tests.slice(i, i + 500))) return 'stage_change';
  const { rows } = await sql<{ table: string }>`pragma foreign_key_check`.execute(db);
  return rows[0]?.table ?? null;
};

export const insertUndo = async (
  db: Db,
  undo: { readonly importId: number; readonly at: string; readonly by: string },
): Promise<void> => {
  await db.insertInto('sheet_undo').values({ import_id: undo.importId, at: undo.at, by_initials: undo.by }).execute();
};
