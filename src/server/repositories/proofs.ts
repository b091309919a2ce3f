import type { IntegrityTest } from '@/core/machine/integrity';
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
    .values({ machine_id: c.machineId, stage_id: c.stageId, at: c.at, by_initials: c.by, test: c.test, passed: c.passed ? 1 : 0, note: c.note })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

/** Every integrity test of a machine, oldest first. */
export const loadIntegrityChecks = async (db: Db, machineId: number): Promise<readonly (NewIntegrityCheck & { readonly id: number })[]> => {
  const rows = await db.selectFrom('integrity_check').selectAll().where('machine_id', '=', machineId).orderBy('id').execute();
  return rows.map((r) => ({ id: r.id, machineId: r.machine_id, stageId: r.stage_id, at: r.at, by: r.by_initials, test: r.test as IntegrityTest, passed: r.passed === 1, note: r.note }));
};

export interface Photo {
  readonly jobId: number;
  readonly at: string;
  readonly by: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

export const insertPhoto = async (db: Db, p: Photo): Promise<number> => {
  const { id } = await db.insertInto('photo').values({ job_id: p.jobId, at: p.at, by_initials: p.by, media_type: p.mediaType, bytes: p.bytes }).returning('id').executeTakeFirstOrThrow();
  return id;
};

export const findPhoto = async (db: Db, id: number): Promise<Photo | null> => {
  const r = await db.selectFrom('photo').selectAll().where('id', '=', id).executeTakeFirst();
  return r ? { jobId: r.job_id, at: r.at, by: r.by_initials, mediaType: r.media_type, bytes: r.bytes } : null;
};
