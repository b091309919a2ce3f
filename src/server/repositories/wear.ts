import type { Db } from '../db/connect';

export interface Wear {
  readonly hours: readonly {
    readonly machineId: number;
    readonly day: string;
    readonly hours: number;
    readonly dust: string;
  }[];
  readonly looks: readonly { readonly stageId: number; readonly day: string; readonly share: number }[];
}

/** Run hours, the newest word for each day of each machine, and every look at a fill, oldest first; of one machine when it is named. */
export const loadWear = async (db: Db, machineId?: number): Promise<Wear> => {
  const entries = await db
    .selectFrom('usage_entry')
    .select(['machine_id', 'day', 'hours', 'dust'])
    .$if(machineId !== undefined, (q) => q.where('machine_id', '=', machineId ?? 0))
    .orderBy('id')
    .execute();
  const newest = new Map(entries.map((e) => [`${e.machine_id} ${e.day}`, e]));
  const hours = [...newest.values()]
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
    .map((e) => ({ machineId: e.machine_id, day: e.day, hours: e.hours, dust: e.dust }));
  const looks = await db
    .selectFrom('fill_look as l')
    .innerJoin('stage as s', 's.id', 'l.stage_id')
    .select(['l.stage_id', 'l.day', 'l.share'])
    .$if(machineId !== undefined, (q) => q.where('s.machine_id', '=', machineId ?? 0))
    .orderBy('l.day')
    .orderBy('l.id')
    .execute();
  return { hours, looks: looks.map((l) => ({ stageId: l.stage_id, day: l.day, share: l.share })) };
};

export const insertUsage = async (
  db: Db,
  e: {
    readonly machineId: number;
    readonly day: string;
    readonly hours: number;
    readonly dust: string;
    readonly at: string;
    readonly by: string;
  },
): Promise<number> => {
  const { id } = await db
    .insertInto('usage_entry')
    .values({ machine_id: e.machineId, day: e.day, hours: e.hours, dust: e.dust, at: e.at, by_initials: e.by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const insertStageStart = async (
  db: Db,
  s: { readonly stageId: number; readonly day: string; readonly at: string; readonly by: string },
): Promise<number> => {
  const { id } = await db
    .insertInto('stage_start')
    .values({ stage_id: s.stageId, day: s.day, at: s.at, by_initials: s.by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const insertLook = async (
  db: Db,
  l: {
    readonly stageId: number;
    readonly day: string;
    readonly share: number;
    readonly at: string;
    readonly by: string;
  },
): Promise<number> => {
  const { id } = await db
    .insertInto('fill_look')
    .values({ stage_id: l.stageId, day: l.day, share: l.share, at: l.at, by_initials: l.by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};
