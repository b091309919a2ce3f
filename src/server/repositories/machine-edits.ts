import { readStored } from '@/contracts/stored';
import { StoredSnapshotJson } from '@/contracts/machine-edit';
import type { EditedMachine, EditedStage, PathEditRecord, PathSnapshot } from '@/core/machine/path-edit';
import type { Db } from '../db/connect';

const columnsOf = (m: EditedMachine) => ({
  name: m.name,
  maker: m.maker,
  place: m.place,
  machine_class: m.machineClass,
  has_brush: m.hasBrush ? 1 : 0,
  wet_set: m.wetSet ? 1 : 0,
  hose_bore_m: m.hoseBoreM,
  hose_length_m: m.hoseLengthM,
  hose_selector_m: m.hoseSelectorM,
  nominal_volts: m.nominalVolts,
});

export const insertMachine = async (
  db: Db,
  m: EditedMachine & { readonly tag: string; readonly kind: string; readonly inServiceOn: string },
): Promise<number> => {
  const { id } = await db
    .insertInto('machine')
    .values({ ...columnsOf(m), tag: m.tag, kind: m.kind, in_service_on: m.inServiceOn })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const updateMachine = async (db: Db, id: number, m: EditedMachine): Promise<void> => {
  await db.updateTable('machine').set(columnsOf(m)).where('id', '=', id).execute();
};

/** Positions of moving and retired stages: beyond every real one. */
const RETIRED_POSITIONS_FROM = 10_000;

export interface StagesToSave {
  readonly machineId: number;
  readonly stages: readonly EditedStage[];
  /** Missing before this edit, by stage: when it was first seen stays. */
  readonly missingSince: ReadonlyMap<number, string | null>;
  readonly wasMissing: ReadonlySet<number>;
  readonly at: string;
  readonly today: string;
}

/** Writes a machine's stages in order: known ones keep their records, removed ones are retired. */
export const saveStages = async (
  db: Db,
  { machineId, stages, missingSince, wasMissing, at, today }: StagesToSave,
): Promise<void> => {
  const current = await db
    .selectFrom('stage')
    .select('id')
    .where('machine_id', '=', machineId)
    .where('retired_on', 'is', null)
    .execute();
  for (const { id } of current) {
    const kept = stages.some((s) => s.id === id);
    await db
      .updateTable('stage')
      .set({ position: RETIRED_POSITIONS_FROM + id, retired_on: kept ? null : today })
      .where('id', '=', id)
      .execute();
  }
  for (const [position, s] of stages.entries()) {
    const since = s.id !== null && wasMissing.has(s.id) ? (missingSince.get(s.id) ?? null) : at;
    const row = {
      position,
      kind: s.kind,
      name: s.name,
      part_id: s.partId,
      missing: s.missing ? 1 : 0,
      missing_since: s.missing ? since : null,
      do_not_remove: s.doNotRemove ? 1 : 0,
      spec_json: JSON.stringify(s.spec),
    };
    if (s.id === null)
      await db
        .insertInto('stage')
        .values({ ...row, machine_id: machineId, first_used_on: today })
        .execute();
    else await db.updateTable('stage').set(row).where('id', '=', s.id).where('machine_id', '=', machineId).execute();
  }
};

/** The timers of a new machine run from its first use, not from the day it was bought. */
export const startTimers = async (db: Db, stageIds: readonly number[], today: string): Promise<void> => {
  if (stageIds.length > 0)
    await db.updateTable('stage').set({ first_used_on: today }).where('id', 'in', stageIds).execute();
};

export const insertPathEdit = async (
  db: Db,
  edit: Omit<PathEditRecord, 'id'> & { readonly reshapes: boolean },
): Promise<number> => {
  const { id } = await db
    .insertInto('path_edit')
    .values({
      machine_id: edit.machineId,
      performed_at: edit.performedAt,
      by_initials: edit.by,
      note: edit.note,
      before_json: JSON.stringify(edit.before),
      after_json: JSON.stringify(edit.after),
      reshapes: edit.reshapes ? 1 : 0,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

const snapshot = (json: string): PathSnapshot => readStored(StoredSnapshotJson, json);

/** Every edit of one machine's path, oldest first. */
export const loadPathEdits = async (db: Db, machineId: number): Promise<readonly PathEditRecord[]> => {
  const rows = await db.selectFrom('path_edit').selectAll().where('machine_id', '=', machineId).orderBy('id').execute();
  return rows.map((r) => ({
    id: r.id,
    machineId: r.machine_id,
    performedAt: r.performed_at,
    by: r.by_initials,
    note: r.note,
    before: snapshot(r.before_json),
    after: snapshot(r.after_json),
  }));
};

/** Whether a tag is taken, or was another machine's once, without regard to case. */
export const tagTaken = async (db: Db, tag: string, exceptOf: number | null = null): Promise<boolean> => {
  const now = await db.selectFrom('machine').select(['id', 'tag']).execute();
  const once = await db.selectFrom('former_tag').select(['machine_id as id', 'tag']).execute();
  return [...now, ...once].some((r) => r.id !== exceptOf && r.tag.toUpperCase() === tag.toUpperCase());
};

interface Retagged {
  readonly from: string;
  readonly to: string;
  readonly at: string;
  readonly by: string;
}

/** Gives a machine another tag, and keeps the one it had. */
export const retag = async (db: Db, machineId: number, { from, to, at, by }: Retagged): Promise<void> => {
  await db.insertInto('former_tag').values({ machine_id: machineId, tag: from, at, by_initials: by }).execute();
  await db.updateTable('machine').set({ tag: to }).where('id', '=', machineId).execute();
};
