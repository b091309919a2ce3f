import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Records left by a guided change: its reason and stages, the change it proved, integrity tests, photos. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table job add column reason text not null default 'precaution'`.execute(db);
  await sql`alter table job add column people integer not null default 1`.execute(db);
  await sql`alter table job add column stages_json text not null default '[]'`.execute(db);
  await sql`alter table stage_change add column job_id integer references job (id)`.execute(db);
  await sql`create index change_of_job on stage_change (job_id)`.execute(db);
  await sql`create table integrity_check (
    id integer primary key,
    machine_id integer not null references machine (id),
    stage_id integer not null references stage (id),
    at text not null,
    by_initials text not null,
    test text not null check (test in ('particles', 'cleanSide', 'smoke')),
    passed integer not null check (passed in (0, 1)),
    note text not null
  ) strict`.execute(db);
  await sql`create table photo (
    id integer primary key,
    job_id integer not null references job (id),
    at text not null,
    by_initials text not null,
    media_type text not null,
    bytes blob not null
  ) strict`.execute(db);
  await keepForEver(db, ['integrity_check', 'photo']);
};
