import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';
import { nameRecords } from '../named';

const TABLES = ['upgrade', 'upgrade_event', 'upgrade_photo'] as const;

/** Planned upgrades with their prediction, and their events. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table upgrade (
    id integer primary key,
    machine_id integer not null references machine (id),
    at text not null,
    by_initials text not null,
    note text not null,
    changes_json text not null check (json_valid(changes_json)),
    price real check (price >= 0),
    predicted_json text not null check (json_valid(predicted_json))
  ) strict`.execute(db);
  await sql`create table upgrade_event (
    id integer primary key,
    upgrade_id integer not null references upgrade (id),
    at text not null,
    by_initials text not null,
    event_json text not null check (json_valid(event_json))
  ) strict`.execute(db);
  await sql`create table upgrade_photo (
    id integer primary key,
    upgrade_id integer not null references upgrade (id),
    at text not null,
    by_initials text not null,
    media_type text not null,
    bytes blob not null
  ) strict`.execute(db);
  await sql`create index photo_of_upgrade on upgrade_photo (upgrade_id)`.execute(db);
  await sql`create index upgrade_of_machine on upgrade (machine_id)`.execute(db);
  await sql`create index event_of_upgrade on upgrade_event (upgrade_id)`.execute(db);
  await keepForEver(db, TABLES);
  await nameRecords(db, TABLES);
};
