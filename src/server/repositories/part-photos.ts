import type { Db } from '../db/connect';

export interface PartPhoto {
  readonly partId: number;
  readonly at: string;
  readonly by: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

export const insertPartPhoto = async (db: Db, p: PartPhoto): Promise<number> => {
  const { id } = await db
    .insertInto('part_photo')
    .values({ part_id: p.partId, at: p.at, by_initials: p.by, media_type: p.mediaType, bytes: p.bytes })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const findPartPhoto = async (db: Db, id: number): Promise<PartPhoto | null> => {
  const r = await db.selectFrom('part_photo').selectAll().where('id', '=', id).executeTakeFirst();
  return r ? { partId: r.part_id, at: r.at, by: r.by_initials, mediaType: r.media_type, bytes: r.bytes } : null;
};

/** The number of the newest picture of a part; null where there is none. */
export const newestPartPhoto = async (db: Db, partId: number): Promise<number | null> => {
  const r = await db
    .selectFrom('part_photo')
    .select('id')
    .where('part_id', '=', partId)
    .orderBy('id', 'desc')
    .limit(1)
    .executeTakeFirst();
  return r?.id ?? null;
};
