import { type Kysely, sql } from 'kysely';

/**
 * The days that the last plan named, so that the next plan starts from them. Made by the planner and no record: a new
 * plan replaces them. The usual price of a late day rises from 6 to 12 where nobody has set it.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table plan_promise (
    stage_id integer not null references stage (id) on delete cascade,
    cycle integer not null,
    day text not null,
    set_on text not null,
    middle text not null,
    part_day text,
    records integer not null,
    locked integer not null check (locked in (0, 1)),
    moved_from text,
    moved_on text,
    because text,
    primary key (stage_id, cycle)
  ) strict`.execute(db);
  await sql`update site set late_factor = 12
    where late_factor = 6 and not exists (select 1 from setting_change where setting = 'lateFactor')`.execute(db);
};
