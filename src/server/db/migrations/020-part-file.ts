import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

const TABLES = ['part_merge', 'part_photo'] as const;

/** A part's material, its picture, and merges of two entries of one part; and the time to open a machine. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table part add column medium text not null default ''`.execute(db);
  await sql`alter table part add column area_m2 real check (area_m2 > 0)`.execute(db);
  await sql`alter table part add column rating text not null default ''`.execute(db);
  await sql`create table part_merge (
    id integer primary key,
    part_id integer not null unique references part (id),
    into_id integer not null references part (id),
    at text not null,
    by_initials text not null,
    check (part_id <> into_id)
  ) strict`.execute(db);
  await sql`create table part_photo (
    id integer primary key,
    part_id integer not null references part (id),
    at text not null,
    by_initials text not null,
    media_type text not null,
    bytes blob not null
  ) strict`.execute(db);
  await sql`create index photo_of_part on part_photo (part_id)`.execute(db);
  await sql`alter table site add column opening_minutes_json text not null default '{"plain":6,"controlled":12,"contained":25}' check (json_valid(opening_minutes_json))`.execute(
    db,
  );
  await keepForEver(db, TABLES);
  for (const table of TABLES) {
    await sql
      .raw(
        `create trigger ${table}_named after insert on ${table} begin
          insert into identity (kind, row_id, uid) values ('${table}', new.id, lower(hex(randomblob(16))))
            on conflict (kind, row_id) do nothing;
        end`,
      )
      .execute(db);
  }
};
