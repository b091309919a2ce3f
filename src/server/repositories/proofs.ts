import { IntegrityTestName } from '@/contracts/enums';
import type { IntegrityTest, PenetrationTest } from '@/core/machine/integrity';
import type { Examination } from '@/core/machine/machine';
import type { Db } from '../db/connect';

export interface NewIntegrityCheck {
  readonly machineId: number;
  readonly stageId: number;
  readonly at: string;
  readonly by: string;
  readonly test: IntegrityTest;
  readonly passed: boolean;
  readonly note: string;
}

export const insertIntegrityCheck = async (db: Db, c: NewIntegrityCheck): Promise<number> => {
  const { id } = await db
    .insertInto('integrity_check')
    .values({
      machine_id: c.machineId,
      stage_id: c.stageId,
      at: c.at,
      by_initials: c.by,
      test: c.test,
      passed: c.passed ? 1 : 0,
      note: c.note,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

/** Every integrity test of a machine, oldest first. */
export const loadIntegrityChecks = async (
  db: Db,
  machineId: number,
): Promise<readonly (NewIntegrityCheck & { readonly id: number })[]> => {
  const rows = await db
    .selectFrom('integrity_check')
    .selectAll()
    .where('machine_id', '=', machineId)
    .orderBy('id')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    machineId: r.machine_id,
    stageId: r.stage_id,
    at: r.at,
    by: r.by_initials,
    test: IntegrityTestName.parse(r.test),
    passed: r.passed === 1,
    note: r.note,
  }));
};

export interface Photo {
  readonly jobId: number;
  readonly at: string;
  readonly by: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

export const insertPhoto = async (db: Db, p: Photo): Promise<number> => {
  const { id } = await db
    .insertInto('photo')
    .values({ job_id: p.jobId, at: p.at, by_initials: p.by, media_type: p.mediaType, bytes: p.bytes })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const findPhoto = async (db: Db, id: number): Promise<Photo | null> => {
  const r = await db.selectFrom('photo').selectAll().where('id', '=', id).executeTakeFirst();
  return r ? { jobId: r.job_id, at: r.at, by: r.by_initials, mediaType: r.media_type, bytes: r.bytes } : null;
};

export const insertPenetrationTest = async (
  db: Db,
  machineId: number,
  t: Omit<PenetrationTest, 'id'>,
): Promise<number> => {
  const { id } = await db
    .insertInto('penetration_test')
    .values({
      machine_id: machineId,
      tested_on: t.testedOn,
      tester: t.tester,
      method: t.method,
      certificate: t.certificate,
      share: t.share,
      limit_share: t.limit,
      next_due_on: t.nextDueOn,
      at: t.at,
      by_initials: t.by,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

/** Every penetration test with its machine, oldest first; of one machine when it is named. */
export const loadPenetrationTests = async (
  db: Db,
  machineId?: number,
): Promise<readonly (PenetrationTest & { readonly machineId: number })[]> => {
  const rows = await db
    .selectFrom('penetration_test')
    .selectAll()
    .$if(machineId !== undefined, (q) => q.where('machine_id', '=', machineId ?? 0))
    .orderBy('at')
    .orderBy('id')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    machineId: r.machine_id,
    at: r.at,
    by: r.by_initials,
    testedOn: r.tested_on,
    tester: r.tester,
    method: r.method,
    certificate: r.certificate,
    share: r.share,
    limit: r.limit_share,
    nextDueOn: r.next_due_on,
  }));
};

export const insertExamination = async (db: Db, machineId: number, e: Examination): Promise<number> => {
  const { id } = await db
    .insertInto('examination')
    .values({
      machine_id: machineId,
      examined_on: e.on,
      examiner: e.examiner,
      found: e.found,
      at: e.at,
      by_initials: e.by,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

/** Every examination with its machine, oldest first; of one machine when it is named. */
export const loadExaminations = async (
  db: Db,
  machineId?: number,
): Promise<readonly (Examination & { readonly id: number; readonly machineId: number })[]> => {
  const rows = await db
    .selectFrom('examination')
    .selectAll()
    .$if(machineId !== undefined, (q) => q.where('machine_id', '=', machineId ?? 0))
    .orderBy('examined_on')
    .orderBy('id')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    machineId: r.machine_id,
    on: r.examined_on,
    at: r.at,
    by: r.by_initials,
    examiner: r.examiner,
    found: r.found,
  }));
};

/** Records that the seat of a stage was opened: a class filter then needs a new proof. */
export const insertSeatOpening = async (
  db: Db,
  o: { readonly stageId: number; readonly why: string; readonly at: string; readonly by: string },
): Promise<void> => {
  await db
    .insertInto('seat_opening')
    .values({ stage_id: o.stageId, why: o.why, at: o.at, by_initials: o.by })
    .execute();
};
