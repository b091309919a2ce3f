import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Who works here, who is signed in, what other programs may read, and the access log. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table person (
    id integer primary key,
    initials text not null unique,
    name text not null,
    role text not null,
    may_contain integer not null check (may_contain in (0, 1)),
    mask_fit_on text,
    trained_on text,
    active integer not null check (active in (0, 1)),
    passphrase text,
    code_hash text,
    code_until text,
    added_at text not null
  ) strict`.execute(db);
  await sql`create table session (
    id integer primary key,
    token_hash text not null unique,
    person_id integer not null references person (id),
    began_at text not null,
    seen_at text not null,
    ends_at text not null,
    ended_at text,
    address text not null
  ) strict`.execute(db);
  await sql`create index session_of_person on session (person_id)`.execute(db);
  await sql`create table access_key (
    id integer primary key,
    key_hash text not null unique,
    purpose text not null,
    name text not null,
    made_by text not null,
    made_at text not null,
    revoked_at text
  ) strict`.execute(db);
  await sql`create table audit_line (
    id integer primary key,
    at text not null,
    who text not null,
    kind text not null,
    detail text not null,
    address text not null
  ) strict`.execute(db);
  await sql`create index audit_of_who on audit_line (who, kind, at)`.execute(db);
  await keepForEver(db, ['audit_line']);
  await sql`alter table site add column open_here integer not null default 1`.execute(db);
};
