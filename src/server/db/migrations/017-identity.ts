import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Tables whose rows travel between installations; the others are derived, or belong to one installation. */
const TABLES = [
  'part',
  'instrument',
  'person',
  'dust_entry',
  'setting_change',
  'machine',
  'former_tag',
  'machine_retirement',
  'stage',
  'path_edit',
  'job',
  'job_event',
  'photo',
  'fault_case',
  'case_event',
  'stage_change',
  'airflow_test',
  'stock_movement',
  'usage_entry',
  'fill_look',
  'part_order',
  'order_arrival',
  'plan_lock',
  'machine_away',
  'dust_collected',
  'decontamination',
  'penetration_test',
  'examination',
  'integrity_check',
  'seat_opening',
] as const;

/**
 * Each record gets a name that no other installation gives: it identifies a record that returns. Writes are numbered,
 * so that the rows of one import are known and can be undone.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table machine_retirement (
    id integer primary key,
    machine_id integer not null references machine (id),
    on_day text not null,
    how text not null check (how in ('retired', 'sold', 'back')),
    at text not null,
    by_initials text not null,
    note text not null
  ) strict`.execute(db);
  await sql`create index retirement_of_machine on machine_retirement (machine_id)`.execute(db);
  await keepForEver(db, ['machine_retirement']);
  for (const action of ['insert', 'update', 'delete'])
    await sql
      .raw(
        `create trigger machine_retirement_${action}_seen after ${action} on machine_retirement begin
          update yard_revision set n = n + 1;
          delete from machine_digest where machine_id = ${action === 'delete' ? 'old' : 'new'}.machine_id;
          delete from machine_forecast where machine_id = ${action === 'delete' ? 'old' : 'new'}.machine_id;
        end`,
      )
      .execute(db);
  await sql`create table identity (
    seq integer primary key autoincrement,
    kind text not null,
    row_id integer not null,
    uid text not null unique,
    unique (kind, row_id)
  ) strict`.execute(db);
  for (const table of TABLES) {
    await sql
      .raw(
        `insert into identity (kind, row_id, uid) select '${table}', id, lower(hex(randomblob(16))) from ${table} order by id`,
      )
      .execute(db);
    await sql
      .raw(
        `create trigger ${table}_named after insert on ${table} begin
          insert into identity (kind, row_id, uid) values ('${table}', new.id, lower(hex(randomblob(16))))
            on conflict (kind, row_id) do nothing;
        end`,
      )
      .execute(db);
    await sql
      .raw(
        `create trigger ${table}_unnamed after delete on ${table} begin
          delete from identity where kind = '${table}' and row_id = old.id;
        end`,
      )
      .execute(db);
  }
};
