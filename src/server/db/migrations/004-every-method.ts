import { type Kysely, sql } from 'kysely';

/** Room for every way of measuring: a method's detail, what the flow is wanted for, the rig, the voltage, the slots. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  for (const column of [
    `detail_json text not null default '{"kind":"none"}' check (json_valid(detail_json))`,
    `use_json text not null default '{"wheelM":null,"ductLoad":null}' check (json_valid(use_json))`,
    `rig_series integer not null default 1 check (rig_series >= 1)`,
    `volts real check (volts > 0)`,
    `configuration text not null default ''`,
  ]) {
    await sql.raw(`alter table airflow_test add column ${column}`).execute(db);
  }
  await sql`alter table test_reading add column slot integer not null default 0 check (slot >= 0)`.execute(db);
  await sql`alter table test_reading add column how text not null default 'typed' check (how in ('typed', 'hold', 'max'))`.execute(
    db,
  );
  await sql`alter table machine add column nominal_volts real not null default 230 check (nominal_volts > 0)`.execute(
    db,
  );
};
