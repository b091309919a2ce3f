import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Cases of fault finding: the complaint, and everything done about it as lines that are only ever added. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table fault_case (
    id integer primary key,
    machine_id integer not null references machine (id),
    opened_at text not null,
    by_initials text not null,
    complaint text not null check (complaint in ('noSuction', 'light', 'dust', 'smell', 'labours', 'round')),
    words text not null,
    hazard text not null check (hazard in ('plain', 'controlled', 'contained')),
    last_collected text not null,
    school text not null
  ) strict`.execute(db);
  await sql`create table case_event (
    id integer primary key,
    case_id integer not null references fault_case (id),
    at text not null,
    by_initials text not null,
    event_json text not null check (json_valid(event_json))
  ) strict`.execute(db);
  await sql`create index fault_case_of_machine on fault_case (machine_id)`.execute(db);
  await sql`create index event_of_case on case_event (case_id)`.execute(db);
  await keepForEver(db, ['fault_case', 'case_event']);
};
