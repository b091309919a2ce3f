import type { Db } from '../db/connect';

/** That a machine is no longer kept: since when, and what became of it. */
export interface Gone {
  readonly on: string;
  readonly how: 'retired' | 'sold';
  readonly by: string;
  readonly note: string;
}

/** Retired machines, by id; the newest entry of each counts. */
export const loadGone = async (db: Db): Promise<ReadonlyMap<number, Gone>> => {
  const rows = await db.selectFrom('machine_retirement').selectAll().orderBy('id').execute();
  const gone = new Map<number, Gone>();
  for (const r of rows) {
    const { how } = r;
    if (how === 'back') gone.delete(r.machine_id);
    else
      gone.set(r.machine_id, {
        on: r.on_day,
        how: how === 'sold' ? 'sold' : 'retired',
        by: r.by_initials,
        note: r.note,
      });
  }
  return gone;
};

interface Retirement {
  readonly machineId: number;
  readonly on: string;
  readonly how: Gone['how'] | 'back';
  readonly at: string;
  readonly by: string;
  readonly note: string;
}

export const insertRetirement = async (db: Db, r: Retirement): Promise<number> => {
  const { id } = await db
    .insertInto('machine_retirement')
    .values({ machine_id: r.machineId, on_day: r.on, how: r.how, at: r.at, by_initials: r.by, note: r.note })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};
