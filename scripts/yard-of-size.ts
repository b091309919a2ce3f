// Makes a yard of any size for the benches and the drills: the demo's machines over and over, each with years of tests,
// changes, run hours, looks and jobs written straight into the tables. Nothing of it is true of any machine.
import Sqlite from 'better-sqlite3';
import { seeded } from '@/core/numeric/seeded';

type Row = Record<string, number | string | null>;

export interface YardSize {
  readonly machines: number;
  readonly years: number;
}

/** A year of one machine; what the busiest of a large yard see. */
const A_YEAR = { tests: 8, hours: 98, changes: 12, looks: 10, jobs: 1 } as const;
const DAY_MS = 86_400_000;

const rowsOf = (db: Sqlite.Database, query: string, ...args: readonly unknown[]): Row[] =>
  db.prepare(query).all(...args) as Row[];

/** Inserts a row under a new number, with some of its columns otherwise. */
const inserter = (db: Sqlite.Database) => {
  const known = new Map<string, Sqlite.Statement>();
  return (table: string, row: Row): number => {
    const { id: _, ...rest } = row;
    const columns = Object.keys(rest);
    const key = `${table} ${columns.join()}`;
    const statement =
      known.get(key) ??
      db.prepare(`insert into ${table} (${columns.join()}) values (${columns.map((c) => `@${c}`).join()})`);
    known.set(key, statement);
    return Number(statement.run(rest).lastInsertRowid);
  };
};

/** Fills a file that was seeded with the demo up to a size; the number of rows there are then. */
export const growYard = (file: string, { machines, years }: YardSize, now: string, seed = 1): number => {
  const db = new Sqlite(file);
  db.pragma('synchronous = OFF');
  const insert = inserter(db);
  const { uniform } = seeded(seed);
  const day = (daysAgo: number) => new Date(Date.parse(now) - daysAgo * DAY_MS).toISOString();
  const days = years * 365;
  const patterns = rowsOf(db, 'select * from machine order by id').filter(
    (m) => rowsOf(db, 'select id from airflow_test where machine_id = ? and supersedes_id is null', m['id']).length > 2,
  );
  const jobs = rowsOf(
    db,
    `select * from job where id in (select job_id from job_event where json_extract(event_json, '$.kind') in ('finished', 'abandoned'))`,
  );

  const grow = (pattern: Row, number: number): void => {
    const machine = insert('machine', {
      ...pattern,
      tag: `Y-${String(number).padStart(4, '0')}`,
      name: `${String(pattern['name'])} ${number}`,
      in_service_on: day(days).slice(0, 10),
    });
    const stages = new Map<number, number>();
    for (const s of rowsOf(db, 'select * from stage where machine_id = ? and retired_on is null', pattern['id']))
      stages.set(
        Number(s['id']),
        insert('stage', { ...s, machine_id: machine, missing: 0, first_used_on: day(days).slice(0, 10) }),
      );
    for (const [was, is] of stages)
      for (const r of rowsOf(db, 'select * from rule where stage_id = ?', was)) {
        const text = String(r['rule_json']).replace(
          /"(countedStageId|stageId)":(\d+)/g,
          (_all, key: string, id: string) => `"${key}":${stages.get(Number(id)) ?? is}`,
        );
        insert('rule', { ...r, stage_id: is, rule_json: text });
      }
    const tests = rowsOf(
      db,
      `select * from airflow_test where machine_id = ? and supersedes_id is null and voided = 0
         and id not in (select supersedes_id from airflow_test where supersedes_id is not null)`,
      pattern['id'],
    ).filter((t) => String(t['detail_json']).includes('"none"'));
    const readings = new Map(
      tests.map((t) => [t['id'], rowsOf(db, 'select * from test_reading where test_id = ? order by seq', t['id'])]),
    );
    const [baseline = tests[0]] = tests.filter((t) => t['is_baseline'] === 1);
    const later = tests.filter((t) => t['is_baseline'] === 0);
    const addTest = (t: Row, ago: number) => {
      const at = day(ago);
      const id = insert('airflow_test', {
        ...t,
        machine_id: machine,
        performed_at: at,
        recorded_at: at,
        after_change_id: null,
      });
      for (const r of readings.get(t['id'] as number) ?? []) insert('test_reading', { ...r, test_id: id });
    };
    if (baseline) addTest(baseline, days - 1);
    for (let k = 0; k < A_YEAR.tests * years && later.length > 0; k += 1)
      addTest(
        later[Math.floor(uniform() * later.length)] as Row,
        ((k + uniform()) / (A_YEAR.tests * years)) * (days - 2),
      );
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
    const dusts = ['softwood dust', 'hardwood dust', 'plaster', 'epoxy sanding dust'];
    for (let k = 0; k < A_YEAR.hours * years; k += 1) {
      const ago = Math.floor((k / (A_YEAR.hours * years)) * (days - 1)) + 1;
      insert('usage_entry', {
        machine_id: machine,
        day: day(ago).slice(0, 10),
        hours: Math.round(10 + uniform() * 50) / 10,
        dust: dusts[Math.floor(uniform() ** 3 * dusts.length)] ?? '',
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
        at: now,
        by_initials: 'MK',
      });
    for (let k = 0; k < A_YEAR.jobs * years && jobs.length > 0; k += 1) {
      const pattern_ = jobs[Math.floor(uniform() * jobs.length)] as Row;
      const id = insert('job', { ...pattern_, machine_id: machine, started_at: day(uniform() * (days - 2)) });
      for (const e of rowsOf(db, 'select * from job_event where job_id = ? order by id', pattern_['id']))
        insert('job_event', { ...e, job_id: id });
    }
  };

  const have = rowsOf(db, 'select id from machine').length;
  db.transaction(() => {
    for (let k = have; k < machines; k += 1) grow(patterns[k % patterns.length] as Row, k);
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
