import { type Kysely, sql } from 'kysely';

export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`create table stock_movement (
    id integer primary key,
    part_id integer not null references part (id),
    quantity integer not null,
    reason text not null check (reason in ('opening', 'delivery', 'taken', 'returned', 'counted', 'correction')),
    at text not null,
    by_initials text not null,
    change_id integer references stage_change (id),
    note text not null
  ) strict`.execute(db);
  await sql`create index movement_of_part on stock_movement (part_id)`.execute(db);
  await sql`create trigger stock_movement_no_update before update on stock_movement
    begin select raise(abort, 'stock_movement is append-only'); end`.execute(db);
  await sql`create trigger stock_movement_no_delete before delete on stock_movement
    begin select raise(abort, 'stock_movement is append-only'); end`.execute(db);
  await sql`create table user_action (
    client_id text primary key,
    kind text not null,
    request_hash text not null,
    result_json text not null check (json_valid(result_json)),
    at text not null
  ) strict`.execute(db);
};
