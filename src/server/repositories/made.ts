import { sql } from 'kysely';
import { buildId } from '../db/build-id';
import { type Db, isBusy } from '../db/connect';

// Data derived from the records of a machine and kept beside them. Triggers delete a row as soon as its source changes;
// it can always be rebuilt.

export type MadeTable = 'machine_digest' | 'machine_forecast';

/** Holds on any day. */
export const ANY_DAY = '';

/** How many writes the records have seen. */
export const loadRevision = async (db: Db): Promise<number> =>
  (await db.selectFrom('yard_revision').select('n').executeTakeFirst())?.n ?? 0;

export interface MadeAt {
  readonly machineId: number;
  readonly rev: number;
}

/** Which machines have one of this build for a day, and which one. */
export const madeFor = async (db: Db, table: MadeTable, day: string): Promise<ReadonlyMap<number, number>> => {
  const rows = await db
    .selectFrom(table)
    .select(['machine_id', 'rev'])
    .where('made_by', '=', buildId())
    .where('made_for', '=', day)
    .execute();
  return new Map(rows.map((r) => [r.machine_id, r.rev]));
};

export interface MadeOn {
  readonly rev: number;
  readonly day: string;
}

/** Which machines have one of this build made for a day since then, and for which. */
export const madeSince = async (db: Db, table: MadeTable, day: string): Promise<ReadonlyMap<number, MadeOn>> => {
  const rows = await db
    .selectFrom(table)
    .select(['machine_id', 'rev', 'made_for'])
    .where('made_by', '=', buildId())
    .where('made_for', '>=', day)
    .execute();
  return new Map(rows.map((r) => [r.machine_id, { rev: r.rev, day: r.made_for }]));
};

/** Machines without one of this build for a day. */
export const withoutMade = async (db: Db, table: MadeTable, day: string): Promise<ReadonlySet<number>> => {
  const rows = await db
    .selectFrom('machine as m')
    .leftJoin(`${table} as made`, (join) =>
      join.onRef('made.machine_id', '=', 'm.id').on('made.made_by', '=', buildId()).on('made.made_for', '=', day),
    )
    .select('m.id')
    .where('made.rev', 'is', null)
    .execute();
  return new Set(rows.map((r) => r.id));
};

/** Returns the stored JSON without a schema check; rows of another build are never read. */
export const loadMade = async <T>(db: Db, table: MadeTable, rev: number): Promise<T | null> => {
  const row = await db.selectFrom(table).select('content_json').where('rev', '=', rev).executeTakeFirst();
  return row ? (JSON.parse(row.content_json) as T) : null;
};

export const saveMade = async (
  db: Db,
  table: MadeTable,
  made: { readonly machineId: number; readonly day: string; readonly content: unknown },
): Promise<number> => {
  await db.deleteFrom(table).where('machine_id', '=', made.machineId).execute();
  const { rev } = await db
    .insertInto(table)
    .values({
      machine_id: made.machineId,
      made_by: buildId(),
      made_for: made.day,
      content_json: JSON.stringify(made.content),
    })
    .returning('rev')
    .executeTakeFirstOrThrow();
  return rev;
};

export const forgetMade = async (db: Db, table: MadeTable): Promise<void> => {
  await sql`delete from ${sql.table(table)}`.execute(db);
};

/** Runs in its own transaction; null where another program holds the file, which does not affect the shown page. */
export const unlessBusy = async <T>(db: Db, work: (tx: Db) => Promise<T>): Promise<T | null> => {
  if (db.isTransaction) return work(db);
  try {
    return await db.transaction().execute(work);
  } catch (error) {
    if (isBusy(error)) return null;
    throw error;
  }
};

/** Whether another program holds the file: then the machine is not reported as unreadable. */
export const heldByOther = isBusy;

export const machineIds = async (db: Db): Promise<readonly { readonly id: number; readonly tag: string }[]> =>
  db.selectFrom('machine').select(['id', 'tag']).orderBy('tag').execute();
