// Makes a yard of any size for the benches and the drills: the demo's machines over and over, each with years of tests,
// changes, run hours, looks and jobs written straight into the tables. Nothing of it is true of any machine.
import { DAY_MS } from '@/core/calendar/time';
import Sqlite from 'better-sqlite3';
import { seeded } from '@/core/numeric/seeded';

type Row = Record<string, number | string | null>;

export interface YardSize {
  readonly machines: number;
  readonly years: number;
}

/** A year of one machine; what the busiest of a large yard see. */
const A_YEAR = { tests: 8, hours: 98, changes: 12, looks: 10, jobs: 1 } as const;

const rowsOf = (db: Sqlite.Database, query: string, ...args: readonly unknown[]): Row[] =>
  db.prepare(query).all(...args) as Row[];

/** Inserts a row under a new number, with some of its columns otherwise. */
const inserter = (db: Sqlite.Database) => {
  const known = new Map<string, Sqlite.Statement>();
  return (table: string, row: Row): number => {
    const columns = Object.keys(row).filter((c) => c !== 'id');
    const rest = Object.fromEntries(columns.map((c) => [c, row[c]]));
    const key = `${table} ${columns.join()}`;
    const statement =
      known.get(key) ??
      db.prepare(`insert into ${table} (${columns.join()}) values (${columns.map((c) => `@${c}`).join()})`);
    known.set(key, statement);
    return Number(statement.run(rest).lastInsertRowid);
  };
};

interface Growing {
  readonly db: Sqlite.Database;
  readonly insert: ReturnType<typeof inserter>;
  readonly uniform: () => number;
  /** The moment so many days before now. */
  readonly day: (daysAgo: number) => string;
  readonly days: number;
  readonly years: number;
  /** Jobs that are over, to be had again. */
  readonly jobs: readonly Row[];
}

/** A machine like one of the demo's, with its stages and rules; its number. */
const addMachine = ({ db, insert, day, days }: Growing, pattern: Row, number: number): number => {
  const first = day(days).slice(0, 10);
  const machine = insert('machine', {
    ...pattern,
    tag: `Y-${String(number).padStart(4, '0')}`,
    name: `${String(pattern['name'])} ${number}`,
    in_service_on: first,
  });
  const stages = new Map<number, number>();
  for (const s of rowsOf(db, 'select * from stage where machine_id = ? and retired_on is null', pattern['id']))
    stages.set(Number(s['id']), insert('stage', { ...s, machine_id: machine, missing: 0, first_used_on: first }));
  for (const [was, is] of stages)
    for (const r of rowsOf(db, 'select * from rule where stage_id = ?', was)) {
      const text = String(r['rule_json']).replace(
        /"(countedStageId|stageId)":(\d+)/g,
        (_all, key: string, id: string) => `"${key}":${stages.get(Number(id)) ?? is}`,
      );
      insert('rule', { ...r, stage_id: is, rule_json: text });
    }
  return machine;
};

const addTests = ({ db, insert, uniform, day, days, years }: Growing, pattern: Row, machine: number): void => {
  const tests = rowsOf(
    db,
    `select * from airflow_test where machine_id = ? and supersedes_id is null and voided = 0
       and id not in (select supersedes_id from airflow_test where supersedes_id is not null)`,
    pattern['id'],
  ).filter((t) => String(t['detail_json']).includes('"none"'));
  const add = (t: Row | undefined, ago: number) => {
    if (!t) return;
    const at = day(ago);
    const id = insert('airflow_test', {
      ...t,
      machine_id: machine,
      performed_at: at,
      recorded_at: at,
      after_change_id: null,
    });
    for (const r of rowsOf(db, 'select * from test_reading where test_id = ? order by seq', t['id']))
      insert('test_reading', { ...r, test_id: id });
  };
  add(tests.find((t) => t['is_baseline'] === 1) ?? tests[0], days - 1);
  const later = tests.filter((t) => t['is_baseline'] === 0);
  const many = A_YEAR.tests * years;
  for (let k = 0; k < many; k += 1)
    add(later[Math.floor(uniform() * later.length)], ((k + uniform()) / many) * (days - 2));
};

const addChanges = ({ db, insert, uniform, day, days, years }: Growing, machine: number): void => {
  const parts = rowsOf(db, 'select id, part_id from stage where machine_id = ? and part_id is not null', machine);
  for (let k = 0; k < A_YEAR.changes * years && parts.length > 0; k += 1) {
    const stage = parts[Math.floor(uniform() ** 2 * parts.length)];
    const at = day(uniform() * (days - 2));
    const change = insert('stage_change', {
      machine_id: machine,
      stage_id: stage?.['id'] ?? null,
      performed_at: at,
      recorded_at: at,
      by_initials: 'MK',
      note: '',
      voided: 0,
      correction_reason: null,
      supersedes_id: null,
      reason: 'fill',
      part_id: stage?.['part_id'] ?? null,
      quantity: 1,
      before_test_id: null,
      job_id: null,
      done_by: null,
      done_how: null,
    });
    insert('stock_movement', {
      part_id: stage?.['part_id'] ?? null,
      quantity: -1,
      reason: 'taken',
      at,
      by_initials: 'MK',
      change_id: change,
      job_id: null,
      case_id: null,
      note: '',
    });
  }
};

const DUSTS = ['softwood dust', 'hardwood dust', 'plaster', 'epoxy sanding dust'];

const addWear = ({ db, insert, uniform, day, days, years }: Growing, machine: number): void => {
  const many = A_YEAR.hours * years;
  for (let k = 0; k < many; k += 1) {
    const ago = Math.floor((k / many) * (days - 1)) + 1;
    insert('usage_entry', {
      machine_id: machine,
      day: day(ago).slice(0, 10),
      hours: Math.round(10 + uniform() * 50) / 10,
      dust: DUSTS[Math.floor(uniform() ** 3 * DUSTS.length)] ?? '',
      at: day(ago),
      by_initials: 'MK',
    });
  }
  const bag = rowsOf(db, `select id from stage where machine_id = ? and kind in ('bag', 'cyclone')`, machine)[0];
  for (let k = 0; k < A_YEAR.looks * years && bag; k += 1)
    insert('fill_look', {
      stage_id: bag['id'] ?? null,
      day: day(uniform() * (days - 2)).slice(0, 10),
      share: Math.round(10 + uniform() * 80) / 100,
      at: day(0),
      by_initials: 'MK',
    });
};

const addJobs = ({ db, insert, uniform, day, days, years, jobs }: Growing, machine: number): void => {
  for (let k = 0; k < A_YEAR.jobs * years; k += 1) {
    const pattern = jobs[Math.floor(uniform() * jobs.length)];
    if (!pattern) return;
    const id = insert('job', { ...pattern, machine_id: machine, started_at: day(uniform() * (days - 2)) });
    for (const e of rowsOf(db, 'select * from job_event where job_id = ? order by id', pattern['id']))
      insert('job_event', { ...e, job_id: id });
  }
};

/** Fills a file that was seeded with the demo up to a size; the number of rows there are then. */
export const growYard = (file: string, { machines, years }: YardSize, now: string): number => {
  const db = new Sqlite(file);
  db.pragma('synchronous = OFF');
  const g: Growing = {
    db,
    insert: inserter(db),
    uniform: seeded(1).uniform,
    day: (daysAgo) => new Date(Date.parse(now) - daysAgo * DAY_MS).toISOString(),
    days: years * 365,
    years,
    jobs: rowsOf(
      db,
      `select * from job where id in (select job_id from job_event where json_extract(event_json, '$.kind') in ('finished', 'abandoned'))`,
    ),
  };
  const patterns = rowsOf(db, 'select * from machine order by id').filter(
    (m) => rowsOf(db, 'select id from airflow_test where machine_id = ? and supersedes_id is null', m['id']).length > 2,
  );
  const have = rowsOf(db, 'select id from machine').length;
  db.transaction(() => {
    for (let k = have; k < machines; k += 1) {
      const pattern = patterns[k % patterns.length];
      if (!pattern) return;
      const machine = addMachine(g, pattern, k);
      addTests(g, pattern, machine);
      addChanges(g, machine);
      addWear(g, machine);
      addJobs(g, machine);
    }
  })();
  const tables = rowsOf(db, `select name from sqlite_master where type = 'table' and name not like 'sqlite_%'`);
  const rows = tables.reduce(
    (sum, t) => sum + Number(rowsOf(db, `select count(*) as n from "${String(t['name'])}"`)[0]?.['n'] ?? 0),
    0,
  );
  db.exec('analyze');
  db.close();
  return rows;
};
