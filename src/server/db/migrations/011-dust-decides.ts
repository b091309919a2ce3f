import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

const createDustTables = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table dust_entry (
    id integer primary key,
    key text not null,
    dust_json text not null check (json_valid(dust_json)),
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create table dust_collected (
    id integer primary key,
    machine_id integer not null references machine (id),
    since_on text,
    said text not null,
    confirmed_json text not null check (json_valid(confirmed_json)),
    denied_json text not null check (json_valid(denied_json)),
    answers_json text not null check (json_valid(answers_json)),
    own_level text check (own_level in ('plain', 'controlled', 'contained')),
    lower_because text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index collected_of_machine on dust_collected (machine_id)`.execute(db);
  await sql`create table decontamination (
    id integer primary key,
    machine_id integer not null references machine (id),
    on_day text not null,
    how text not null check (how in ('job', 'contractor')),
    paper text not null,
    job_id integer references job (id),
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index decontamination_of_machine on decontamination (machine_id)`.execute(db);
};

const createProofTables = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table penetration_test (
    id integer primary key,
    machine_id integer not null references machine (id),
    tested_on text not null,
    tester text not null,
    method text not null,
    certificate text not null,
    share real not null check (share >= 0 and share <= 1),
    limit_share real not null check (limit_share > 0 and limit_share < 1),
    next_due_on text,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index penetration_of_machine on penetration_test (machine_id)`.execute(db);
  await sql`create table examination (
    id integer primary key,
    machine_id integer not null references machine (id),
    examined_on text not null,
    examiner text not null,
    found text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index examination_of_machine on examination (machine_id)`.execute(db);
  await sql`create table seat_opening (
    id integer primary key,
    stage_id integer not null references stage (id),
    why text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index opening_of_stage on seat_opening (stage_id)`.execute(db);
};

/**
 * The dust of a machine becomes a history: statements, decontaminations, proofs, examinations, openings of a seat. The
 * machine's own columns become its first statement; its level may raise the register's, never lower it.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await createDustTables(db);
  await createProofTables(db);
  await sql`alter table stage_change add column done_by text`.execute(db);
  await sql`alter table stage_change add column done_how text`.execute(db);
  await sql`insert into dust_collected (machine_id, since_on, said, confirmed_json, denied_json, answers_json, own_level, lower_because, at, by_initials)
    select id, null, last_collected, '[]', '[]', '{}', hazard, '', strftime('%Y-%m-%dT%H:%M:%fZ', 'now'), 'record' from machine where trim(last_collected) <> ''`.execute(
    db,
  );
  await sql`alter table machine drop column last_collected`.execute(db);
  await sql`alter table machine drop column hazard`.execute(db);
  await keepForEver(db, [
    'dust_entry',
    'dust_collected',
    'decontamination',
    'penetration_test',
    'examination',
    'seat_opening',
  ]);
};
