import { ChangeReasonName } from '@/contracts/enums';
import { dayAt } from '@/core/calendar/calendar-date';
import type { ChangeReason, ChangeRecord } from '@/core/record/records';
import type { Db } from '../db/connect';

/** Every change, superseded and withdrawn ones too, oldest first; of one machine when it is named. */
export const loadChanges = async (db: Db, timeZone: string, machineId?: number): Promise<readonly ChangeRecord[]> =>
  changesWhere(db, timeZone, { machineId });

/** Every change of the yard since a moment, oldest first. */
export const loadChangesSince = async (db: Db, timeZone: string, since: string): Promise<readonly ChangeRecord[]> =>
  changesWhere(db, timeZone, { since });

const changesWhere = async (
  db: Db,
  timeZone: string,
  { machineId, since }: { readonly machineId?: number | undefined; readonly since?: string },
): Promise<readonly ChangeRecord[]> => {
  let query = db
    .selectFrom('stage_change as c')
    .leftJoin('stage_change as next', 'next.supersedes_id', 'c.id')
    .selectAll('c')
    .select('next.id as superseded_by_id')
    .orderBy('c.performed_at')
    .orderBy('c.id');
  if (machineId !== undefined) query = query.where('c.machine_id', '=', machineId);
  if (since !== undefined) query = query.where('c.performed_at', '>=', since);
  return (await query.execute()).map((row) => ({
    id: row.id,
    machineId: row.machine_id,
    performedAt: row.performed_at,
    performedOn: dayAt(row.performed_at, timeZone),
    recordedAt: row.recorded_at,
    by: row.by_initials,
    note: row.note,
    supersedesId: row.supersedes_id,
    supersededById: row.superseded_by_id,
    voided: row.voided === 1,
    correctionReason: row.correction_reason,
    stageId: row.stage_id,
    reason: ChangeReasonName.parse(row.reason),
    partId: row.part_id,
    quantity: row.quantity,
    beforeTestId: row.before_test_id,
    jobId: row.job_id,
    how: row.done_by === null || row.done_how === null ? null : { by: row.done_by, how: row.done_how },
  }));
};

export interface NewChange {
  readonly machineId: number;
  readonly stageId: number;
  readonly performedAt: string;
  readonly recordedAt: string;
  readonly by: string;
  readonly note: string;
  readonly reason: ChangeReason;
  readonly partId: number | null;
  readonly quantity: number;
  readonly beforeTestId: number | null;
  readonly jobId: number | null;
  /** For an unguided change. */
  readonly how?: ChangeRecord['how'];
  readonly supersedes: { readonly id: number; readonly reason: string; readonly voided: boolean } | null;
}

export const insertChange = async (db: Db, entry: NewChange): Promise<number> => {
  const { id } = await db
    .insertInto('stage_change')
    .values({
      machine_id: entry.machineId,
      stage_id: entry.stageId,
      performed_at: entry.performedAt,
      recorded_at: entry.recordedAt,
      by_initials: entry.by,
      note: entry.note,
      reason: entry.reason,
      part_id: entry.partId,
      quantity: entry.quantity,
      before_test_id: entry.beforeTestId,
      job_id: entry.jobId,
      done_by: entry.how?.by ?? null,
      done_how: entry.how?.how ?? null,
      supersedes_id: entry.supersedes?.id ?? null,
      voided: entry.supersedes?.voided ? 1 : 0,
      correction_reason: entry.supersedes?.reason ?? null,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};
