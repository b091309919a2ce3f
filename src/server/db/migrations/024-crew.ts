import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';
import { nameRecords } from '../named';

const TABLES = ['crew_entry'] as const;

/** Entries about people's time: usual minutes, days away, work handed over. The newest word stands. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table crew_entry (
    id integer primary key,
    person_id integer not null references person (id),
    at text not null,
    by_initials text not null,
    entry_json text not null check (json_valid(entry_json))
  ) strict`.execute(db);
  await sql`create index entry_of_person on crew_entry (person_id)`.execute(db);
  await keepForEver(db, TABLES);
  await nameRecords(db, TABLES);
};
