import { type Kysely, sql } from 'kysely';
import type { Tables } from './tables';

// Derived data: digests and forecasts of machines, and the revision that caches in memory follow. This list says which
// table bears on what; the triggers are made from it, and a new table without an entry does not compile.

/**
 * The derived data that a written row of a table makes out of date.
 * `self`, `machine`, `stage`, `test`, `part`: the digest and forecast of the machine that the row is, or belongs to.
 * `all`: those of every machine. `revision`: only caches in memory. `apart`: nothing.
 */
export const BEARS_ON: Readonly<
  Record<keyof Tables, 'self' | 'machine' | 'stage' | 'test' | 'part' | 'all' | 'revision' | 'apart'>
> = {
  machine: 'self',
  stage: 'machine',
  path_edit: 'machine',
  airflow_test: 'machine',
  stage_change: 'machine',
  usage_entry: 'machine',
  dust_collected: 'machine',
  decontamination: 'machine',
  penetration_test: 'machine',
  examination: 'machine',
  integrity_check: 'machine',
  machine_retirement: 'machine',
  rule: 'stage',
  fill_look: 'stage',
  stage_start: 'stage',
  seat_opening: 'stage',
  test_reading: 'test',
  part: 'part',
  site: 'all',
  dust_entry: 'all',
  instrument: 'all',
  stock_movement: 'revision',
  fault_case: 'revision',
  case_event: 'revision',
  job: 'revision',
  job_event: 'revision',
  photo: 'revision',
  part_order: 'revision',
  order_arrival: 'revision',
  plan_lock: 'revision',
  crew_entry: 'revision',
  machine_away: 'revision',
  // Read from the records each time they are shown.
  setting_change: 'apart',
  former_tag: 'apart',
  part_merge: 'apart',
  part_photo: 'apart',
  tool_entry: 'apart',
  bonding_reading: 'apart',
  upgrade: 'apart',
  upgrade_event: 'apart',
  upgrade_photo: 'apart',
  outbox_message: 'apart',
  identity: 'apart',
  sheet_import: 'apart',
  sheet_undo: 'apart',
  undoing: 'apart',
  user_action: 'apart',
  person: 'revision',
  session: 'apart',
  access_key: 'apart',
  audit_line: 'apart',
  // Derived themselves.
  yard_revision: 'apart',
  machine_digest: 'apart',
  machine_forecast: 'apart',
  stock_on_hand: 'apart',
  plan_promise: 'apart',
};

const ACTIONS = ['insert', 'update', 'delete'] as const;
const STORES = ['machine_digest', 'machine_forecast'] as const;

/** The machines of a written row, as SQL; null for all of them. */
const MACHINES: Readonly<
  Record<Exclude<(typeof BEARS_ON)[keyof Tables], 'revision' | 'apart' | 'all'>, (row: 'new' | 'old') => string>
> = {
  self: (row) => `${row}.id`,
  machine: (row) => `${row}.machine_id`,
  stage: (row) => `select machine_id from stage where id = ${row}.stage_id`,
  test: (row) => `select machine_id from airflow_test where id = ${row}.test_id`,
  part: (row) => `select machine_id from stage where part_id = ${row}.id`,
};

const deletions = (bearing: (typeof BEARS_ON)[keyof Tables], row: 'new' | 'old'): string => {
  if (bearing === 'revision' || bearing === 'apart') return '';
  const where = bearing === 'all' ? '' : ` where machine_id in (${MACHINES[bearing](row)})`;
  return STORES.map((store) => ` delete from ${store}${where};`).join('');
};

/** The triggers that the list asks for, by name, as SQL. */
export const wantedTriggers = (): ReadonlyMap<string, string> =>
  new Map(
    Object.entries(BEARS_ON).flatMap(([table, bearing]) =>
      bearing === 'apart'
        ? []
        : ACTIONS.map((action) => {
            const name = `${table}_${action}_seen`;
            const row = action === 'delete' ? 'old' : 'new';
            return [
              name,
              `CREATE TRIGGER ${name} after ${action} on ${table} begin update yard_revision set n = n + 1;${deletions(bearing, row)} end`,
            ] as const;
          }),
    ),
  );

/**
 * Brings the triggers of a file to the list: a file of an older build, or a restored backup, may have others. Writes
 * nothing where they agree.
 */
export const reconcileDerived = async (db: Kysely<Tables>): Promise<void> => {
  const { rows } = await sql<{ name: string; sql: string }>`
    select name, sql from sqlite_master where type = 'trigger' and name like '%\\_seen' escape '\\'`.execute(db);
  const wanted = wantedTriggers();
  const present = new Map(rows.map((r) => [r.name, r.sql]));
  const stale = [...present.keys()].filter((name) => present.get(name) !== wanted.get(name));
  const missing = [...wanted.keys()].filter((name) => present.get(name) !== wanted.get(name));
  if (stale.length === 0 && missing.length === 0) return;
  await db.transaction().execute(async (tx) => {
    for (const name of stale) await sql`drop trigger ${sql.ref(name)}`.execute(tx);
    for (const name of missing) await sql.raw(wanted.get(name) ?? '').execute(tx);
    // Rows written under other triggers may have left derived data that is out of date.
    for (const store of STORES) await sql`delete from ${sql.table(store)}`.execute(tx);
  });
};
