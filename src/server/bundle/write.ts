import { createHash } from 'node:crypto';
import Sqlite from 'better-sqlite3';
import { sql } from 'kysely';
import { BUNDLE_TABLE_NAMES, type BundleTable } from '@/contracts/bundle';
import type { ImportReport } from '@/contracts/bundle-report';
import { type Bundle, type BundleRow, DamagedBundle } from './file';
import { movedJson, PICTURES, TABLE_SPECS } from './tables';
import type { Db } from '../db/connect';
import { type Sorted, textIn } from './sort';

// Writes the new rows of a bundle, with the numbers they have here.

type Columns = Record<string, string | number | Uint8Array | null>;

const ROWS_A_STATEMENT = 100;
/** Stages on their way to a new place lie beyond every real one. */
const FREE_POSITIONS_FROM = 20_000;

interface Writing {
  readonly db: Db;
  readonly bundle: Bundle;
  readonly sorted: Sorted;
}

/** A row to write: every reference renumbered, every JSON checked against its shape. */
const columnsOf = ({ sorted, bundle }: Writing, table: BundleTable, row: BundleRow): Columns => {
  const { refs = {}, json = {} } = TABLE_SPECS[table];
  const columns: Columns = {};
  for (const [column, value] of Object.entries(row)) {
    if (column === 'n' || column === 'uid' || column === 'sha256') continue;
    const [to, shaped] = [refs[column], json[column]];
    if (to && typeof value === 'number') columns[column] = sorted.idOf(to, value);
    else if (shaped && value !== null) {
      const moved = movedJson(value, shaped.refs, (t, n) => sorted.idOf(t, n));
      if (!shaped.shape.safeParse(moved).success) throw new DamagedBundle(`${table} ${row.n} ${column}`);
      columns[column] = JSON.stringify(moved);
    } else columns[column] = value as string | number | null;
  }
  if (PICTURES.some((t) => t === table)) {
    const bytes = bundle.photo(row.uid ?? '');
    if (createHash('sha256').update(bytes).digest('hex') !== row['sha256'])
      throw new DamagedBundle(`${table} ${row.n}`);
    columns['bytes'] = bytes;
  }
  return columns;
};

const insertAll = async (db: Db, table: string, rows: readonly Columns[]): Promise<void> => {
  if (rows.length === 0) return;
  const names = Object.keys(rows[0] ?? {});
  const lines = rows.map((r) => sql`(${sql.join(names.map((n) => r[n] ?? null))})`);
  await sql`insert into ${sql.table(table)} (${sql.join(names.map((n) => sql.ref(n)))}) values ${sql.join(lines)}`.execute(
    db,
  );
};

/** A refusal by the database (a share above one, a second row where one is allowed) is a fault of the bundle. */
const unlessRefused = async (table: BundleTable, write: () => Promise<void>): Promise<void> => {
  try {
    await write();
  } catch (error) {
    if (error instanceof Sqlite.SqliteError && error.code.startsWith('SQLITE_CONSTRAINT'))
      throw new DamagedBundle(table);
    throw error;
  }
};

/** The name comes first: the trigger that would make one then leaves it alone. */
const flush = async (db: Db, table: BundleTable, batch: { uid: string | undefined; columns: Columns }[]) => {
  const names = batch.flatMap(({ uid, columns }) =>
    uid === undefined ? [] : [{ kind: table, row_id: Number(columns['id']), uid }],
  );
  const rows = batch.map((b) => b.columns);
  await unlessRefused(table, async () => {
    await insertAll(db, 'identity', names);
    await insertAll(db, table, rows);
  });
  batch.length = 0;
};

/** Whether a row belongs to a machine that was edited elsewhere and is unchanged here. */
const replaced = (sorted: Sorted, table: BundleTable, row: BundleRow): boolean =>
  (table === 'machine' && sorted.taken.has(row.n)) ||
  (table === 'stage' && sorted.taken.has(Number(row['machine_id'])));

const putAside = async ({ db, sorted }: Writing): Promise<void> => {
  for (const n of sorted.taken.keys()) {
    const id = sorted.idOf('machine', n);
    await sql`update stage set position = ${FREE_POSITIONS_FROM} + id where machine_id = ${id}`.execute(db);
    await sql`delete from rule where stage_id in (select id from stage where machine_id = ${id})`.execute(db);
  }
};

const update = async (w: Writing, table: BundleTable, row: BundleRow): Promise<void> => {
  const columns = columnsOf(w, table, row);
  const sets = Object.entries(columns).map(([name, value]) => sql`${sql.ref(name)} = ${value}`);
  const id = w.sorted.idOf(table, row.n);
  await unlessRefused(table, async () => {
    await sql`update ${sql.table(table)} set ${sql.join(sets)} where id = ${id}`.execute(w.db);
  });
};

const namedAs = (table: BundleTable, row: BundleRow): string =>
  textIn(row, 'tag') || textIn(row, 'name') || textIn(row, TABLE_SPECS[table].natural ?? '');

/** Whether the present row differs from the row of the bundle. */
const differs = async (w: Writing, table: BundleTable, row: BundleRow): Promise<boolean> => {
  const id = table === 'site' ? 1 : w.sorted.idOf(table, row.n);
  const { rows } = await sql<Columns>`select * from ${sql.table(table)} where id = ${id}`.execute(w.db);
  const here = rows[0] ?? {};
  return Object.entries(columnsOf(w, table, row)).some(([name, value]) => here[name] !== value);
};

/** Writes the new rows, and updates machines that were edited elsewhere. */
export const writeRows = async (
  db: Db,
  bundle: Bundle,
  sorted: Sorted,
): Promise<Pick<ImportReport, 'added' | 'known' | 'taken' | 'kept'>> => {
  const w: Writing = { db, bundle, sorted };
  const added: ImportReport['added'] = {};
  const kept: ImportReport['kept'] = [];
  await sql`pragma defer_foreign_keys = on`.execute(db);
  await putAside(w);
  for (const table of BUNDLE_TABLE_NAMES) {
    const batch: { uid: string | undefined; columns: Columns }[] = [];
    let n = 0;
    for (const row of bundle.rows(table)) {
      if (sorted.isNew(table, row.n)) {
        batch.push({ uid: row.uid, columns: { id: sorted.idOf(table, row.n), ...columnsOf(w, table, row) } });
        n += 1;
      } else if (replaced(sorted, table, row)) await update(w, table, row);
      else if (['entity', 'site'].includes(TABLE_SPECS[table].as) && (await differs(w, table, row)))
        kept.push({ table, name: namedAs(table, row) });
      if (batch.length >= ROWS_A_STATEMENT) await flush(db, table, batch);
    }
    await flush(db, table, batch);
    if (n > 0) added[table] = n;
  }
  return { added, known: sorted.known, taken: [...sorted.taken.values()], kept };
};

/** Whether every number that names a row names one that is there. */
export const holdsTogether = async (db: Db): Promise<boolean> => {
  const { rows } = await sql`pragma foreign_key_check`.execute(db);
  return rows.length === 0;
};
