import { sql } from 'kysely';
import type { Db } from '@/server/db/connect';

type Row = Readonly<Record<string, string | number | Uint8Array | null>>;

const AT = '2025-03-01T10:00:00.000Z';
const BY = 'MK';
const WORK = { machine_id: 1, performed_at: AT, recorded_at: AT, by_initials: BY, note: 'as written', voided: 0 };
const ENTRY = { at: AT, by_initials: BY };
const PATH = JSON.stringify({
  machine: {
    name: 'Old',
    maker: 'Maker B',
    place: 'here',
    machineClass: 'M',
    hasBrush: false,
    wetSet: false,
    hoseBoreM: 0.036,
    hoseLengthM: 3,
    hoseSelectorM: null,
    nominalVolts: 230,
    lastCollected: 'plaster',
    hazard: 'plain',
  },
  stages: [],
});
const PROCEDURE = JSON.stringify({
  id: 'plainBag',
  stage: 0,
  school: 'off',
  before: [],
  steps: [{ key: 'switchOff', run: 'off', stage: 0, because: 'method' }],
  integrity: [],
  goesWith: [],
  driesHours: null,
});

/**
 * One line for every table there ever was, by hand: nothing here comes from the application's own writers. Each column
 * that an older or newer schema has not is left out; the order is the order of the foreign keys.
 */
const ROWS: readonly (readonly [table: string, row: Row])[] = [
  [
    'site',
    {
      id: 1,
      name: 'Old yard',
      time_zone: 'Europe/London',
      altitude_m: 3,
      rule_set: 'eu_uk',
      warn_loss: 0.1,
      act_loss: 0.2,
    },
  ],
  ['part', { id: 1, code: 'B-1', name: 'Bag', pack_size: 5, bin: 'A1' }],
  [
    'machine',
    {
      id: 1,
      tag: 'T-1',
      name: 'Old',
      kind: 'mExtractor',
      maker: 'Maker B',
      place: 'here',
      machine_class: 'M',
      last_collected: 'plaster',
      hazard: 'plain',
      has_brush: 0,
      hose_bore_m: 0.036,
      hose_length_m: 3,
      hose_selector_m: null,
      in_service_on: '2025-01-01',
    },
  ],
  [
    'stage',
    {
      id: 1,
      machine_id: 1,
      position: 0,
      kind: 'bag',
      name: 'Bag',
      part_id: 1,
      missing: 0,
      do_not_remove: 0,
      first_used_on: '2025-01-01',
    },
  ],
  ['rule', { id: 1, stage_id: 1, rule_json: '{"kind":"calendarDays","days":30}', school: 'by the maker' }],
  [
    'instrument',
    {
      id: 1,
      name: 'Meter',
      reads: 'flow',
      accuracy_json: '{"meaning":"limits","coverageFactor":2,"relative":0.02,"absoluteSi":0,"resolutionSi":0.0001}',
      calibration_due_on: '2026-01-01',
    },
  ],
  [
    'stage_change',
    {
      ...WORK,
      id: 1,
      supersedes_id: null,
      correction_reason: null,
      stage_id: 1,
      reason: 'fill',
      part_id: 1,
      quantity: 1,
      before_test_id: null,
    },
  ],
  [
    'airflow_test',
    {
      ...WORK,
      id: 1,
      supersedes_id: null,
      correction_reason: null,
      method: 'flowMeter',
      place: 'hoseEnd',
      instrument_id: 1,
      air_json: '{"temperatureK":293.15,"relativeHumidity":0.5,"pressurePa":101325}',
      failed_preconditions_json: '[]',
      is_baseline: 1,
      bag_state: 'asLeft',
      after_change_id: 1,
    },
  ],
  [
    'test_reading',
    { id: 1, test_id: 1, seq: 0, typed: '30', unit: 'L/s', value_si: 0.03, resolution_si: 0.001, struck_because: null },
  ],
  [
    'path_edit',
    {
      id: 1,
      machine_id: 1,
      performed_at: AT,
      by_initials: BY,
      note: '',
      before_json: PATH,
      after_json: PATH,
      reshapes: 0,
    },
  ],
  [
    'fault_case',
    {
      id: 1,
      machine_id: 1,
      opened_at: AT,
      by_initials: BY,
      complaint: 'noSuction',
      words: 'weak',
      hazard: 'plain',
      last_collected: 'plaster',
      school: 'best',
    },
  ],
  ['case_event', { ...ENTRY, id: 1, case_id: 1, event_json: '{"kind":"school","school":"takeOut"}' }],
  [
    'job',
    {
      id: 1,
      machine_id: 1,
      started_at: AT,
      by_initials: BY,
      hazard: 'plain',
      last_collected: 'plaster',
      procedure_json: PROCEDURE,
    },
  ],
  ['job_event', { ...ENTRY, id: 1, job_id: 1, event_json: '{"kind":"did","step":0}' }],
  ['integrity_check', { ...ENTRY, id: 1, machine_id: 1, stage_id: 1, test: 'cleanSide', passed: 1, note: '' }],
  ['photo', { ...ENTRY, id: 1, job_id: 1, media_type: 'image/png', bytes: new Uint8Array([137, 80]) }],
  [
    'stock_movement',
    { ...ENTRY, id: 1, part_id: 1, quantity: 10, reason: 'opening', change_id: null, note: 'counted' },
  ],
  ['stock_movement', { ...ENTRY, id: 2, part_id: 1, quantity: -1, reason: 'taken', change_id: null, note: 'job 1' }],
  [
    'stock_movement',
    {
      ...ENTRY,
      id: 3,
      part_id: 1,
      quantity: 1,
      reason: 'returned',
      change_id: null,
      note: 'job 1: proved nothing, opened',
    },
  ],
  [
    'stock_movement',
    {
      ...ENTRY,
      id: 4,
      part_id: 1,
      quantity: -1,
      reason: 'taken',
      change_id: null,
      note: 'case 1: on trial, the old one held',
    },
  ],
  [
    'stock_movement',
    {
      ...ENTRY,
      id: 5,
      part_id: 1,
      quantity: -1,
      reason: 'counted',
      change_id: null,
      note: 'job 99 was never written down',
    },
  ],
  [
    'user_action',
    { client_id: 'abc', kind: 'test', request_hash: 'x', result_json: '{"ok":true,"value":{"id":1}}', at: AT },
  ],
  ['usage_entry', { ...ENTRY, id: 1, machine_id: 1, day: '2025-03-01', hours: 2, dust: 'plaster' }],
  ['fill_look', { ...ENTRY, id: 1, stage_id: 1, day: '2025-03-01', share: 0.5 }],
  ['part_order', { ...ENTRY, id: 1, part_id: 1, quantity: 5, arrives_on: '2025-03-10' }],
  ['order_arrival', { ...ENTRY, id: 1, order_id: 1 }],
  [
    'person',
    {
      id: 1,
      initials: 'MK',
      name: 'Person MK',
      role: 'technician',
      may_contain: 0,
      mask_fit_on: null,
      trained_on: null,
      active: 1,
      added_at: AT,
    },
  ],
  ['crew_entry', { ...ENTRY, id: 1, person_id: 1, entry_json: '{"kind":"times","minutes":[0,60,60,60,60,60,0]}' }],
  ['stage_start', { ...ENTRY, id: 1, stage_id: 1, day: '2025-03-02' }],
  ['plan_lock', { ...ENTRY, id: 1, stage_id: 1, day: '2025-03-12' }],
  ['outbox_message', { id: 1, message_key: 'k', at: AT, subject: 's', body: 'b' }],
  ['machine_away', { ...ENTRY, id: 1, machine_id: 1, from_day: '2025-03-01', to_day: '2025-03-02', why: 'on loan' }],
  [
    'plan_promise',
    {
      stage_id: 1,
      cycle: 1,
      day: '2025-03-03',
      set_on: '2025-03-01',
      middle: '2025-03-03',
      part_day: null,
      records: 1,
      locked: 0,
      moved_from: null,
      moved_on: null,
      because: null,
    },
  ],
  [
    'dust_entry',
    {
      ...ENTRY,
      id: 1,
      key: 'ownDust',
      dust_json:
        '{"key":"ownDust","name":"own dust","family":"nuisance","synonyms":["own dust"],"limits":[],"properties":[],"neededClass":{"eu_uk":"M","us":"M"},"level":"controlled","refused":null,"asks":[],"cleanedBy":[],"waste":"","note":"","retired":false}',
    },
  ],
  [
    'dust_collected',
    {
      ...ENTRY,
      id: 1,
      machine_id: 1,
      since_on: '2025-01-01',
      said: 'plaster',
      confirmed_json: '[]',
      denied_json: '[]',
      answers_json: '{}',
      own_level: 'plain',
      lower_because: '',
    },
  ],
  [
    'decontamination',
    {
      at: '2024-12-31T10:00:00.000Z',
      by_initials: BY,
      id: 1,
      machine_id: 1,
      on_day: '2024-12-31',
      how: 'contractor',
      paper: 'C-1',
      job_id: null,
    },
  ],
  [
    'penetration_test',
    {
      ...ENTRY,
      id: 1,
      machine_id: 1,
      tested_on: '2025-03-05',
      tester: 'firm',
      method: 'aerosol',
      certificate: 'P-1',
      share: 0.001,
      limit_share: 0.005,
      next_due_on: null,
    },
  ],
  ['examination', { ...ENTRY, id: 1, machine_id: 1, examined_on: '2025-03-05', examiner: 'firm', found: 'sound' }],
  ['seat_opening', { ...ENTRY, id: 1, stage_id: 1, why: 'job 1' }],
];

const tablesOf = async (db: Db): Promise<ReadonlySet<string>> => {
  const { rows } = await sql<{ name: string }>`select name from sqlite_master where type = 'table'`.execute(db);
  return new Set(rows.map((r) => r.name));
};

const columnsOf = async (db: Db, table: string): Promise<ReadonlySet<string>> => {
  const { rows } = await sql<{ name: string }>`select name from pragma_table_info(${table})`.execute(db);
  return new Set(rows.map((r) => r.name));
};

/** Fills every table this schema has; answers how many lines each got. */
export const fillSchema = async (db: Db): Promise<ReadonlyMap<string, number>> => {
  const tables = await tablesOf(db);
  const filled = new Map<string, number>();
  for (const [table, row] of ROWS.filter(([t]) => tables.has(t))) {
    const columns = await columnsOf(db, table);
    const kept = Object.entries(row).filter(([column]) => columns.has(column));
    await sql`insert into ${sql.table(table)} (${sql.join(kept.map(([c]) => sql.ref(c)))}) values (${sql.join(kept.map(([, v]) => v))})`.execute(
      db,
    );
    filled.set(table, (filled.get(table) ?? 0) + 1);
  }
  return filled;
};

export const countOf = async (db: Db, table: string): Promise<number> => {
  const { rows } = await sql<{ n: number }>`select count(*) as n from ${sql.table(table)}`.execute(db);
  return rows[0]?.n ?? -1;
};

/** What the file itself says of its keys and pages; empty when all is well. */
export const complaintsOf = async (db: Db): Promise<readonly unknown[]> => {
  const keys = await sql`pragma foreign_key_check`.execute(db);
  const pages = await sql<{ integrity_check: string }>`pragma integrity_check`.execute(db);
  return [...keys.rows, ...pages.rows.filter((r) => r.integrity_check !== 'ok')];
};
