import { sql } from 'kysely';
import { readStored } from '@/contracts/stored';
import { CaseEventJson, ComplaintName, SchoolName } from '@/contracts/find';
import { HazardName } from '@/contracts/enums';
import type { CaseEvent, CaseRecord, LoggedEvent } from '@/core/diagnose/case-log';
import type { Db } from '../db/connect';

/** Every case with its log, oldest first; of one machine when it is named. */
export const loadCases = async (db: Db, machineId?: number): Promise<readonly CaseRecord[]> => {
  let query = db.selectFrom('fault_case').selectAll().orderBy('id');
  if (machineId !== undefined) query = query.where('machine_id', '=', machineId);
  const rows = await query.execute();
  const events = new Map<number, LoggedEvent[]>(rows.map((r) => [r.id, []]));
  const lines = await db
    .selectFrom('case_event as e')
    .innerJoin('fault_case as c', 'c.id', 'e.case_id')
    .selectAll('e')
    .$if(machineId !== undefined, (q) => q.where('c.machine_id', '=', machineId ?? 0))
    .orderBy('e.id')
    .execute();
  for (const e of lines) {
    events
      .get(e.case_id)
      ?.push({ id: e.id, at: e.at, by: e.by_initials, event: readStored(CaseEventJson, e.event_json) });
  }
  return rows.map((r) => ({
    id: r.id,
    machineId: r.machine_id,
    openedAt: r.opened_at,
    by: r.by_initials,
    complaint: ComplaintName.parse(r.complaint),
    words: r.words,
    hazard: HazardName.parse(r.hazard),
    lastCollected: r.last_collected,
    school: SchoolName.parse(r.school),
    events: events.get(r.id) ?? [],
  }));
};

export const insertCase = async (db: Db, c: Omit<CaseRecord, 'id' | 'events'>): Promise<number> => {
  const { id } = await db
    .insertInto('fault_case')
    .values({
      machine_id: c.machineId,
      opened_at: c.openedAt,
      by_initials: c.by,
      complaint: c.complaint,
      words: c.words,
      hazard: c.hazard,
      last_collected: c.lastCollected,
      school: c.school,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export interface NewCaseEvent {
  readonly caseId: number;
  readonly at: string;
  readonly by: string;
  readonly event: CaseEvent;
}

export const insertCaseEvent = async (db: Db, { caseId, at, by, event }: NewCaseEvent): Promise<number> => {
  const { id } = await db
    .insertInto('case_event')
    .values({ case_id: caseId, at, by_initials: by, event_json: JSON.stringify(event) })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

/** Machines with a case that is neither closed nor handed on. */
export const machinesWithOpenCase = async (db: Db): Promise<ReadonlySet<number>> => {
  // Written out, not bound: otherwise SQLite does not use the partial index.
  const { rows } = await sql<{ machine_id: number }>`select machine_id from fault_case
    where id not in (select case_id from case_event where json_extract(event_json, '$.kind') in ('closed', 'handedOn'))`.execute(
    db,
  );
  return new Set(rows.map((r) => r.machine_id));
};
