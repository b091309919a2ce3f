import { type Kysely, sql } from 'kysely';

/** Prices of the plan, in the site's own currency. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table site add column currency text not null default ''`.execute(db);
  await sql`alter table site add column late_factor real not null default 6 check (late_factor > 0)`.execute(db);
  await sql`alter table site add column opening_json text not null default '{"plain":8,"controlled":18,"contained":45}' check (json_valid(opening_json))`.execute(
    db,
  );
};
