import { type Kysely, sql } from 'kysely';

// `supersedes_id` is unique: a record is corrected once, and the correction is what gets corrected next.
const work = sql.raw(`
    id integer primary key,
    machine_id integer not null references machine (id),
    performed_at text not null,
    recorded_at text not null,
    by_initials text not null,
    note text not null,
    voided integer not null check (voided in (0, 1)),
    correction_reason text,
    check ((supersedes_id is null) = (correction_reason is null))`);

const appendOnly = (table: string) => [
  `create trigger ${table}_no_update before update on ${table} begin select raise(abort, '${table} is append-only'); end`,
  `create trigger ${table}_no_delete before delete on ${table} begin select raise(abort, '${table} is append-only'); end`,
];

export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table instrument (
    id integer primary key,
    name text not null unique,
    reads text not null,
    accuracy_json text not null check (json_valid(accuracy_json)),
    calibration_due_on text
  ) strict`.execute(db);
  await sql`create table stage_change (
    supersedes_id integer unique references stage_change (id),
    stage_id integer not null references stage (id),
    reason text not null,
    part_id integer references part (id),
    quantity integer not null check (quantity >= 0),
    before_test_id integer,
    ${work}
  ) strict`.execute(db);
  await sql`create table airflow_test (
    supersedes_id integer unique references airflow_test (id),
    method text not null,
    place text not null,
    bore_m real check (bore_m > 0),
    profile_factor real check (profile_factor between 0.5 and 1),
    instrument_id integer references instrument (id),
    air_json text not null check (json_valid(air_json)),
    hose_bore_m real check (hose_bore_m > 0),
    failed_preconditions_json text not null check (json_valid(failed_preconditions_json)),
    is_baseline integer not null check (is_baseline in (0, 1)),
    bag_state text not null check (bag_state in ('asFound', 'asLeft')),
    after_change_id integer references stage_change (id),
    ${work}
  ) strict`.execute(db);
  await sql`create table test_reading (
    id integer primary key,
    test_id integer not null references airflow_test (id),
    seq integer not null,
    typed text not null,
    unit text not null,
    value_si real not null,
    resolution_si real not null,
    struck_because text,
    unique (test_id, seq)
  ) strict`.execute(db);
  await sql`create index test_of_machine on airflow_test (machine_id, performed_at)`.execute(db);
  await sql`create index change_of_machine on stage_change (machine_id, performed_at)`.execute(db);
  for (const table of ['stage_change', 'airflow_test', 'test_reading']) {
    for (const statement of appendOnly(table)) await sql.raw(statement).execute(db);
  }
};
