import { type Kysely, sql } from 'kysely';
import { keepForEver } from '../append-only';

/** Run hours and fill checks, prices and lead times, orders, locks of the plan, and the outbox. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table usage_entry (
    id integer primary key,
    machine_id integer not null references machine (id),
    day text not null,
    hours real not null check (hours >= 0 and hours <= 24),
    dust text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index usage_of_machine on usage_entry (machine_id, day)`.execute(db);
  await sql`create table fill_look (
    id integer primary key,
    stage_id integer not null references stage (id),
    day text not null,
    share real not null check (share >= 0 and share <= 1.5),
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create index look_of_stage on fill_look (stage_id)`.execute(db);
  await sql`alter table part add column price real not null default 0`.execute(db);
  await sql`alter table part add column lead_days integer not null default 14`.execute(db);
  await sql`alter table part add column shelf_days integer`.execute(db);
  await sql`create table part_order (
    id integer primary key,
    part_id integer not null references part (id),
    quantity integer not null check (quantity > 0),
    arrives_on text not null,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create table order_arrival (
    id integer primary key,
    order_id integer not null unique references part_order (id),
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create table plan_lock (
    id integer primary key,
    stage_id integer not null references stage (id),
    day text,
    at text not null,
    by_initials text not null
  ) strict`.execute(db);
  await sql`create table outbox_message (
    id integer primary key,
    message_key text not null unique,
    at text not null,
    subject text not null,
    body text not null
  ) strict`.execute(db);
  await keepForEver(db, ['usage_entry', 'fill_look', 'part_order', 'order_arrival', 'plan_lock', 'outbox_message']);
};
