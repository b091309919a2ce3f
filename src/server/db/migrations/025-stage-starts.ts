import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';
import { nameRecords } from '../named';

const TABLES = ['stage_start'] as const;

/** The day from which the time of a stage is counted, where its last change is not on record. The newest word stands. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table stage_start (
    id integer primary key,
    stage_id integer not null references stage (id),
    day text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index start_of_stage on stage_start (stage_id)`.execute(db);
  await keepForEver(db, TABLES);
  await nameRecords(db, TABLES);
};
