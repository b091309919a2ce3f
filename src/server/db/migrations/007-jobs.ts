import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Guided changes: their steps as assembled, and everything done as lines that are only ever added. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table job (
    id integer primary key,
    machine_id integer not null references machine (id),
    started_at text not null,
    by_initials text not null,
    hazard text not null check (hazard in ('plain', 'controlled', 'contained')),
    last_collected text not null,
    procedure_json text not null check (json_valid(procedure_json))
  ) strict`.execute(db);
  await sql`create table job_event (
    id integer primary key,
    job_id integer not null references job (id),
    at text not null,
    by_initials text not null,
    event_json text not null check (json_valid(event_json))
  ) strict`.execute(db);
  await sql`create index job_of_machine on job (machine_id)`.execute(db);
  await sql`create index event_of_job on job_event (job_id)`.execute(db);
  await keepForEver(db, ['job', 'job_event']);
};
