import { type Kysely, sql } from 'kysely';

/** How a stage resists, sits and is rated; stages that were taken out of a path; and every edit of a path, kept. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table stage add column spec_json text check (spec_json is null or json_valid(spec_json))`.execute(db);
  await sql`alter table stage add column retired_on text`.execute(db);
  await sql`alter table stage add column missing_since text`.execute(db);
  await sql`alter table machine add column wet_set integer not null default 0 check (wet_set in (0, 1))`.execute(db);
  await sql`create table path_edit (
    id integer primary key,
    machine_id integer not null references machine (id),
    performed_at text not null,
    by_initials text not null,
    note text not null,
    before_json text not null check (json_valid(before_json)),
    after_json text not null check (json_valid(after_json)),
    reshapes integer not null check (reshapes in (0, 1))
  ) strict`.execute(db);
  await sql`create index path_edit_of_machine on path_edit (machine_id)`.execute(db);
  for (const action of ['update', 'delete']) {
    await sql
      .raw(
        `create trigger path_edit_no_${action} before ${action} on path_edit begin select raise(abort, 'records of work are kept'); end`,
      )
      .execute(db);
  }
};
