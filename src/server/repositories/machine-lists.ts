import { sql } from 'kysely';
import type { DatedQuery } from '@/contracts/reads';
import type { Db } from '../db/connect';
import { grouped } from './grouped';
import { cut, type Page, within } from './paged';

// Pages of the records of one machine for programs, by ascending id; no record is judged here.

interface WorkRow {
  readonly id: number;
  readonly performed_at: string;
  readonly recorded_at: string;
  readonly by_initials: string;
  readonly note: string;
  readonly supersedes_id: number | null;
  readonly voided: number;
}

const workOf = (r: WorkRow) => ({
  id: r.id,
  performedAt: r.performed_at,
  recordedAt: r.recorded_at,
  by: r.by_initials,
  note: r.note,
  supersedesId: r.supersedes_id,
  withdrawn: r.voided === 1,
});

export const listTests = async (db: Db, machineId: number, query: DatedQuery): Promise<Page<'TestsReply'>> => {
  const rows = await db
    .selectFrom('airflow_test')
    .selectAll()
    .where('machine_id', '=', machineId)
    .where('id', '>', query.after)
    .where(within('performed_at', query))
    .orderBy('id')
    .limit(query.limit + 1)
    .execute();
  const { items, next } = cut(rows, query.limit);
  const readings = await db
    .selectFrom('test_reading')
    .selectAll()
    .where(
      'test_id',
      'in',
      items.map((t) => t.id),
    )
    .orderBy('seq')
    .execute();
  const byTest = grouped(readings, (r) => r.test_id);
  return {
    next,
    items: items.map((t) => ({
      ...workOf(t),
      method: t.method,
      place: t.place,
      instrumentId: t.instrument_id,
      isBaseline: t.is_baseline === 1,
      bagState: t.bag_state,
      configuration: t.configuration,
      failedPreconditions: JSON.parse(t.failed_preconditions_json) as string[],
      readings: (byTest.get(t.id) ?? []).map((r) => ({
        typed: r.typed,
        unit: r.unit,
        valueSi: r.value_si,
        struckBecause: r.struck_because,
      })),
    })),
  };
};

export const listChanges = async (db: Db, machineId: number, query: DatedQuery): Promise<Page<'ChangesReply'>> => {
  const rows = await db
    .selectFrom('stage_change')
    .selectAll()
    .where('machine_id', '=', machineId)
    .where('id', '>', query.after)
    .where(within('performed_at', query))
    .orderBy('id')
    .limit(query.limit + 1)
    .execute();
  const { items, next } = cut(rows, query.limit);
  return {
    next,
    items: items.map((c) => ({
      ...workOf(c),
      stageId: c.stage_id,
      reason: c.reason,
      partId: c.part_id,
      quantity: c.quantity,
      beforeTestId: c.before_test_id,
      jobId: c.job_id,
    })),
  };
};

const KIND = sql<string>`json_extract(event_json, '$.kind')`.as('kind');

interface EventRow {
  readonly id: number;
  readonly at: string;
  readonly by_initials: string;
  readonly kind: string;
}

const eventsOf = (rows: readonly EventRow[]) =>
  rows.map((e) => ({ id: e.id, at: e.at, by: e.by_initials, kind: e.kind }));

/** The end of a log among its events; null while it is open. */
const endOf = <E extends string>(rows: readonly EventRow[], ends: readonly E[]): E | null =>
  ends.find((end) => rows.some((e) => e.kind === end)) ?? null;

export const listJobs = async (db: Db, machineId: number, query: DatedQuery): Promise<Page<'JobsReply'>> => {
  const rows = await db
    .selectFrom('job')
    .select(['id', 'started_at', 'by_initials', 'hazard', 'reason'])
    .select(sql<string>`json_extract(procedure_json, '$.id')`.as('procedure'))
    .where('machine_id', '=', machineId)
    .where('id', '>', query.after)
    .where(within('started_at', query))
    .orderBy('id')
    .limit(query.limit + 1)
    .execute();
  const { items, next } = cut(rows, query.limit);
  const events = await db
    .selectFrom('job_event')
    .select(['id', 'job_id', 'at', 'by_initials', KIND])
    .where(
      'job_id',
      'in',
      items.map((j) => j.id),
    )
    .orderBy('id')
    .execute();
  const byJob = grouped(events, (e) => e.job_id);
  return {
    next,
    items: items.map((j) => ({
      id: j.id,
      startedAt: j.started_at,
      by: j.by_initials,
      procedure: j.procedure,
      reason: j.reason,
      hazard: j.hazard,
      ended: endOf(byJob.get(j.id) ?? [], ['finished', 'abandoned'] as const),
      events: eventsOf(byJob.get(j.id) ?? []),
    })),
  };
};

export const listCases = async (db: Db, machineId: number, query: DatedQuery): Promise<Page<'CasesReply'>> => {
  const rows = await db
    .selectFrom('fault_case')
    .selectAll()
    .where('machine_id', '=', machineId)
    .where('id', '>', query.after)
    .where(within('opened_at', query))
    .orderBy('id')
    .limit(query.limit + 1)
    .execute();
  const { items, next } = cut(rows, query.limit);
  const events = await db
    .selectFrom('case_event')
    .select(['id', 'case_id', 'at', 'by_initials', KIND])
    .where(
      'case_id',
      'in',
      items.map((c) => c.id),
    )
    .orderBy('id')
    .execute();
  const byCase = grouped(events, (e) => e.case_id);
  return {
    next,
    items: items.map((c) => ({
      id: c.id,
      openedAt: c.opened_at,
      by: c.by_initials,
      complaint: c.complaint,
      words: c.words,
      hazard: c.hazard,
      ended: endOf(byCase.get(c.id) ?? [], ['closed', 'handedOn'] as const),
      events: eventsOf(byCase.get(c.id) ?? []),
    })),
  };
};

export const listLooks = async (db: Db, machineId: number, query: DatedQuery): Promise<Page<'LooksReply'>> => {
  const rows = await db
    .selectFrom('fill_look')
    .innerJoin('stage', 'stage.id', 'fill_look.stage_id')
    .select(['fill_look.id', 'fill_look.stage_id', 'fill_look.day', 'fill_look.share', 'fill_look.by_initials'])
    .where('stage.machine_id', '=', machineId)
    .where('fill_look.id', '>', query.after)
    .where(within('fill_look.day', query))
    .orderBy('fill_look.id')
    .limit(query.limit + 1)
    .execute();
  const { items, next } = cut(rows, query.limit);
  return {
    next,
    items: items.map((l) => ({ id: l.id, stageId: l.stage_id, day: l.day, share: l.share, by: l.by_initials })),
  };
};

export const listHours = async (db: Db, machineId: number, query: DatedQuery): Promise<Page<'HoursReply'>> => {
  const rows = await db
    .selectFrom('usage_entry')
    .select(['id', 'day', 'hours', 'by_initials'])
    .where('machine_id', '=', machineId)
    .where('id', '>', query.after)
    .where(within('day', query))
    .orderBy('id')
    .limit(query.limit + 1)
    .execute();
  const { items, next } = cut(rows, query.limit);
  return { next, items: items.map((u) => ({ id: u.id, day: u.day, hours: u.hours, by: u.by_initials })) };
};
