import { type Kysely, sql } from 'kysely';

export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table site (
    id integer primary key check (id = 1),
    name text not null,
    time_zone text not null,
    altitude_m real not null check (altitude_m between -500 and 5000),
    rule_set text not null check (rule_set in ('eu_uk', 'us')),
    warn_loss real not null check (warn_loss > 0 and warn_loss < 1),
    act_loss real not null check (act_loss >= warn_loss and act_loss < 1)
  ) strict`.execute(db);
  await sql`create table part (
    id integer primary key,
    code text not null unique,
    name text not null,
    pack_size integer not null check (pack_size > 0),
    bin text not null
  ) strict`.execute(db);
  await sql`create table machine (
    id integer primary key,
    tag text not null unique,
    name text not null,
    kind text not null,
    maker text not null,
    place text not null,
    machine_class text check (machine_class in ('L', 'M', 'H', 'HEPA')),
    last_collected text not null,
    hazard text not null check (hazard in ('plain', 'controlled', 'contained')),
    has_brush integer not null check (has_brush in (0, 1)),
    hose_bore_m real check (hose_bore_m > 0),
    hose_length_m real check (hose_length_m > 0),
    hose_selector_m real check (hose_selector_m > 0),
    in_service_on text not null
  ) strict`.execute(db);
  await sql`create table stage (
    id integer primary key,
    machine_id integer not null references machine (id),
    position integer not null check (position >= 0),
    kind text not null,
    name text not null,
    part_id integer references part (id),
    missing integer not null check (missing in (0, 1)),
    do_not_remove integer not null check (do_not_remove in (0, 1)),
    first_used_on text not null,
    unique (machine_id, position)
  ) strict`.execute(db);
  await sql`create table rule (
    id integer primary key,
    stage_id integer not null references stage (id),
    rule_json text not null check (json_valid(rule_json)),
    school text not null
  ) strict`.execute(db);
  await sql`create index rule_of_stage on rule (stage_id)`.execute(db);
};
