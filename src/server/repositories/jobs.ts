import { HazardName } from '@/contracts/enums';
import { JobEventJson, ProcedureJson } from '@/contracts/job';
import type { JobEvent, JobRecord, LoggedJobEvent } from '@/core/procedure/job-log';
import type { Db } from '../db/connect';

/** Every job of a machine with its log, oldest first. */
export const loadJobs = async (db: Db, machineId: number): Promise<readonly JobRecord[]> => {
  const rows = await db.selectFrom('job').selectAll().where('machine_id', '=', machineId).orderBy('id').execute();
  const events = new Map<number, LoggedJobEvent[]>(rows.map((r) => [r.id, []]));
  const logged = await db.selectFrom('job_event as e').innerJoin('job as j', 'j.id', 'e.job_id').selectAll('e').where('j.machine_id', '=', machineId).orderBy('e.id').execute();
  for (const e of logged) events.get(e.job_id)?.push({ id: e.id, at: e.at, by: e.by_initials, event: JobEventJson.parse(JSON.parse(e.event_json)) });
  return rows.map((r) => ({
    id: r.id,
    machineId: r.machine_id,
    startedAt: r.started_at,
    by: r.by_initials,
    lastCollected: r.last_collected,
    hazard: HazardName.parse(r.hazard),
    procedure: ProcedureJson.parse(JSON.parse(r.procedure_json)),
    events: events.get(r.id) ?? [],
  }));
};

export const insertJob = async (db: Db, job: Omit<JobRecord, 'id' | 'events'>): Promise<number> => {
  const { id } = await db
    .insertInto('job')
    .values({ machine_id: job.machineId, started_at: job.startedAt, by_initials: job.by, hazard: job.hazard, last_collected: job.lastCollected, procedure_json: JSON.stringify(job.procedure) })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const insertJobEvent = async (db: Db, entry: { readonly jobId: number; readonly at: string; readonly by: string; readonly event: JobEvent }): Promise<number> => {
  const { id } = await db
    .insertInto('job_event')
    .values({ job_id: entry.jobId, at: entry.at, by_initials: entry.by, event_json: JSON.stringify(entry.event) })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};
