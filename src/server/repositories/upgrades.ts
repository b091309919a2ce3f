import { readStored } from '@/contracts/stored';
import { PredictedJson, UpgradeChangesJson, UpgradeEventJson } from '@/contracts/upgrade';
import type { UpgradeEvent, UpgradeRecord } from '@/core/upgrade/record';
import type { Db } from '../db/connect';
import { grouped } from './grouped';

/** Every planned upgrade with what became of it, oldest first; of one machine when it is named. */
export const loadUpgrades = async (db: Db, machineId?: number): Promise<readonly UpgradeRecord[]> => {
  const rows = await db
    .selectFrom('upgrade')
    .selectAll()
    .$if(machineId !== undefined, (q) => q.where('machine_id', '=', machineId ?? 0))
    .orderBy('id')
    .execute();
  const events = grouped(
    rows.length === 0
      ? []
      : await db
          .selectFrom('upgrade_event')
          .selectAll()
          .where(
            'upgrade_id',
            'in',
            rows.map((r) => r.id),
          )
          .orderBy('id')
          .execute(),
    (e) => e.upgrade_id,
  );
  const photos = new Map(
    (rows.length === 0
      ? []
      : await db.selectFrom('upgrade_photo').select(['id', 'upgrade_id']).orderBy('id').execute()
    ).map((p) => [p.upgrade_id, p.id]),
  );
  return rows.map((r) => ({
    id: r.id,
    machineId: r.machine_id,
    at: r.at,
    by: r.by_initials,
    note: r.note,
    changes: readStored(UpgradeChangesJson, r.changes_json),
    price: r.price,
    predicted: readStored(PredictedJson, r.predicted_json),
    photoId: photos.get(r.id) ?? null,
    events: (events.get(r.id) ?? []).map((e) => ({
      at: e.at,
      by: e.by_initials,
      event: readStored(UpgradeEventJson, e.event_json),
    })),
  }));
};

export const insertUpgrade = async (db: Db, u: Omit<UpgradeRecord, 'id' | 'events' | 'photoId'>): Promise<number> => {
  const { id } = await db
    .insertInto('upgrade')
    .values({
      machine_id: u.machineId,
      at: u.at,
      by_initials: u.by,
      note: u.note,
      changes_json: JSON.stringify(u.changes),
      price: u.price,
      predicted_json: JSON.stringify(u.predicted),
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const insertUpgradeEvent = async (
  db: Db,
  upgradeId: number,
  { at, by, event }: { readonly at: string; readonly by: string; readonly event: UpgradeEvent },
): Promise<number> => {
  const { id } = await db
    .insertInto('upgrade_event')
    .values({ upgrade_id: upgradeId, at, by_initials: by, event_json: JSON.stringify(event) })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export interface UpgradePhoto {
  readonly upgradeId: number;
  readonly at: string;
  readonly by: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

export const insertUpgradePhoto = async (db: Db, p: UpgradePhoto): Promise<number> => {
  const { id } = await db
    .insertInto('upgrade_photo')
    .values({ upgrade_id: p.upgradeId, at: p.at, by_initials: p.by, media_type: p.mediaType, bytes: p.bytes })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const findUpgradePhoto = async (db: Db, id: number): Promise<UpgradePhoto | null> => {
  const r = await db.selectFrom('upgrade_photo').selectAll().where('id', '=', id).executeTakeFirst();
  return r ? { upgradeId: r.upgrade_id, at: r.at, by: r.by_initials, mediaType: r.media_type, bytes: r.bytes } : null;
};
