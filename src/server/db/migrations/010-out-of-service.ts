import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Days on which a machine is away: lent out, in service. The newest entry of a machine counts. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table machine_away (
    id integer primary key,
    machine_id integer not null references machine (id),
    from_day text not null,
    to_day text not null check (to_day >= from_day),
    why text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await keepForEver(db, ['machine_away']);
};
