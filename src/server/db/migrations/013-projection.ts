import { type Kysely, sql } from 'kysely';

/** Tables whose rows name their machine, and tables whose rows name a stage or a test. */
const OF_MACHINE = [
  'stage',
  'path_edit',
  'airflow_test',
  'stage_change',
  'usage_entry',
  'dust_collected',
  'decontamination',
  'penetration_test',
  'examination',
  'integrity_check',
] as const;
const OF_STAGE = ['rule', 'fill_look', 'seat_opening'] as const;
/** What bears on every machine. */
const OF_ALL = ['site', 'dust_entry', 'instrument'] as const;
/** Columns that the digest of a machine leaves out but a page shows. */
const OF_NONE = [
  'stock_movement',
  'fault_case',
  'case_event',
  'job',
  'job_event',
  'photo',
  'part_order',
  'order_arrival',
  'plan_lock',
  'machine_away',
] as const;

const ACTIONS = ['insert', 'update', 'delete'] as const;

/**
 * The digest of each machine: the part of years of records that its pages need, derived from them and never their
 * source. A written row that bears on a machine deletes its digest, so that no digest outlives its source; the action
 * that wrote it rebuilds the digest before it ends. The revision counts every write, for caches in memory.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table yard_revision (id integer primary key check (id = 1), n integer not null)`.execute(db);
  await sql`insert into yard_revision (id, n) values (1, 1)`.execute(db);
  for (const table of ['machine_digest', 'machine_forecast'])
    await sql
      .raw(
        `create table ${table} (
          rev integer primary key autoincrement,
          machine_id integer not null unique references machine (id),
          made_by text not null,
          made_for text not null,
          content_json text not null
        )`,
      )
      .execute(db);
  const bump = 'update yard_revision set n = n + 1';
  const on = async (table: string, machines: (row: 'new' | 'old') => string | null): Promise<void> => {
    for (const action of ACTIONS) {
      const which = machines(action === 'delete' ? 'old' : 'new');
      const gone = ['machine_digest', 'machine_forecast'].map((t) =>
        which === null ? '' : `delete from ${t}${which === '' ? '' : ` where machine_id in (${which})`};`,
      );
      await sql
        .raw(`create trigger ${table}_${action}_seen after ${action} on ${table} begin ${bump}; ${gone.join(' ')} end`)
        .execute(db);
    }
  };
  for (const table of OF_MACHINE) await on(table, (row) => `${row}.machine_id`);
  for (const table of OF_STAGE) await on(table, (row) => `select machine_id from stage where id = ${row}.stage_id`);
  for (const table of OF_ALL) await on(table, () => '');
  for (const table of OF_NONE) await on(table, () => null);
  await on('machine', (row) => `${row}.id`);
  await on('test_reading', (row) => `select machine_id from airflow_test where id = ${row}.test_id`);
  await on('part', (row) => `select machine_id from stage where part_id = ${row}.id`);
  // Open jobs and cases among years of them are found by the ended ones.
  await sql`create index job_over on job_event (job_id) where json_extract(event_json, '$.kind') in ('finished', 'abandoned')`.execute(
    db,
  );
  await sql`create index case_over on case_event (case_id) where json_extract(event_json, '$.kind') in ('closed', 'handedOn')`.execute(
    db,
  );
  await sql`create index stage_of_machine on stage (machine_id)`.execute(db);
  await sql`create index stage_of_part on stage (part_id)`.execute(db);
  await sql`create index check_of_machine on integrity_check (machine_id)`.execute(db);
  await sql`create index change_of_stage on stage_change (stage_id, performed_at)`.execute(db);
  await sql`create index movement_in_time on stock_movement (at)`.execute(db);
  // Stock on hand is the sum of all movements, which only grow in number: each write adds to it.
  await sql`create table stock_on_hand (
    part_id integer primary key references part (id),
    quantity integer not null
  )`.execute(db);
  await sql`insert into stock_on_hand (part_id, quantity)
    select part_id, sum(quantity) from stock_movement group by part_id`.execute(db);
  await sql`create trigger stock_movement_counted after insert on stock_movement begin
    insert into stock_on_hand (part_id, quantity) values (new.part_id, new.quantity)
      on conflict (part_id) do update set quantity = quantity + excluded.quantity;
  end`.execute(db);
};
