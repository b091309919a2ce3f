import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';
import { nameRecords } from '../named';

const TABLES = ['tool_entry', 'bonding_reading'] as const;

/** The tools of the yard with their own figures, and the continuity readings of its machines. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table tool_entry (
    id integer primary key,
    key text not null,
    tool_json text not null check (json_valid(tool_json)),
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create table bonding_reading (
    id integer primary key,
    machine_id integer not null references machine (id),
    measured_on text not null,
    ohm real check (ohm >= 0),
    between_text text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index bonding_of_machine on bonding_reading (machine_id)`.execute(db);
  await keepForEver(db, TABLES);
  await nameRecords(db, TABLES);
};
