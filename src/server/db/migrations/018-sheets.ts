import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Records that a spreadsheet can bring, with the words their guard refuses with. */
const GUARDED: readonly (readonly [table: string, words: string])[] = [
  ['stage_change', 'stage_change is append-only'],
  ['airflow_test', 'airflow_test is append-only'],
  ['test_reading', 'test_reading is append-only'],
  ['stock_movement', 'stock_movement is append-only'],
  ['usage_entry', 'records of work are kept'],
  ['dust_collected', 'records of work are kept'],
];

/**
 * A spreadsheet import can be undone as a whole until later records use it. The guards allow the deletion only inside
 * the one transaction that writes a line into `undoing` and removes it again.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table sheet_import (
    id integer primary key,
    kind text not null,
    name text not null,
    rows integer not null,
    first_seq integer not null,
    last_seq integer not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create table sheet_undo (
    id integer primary key,
    import_id integer not null unique references sheet_import (id),
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await keepForEver(db, ['sheet_import', 'sheet_undo']);
  await sql`create table undoing (import_id integer not null) strict`.execute(db);
  for (const [table, words] of GUARDED) {
    await sql.raw(`drop trigger ${table}_no_delete`).execute(db);
    await sql
      .raw(
        `create trigger ${table}_no_delete before delete on ${table} when not exists (select 1 from undoing)
          begin select raise(abort, '${words}'); end`,
      )
      .execute(db);
  }
  await sql`create trigger stock_movement_uncounted after delete on stock_movement begin
    update stock_on_hand set quantity = quantity - old.quantity where part_id = old.part_id;
  end`.execute(db);
};
