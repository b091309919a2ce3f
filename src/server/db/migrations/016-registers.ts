import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Settings of a yard, and facts of its parts, meters and machines beyond daily work. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table site add column works_on text not null default '12345'`.execute(db);
  await sql`alter table site add column closed_json text not null default '[]'`.execute(db);
  await sql`alter table site add column minutes_a_day integer not null default 120`.execute(db);
  await sql`create table setting_change (
    id integer primary key,
    at text not null,
    by_initials text not null,
    setting text not null,
    before text not null,
    after text not null
  ) strict`.execute(db);
  await keepForEver(db, ['setting_change']);
  await sql`create table former_tag (
    id integer primary key,
    machine_id integer not null references machine (id),
    tag text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await keepForEver(db, ['former_tag']);
  await sql`alter table part add column supplier text not null default ''`.execute(db);
  await sql`alter table part add column minimum integer`.execute(db);
  await sql`alter table part add column retired_on text`.execute(db);
  await sql`alter table instrument add column certificate text not null default ''`.execute(db);
  await sql`alter table instrument add column retired_on text`.execute(db);
};
