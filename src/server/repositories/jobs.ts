import { sql } from 'kysely';
import { readStored } from '@/contracts/stored';
import { ChangeReasonName, HazardName } from '@/contracts/enums';
import { JobEventJson, ProcedureJson, StagesJson } from '@/contracts/job';
import type { JobEvent, JobRecord, LoggedJobEvent } from '@/core/procedure/job-log';
import type { Db } from '../db/connect';

/** Every job with its log, oldest first; of one machine, or of some numbers, when they are named. */
export const loadJobs = async (db: Db, machineId?: number, ids?: readonly number[]): Promise<readonly JobRecord[]> => {
  let jobs = db.selectFrom('job').selectAll().orderBy('id');
  let lines = db.selectFrom('job_event as e').innerJoin('job as j', 'j.id', 'e.job_id').selectAll('e').orderBy('e.id');
  if (machineId !== undefined) {
    jobs = jobs.where('machine_id', '=', machineId);
    lines = lines.where('j.machine_id', '=', machineId);
  }
  if (ids !== undefined) {
    const list = sql<number>`(select value from json_each(${JSON.stringify(ids)}))`;
    jobs = jobs.where('id', 'in', list);
    lines = lines.where('e.job_id', 'in', list);
  }
  const rows = await jobs.execute();
  const events = new Map<number, LoggedJobEvent[]>(rows.map((r) => [r.id, []]));
  for (const e of await lines.execute())
    events
      .get(e.job_id)
      ?.push({ id: e.id, at: e.at, by: e.by_initials, event: readStored(JobEventJson, e.event_json) });
  return rows.map((r) => ({
    id: r.id,
    machineId: r.machine_id,
    startedAt: r.started_at,
    by: r.by_initials,
    lastCollected: r.last_collected,
    hazard: HazardName.parse(r.hazard),
    reason: ChangeReasonName.parse(r.reason),
    people: r.people === 2 ? 2 : 1,
    procedure: readStored(ProcedureJson, r.procedure_json),
    stages: readStored(StagesJson, r.stages_json),
    events: events.get(r.id) ?? [],
  }));
};

/** Jobs that were finished since a moment, with their logs. */
export const loadJobsEndedSince = async (db: Db, since: string): Promise<readonly JobRecord[]> => {
  const { rows } = await sql<{ job_id: number }>`select job_id from job_event
    where json_extract(event_json, '$.kind') in ('finished', 'abandoned') and at >= ${since}`.execute(db);
  return loadJobs(
    db,
    undefined,
    rows.map((r) => r.job_id),
  );
};

/** Jobs that have neither been finished nor given up, of the whole yard. */
export const loadOpenJobs = async (db: Db): Promise<readonly JobRecord[]> => {
  // Written out, not bound: otherwise SQLite does not use the partial index.
  const open = await sql<{ id: number }>`select id from job
    where id not in (select job_id from job_event where json_extract(event_json, '$.kind') in ('finished', 'abandoned'))`.execute(
    db,
  );
  return loadJobs(
    db,
    undefined,
    open.rows.map((j) => j.id),
  );
};

export const insertJob = async (db: Db, job: Omit<JobRecord, 'id' | 'events'>): Promise<number> => {
  const { id } = await db
    .insertInto('job')
    .values({
      machine_id: job.machineId,
      started_at: job.startedAt,
      by_initials: job.by,
      hazard: job.hazard,
      last_collected: job.lastCollected,
      procedure_json: JSON.stringify(job.procedure),
      reason: job.reason,
      people: job.people,
      stages_json: JSON.stringify(job.stages),
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const insertJobEvent = async (
  db: Db,
  entry: { readonly jobId: number; readonly at: string; readonly by: string; readonly event: JobEvent },
): Promise<number> => {
  const { id } = await db
    .insertInto('job_event')
    .values({ job_id: entry.jobId, at: entry.at, by_initials: entry.by, event_json: JSON.stringify(entry.event) })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};
