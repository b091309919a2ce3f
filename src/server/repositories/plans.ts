import { sql } from 'kysely';
import { MoveReasonName } from '@/contracts/enums';
import type { Promised } from '@/core/plan/promises';
import type { Db } from '../db/connect';

export interface OpenOrder {
  readonly id: number;
  readonly partId: number;
  readonly quantity: number;
  readonly arrivesOn: string;
  readonly by: string;
}

/** Open orders, the earliest arrival first. */
export const loadOpenOrders = async (db: Db): Promise<readonly OpenOrder[]> => {
  const rows = await db
    .selectFrom('part_order as o')
    .leftJoin('order_arrival as a', 'a.order_id', 'o.id')
    .selectAll('o')
    .where('a.id', 'is', null)
    .orderBy('arrives_on')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    partId: r.part_id,
    quantity: r.quantity,
    arrivesOn: r.arrives_on,
    by: r.by_initials,
  }));
};

export const insertOrder = async (db: Db, o: Omit<OpenOrder, 'id'> & { readonly at: string }): Promise<number> => {
  const { id } = await db
    .insertInto('part_order')
    .values({ part_id: o.partId, quantity: o.quantity, arrives_on: o.arrivesOn, at: o.at, by_initials: o.by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const insertArrival = async (
  db: Db,
  a: { readonly orderId: number; readonly at: string; readonly by: string },
): Promise<void> => {
  await db.insertInto('order_arrival').values({ order_id: a.orderId, at: a.at, by_initials: a.by }).execute();
};

/** The fixed day of each stage; a later change has used its day up. */
export const loadLocks = async (db: Db): Promise<ReadonlyMap<number, string>> => {
  const rows = await db.selectFrom('plan_lock').selectAll().orderBy('id').execute();
  const done = await db
    .selectFrom('stage_change as c')
    .leftJoin('stage_change as next', 'next.supersedes_id', 'c.id')
    .select(({ fn }) => ['c.stage_id', fn.max('c.recorded_at').as('at')])
    .where('next.id', 'is', null)
    .where('c.voided', '=', 0)
    .where('c.stage_id', 'in', [...new Set(rows.map((r) => r.stage_id))])
    .groupBy('c.stage_id')
    .execute();
  const doneAt = new Map(done.map((d) => [d.stage_id, d.at]));
  const newest = new Map(rows.map((r) => [r.stage_id, r]));
  return new Map(
    [...newest.values()].flatMap((r) =>
      r.day === null || (doneAt.get(r.stage_id) ?? '') > r.at ? [] : [[r.stage_id, r.day] as const],
    ),
  );
};

export const insertLock = async (
  db: Db,
  l: { readonly stageId: number; readonly day: string | null; readonly at: string; readonly by: string },
): Promise<number> => {
  const { id } = await db
    .insertInto('plan_lock')
    .values({ stage_id: l.stageId, day: l.day, at: l.at, by_initials: l.by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export interface OutboxMessage {
  readonly id: number;
  readonly key: string;
  readonly at: string;
  readonly subject: string;
  readonly body: string;
}

export const loadOutbox = async (db: Db): Promise<readonly OutboxMessage[]> => {
  const rows = await db.selectFrom('outbox_message').selectAll().orderBy('id', 'desc').execute();
  return rows.map((r) => ({ id: r.id, key: r.message_key, at: r.at, subject: r.subject, body: r.body }));
};

/** Puts a message into the outbox, unless one of its key lies there already. */
export const putMessage = async (db: Db, m: Omit<OutboxMessage, 'id'>): Promise<boolean> => {
  const done = await db
    .insertInto('outbox_message')
    .values({ message_key: m.key, at: m.at, subject: m.subject, body: m.body })
    .onConflict((c) => c.column('message_key').doNothing())
    .executeTakeFirst();
  return (done.numInsertedOrUpdatedRows ?? 0n) > 0n;
};

export interface Away {
  readonly machineId: number;
  readonly from: string;
  readonly to: string;
  readonly why: string;
}

/** When each machine is not at hand: the newest word for it. */
export const loadAway = async (db: Db): Promise<ReadonlyMap<number, Away>> => {
  const rows = await db.selectFrom('machine_away').selectAll().orderBy('id').execute();
  return new Map(
    rows.map((r) => [r.machine_id, { machineId: r.machine_id, from: r.from_day, to: r.to_day, why: r.why }]),
  );
};

export const insertAway = async (db: Db, a: Away & { readonly at: string; readonly by: string }): Promise<number> => {
  const { id } = await db
    .insertInto('machine_away')
    .values({ machine_id: a.machineId, from_day: a.from, to_day: a.to, why: a.why, at: a.at, by_initials: a.by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

const movedOf = (r: {
  moved_from: string | null;
  moved_on: string | null;
  because: string | null;
}): Promised['moved'] => {
  const because = MoveReasonName.safeParse(r.because);
  return r.moved_from === null || r.moved_on === null || !because.success
    ? null
    : { from: r.moved_from, on: r.moved_on, because: because.data };
};

/** The days that the last plan named. */
export const loadPromises = async (db: Db): Promise<readonly Promised[]> => {
  const rows = await db.selectFrom('plan_promise').selectAll().orderBy('stage_id').orderBy('cycle').execute();
  return rows.map((r) => ({
    stageId: r.stage_id,
    cycle: r.cycle,
    day: r.day,
    setOn: r.set_on,
    middle: r.middle,
    partDay: r.part_day,
    records: r.records,
    locked: r.locked === 1,
    moved: movedOf(r),
  }));
};

/** Puts the days that a plan names in the place of the last plan's. */
export const savePromises = async (db: Db, promises: readonly Promised[]): Promise<void> => {
  await db.transaction().execute(async (tx) => {
    await tx.deleteFrom('plan_promise').execute();
    for (let i = 0; i < promises.length; i += PROMISES_AT_ONCE)
      await tx
        .insertInto('plan_promise')
        .values(
          promises.slice(i, i + PROMISES_AT_ONCE).map((p) => ({
            stage_id: p.stageId,
            cycle: p.cycle,
            day: p.day,
            set_on: p.setOn,
            middle: p.middle,
            part_day: p.partDay,
            records: p.records,
            locked: p.locked ? 1 : 0,
            moved_from: p.moved?.from ?? null,
            moved_on: p.moved?.on ?? null,
            because: p.moved?.because ?? null,
          })),
        )
        .execute();
  });
};

/** Rows of one insert: the file takes a limited number of values at once. */
const PROMISES_AT_ONCE = 200;

/** Changes on record of each stage that has any. */
export const countChanges = async (db: Db): Promise<ReadonlyMap<number, number>> => {
  const rows = await db
    .selectFrom('stage_change as c')
    .leftJoin('stage_change as next', 'next.supersedes_id', 'c.id')
    .select(({ fn }) => ['c.stage_id', fn.countAll<number>().as('n')])
    .where('next.id', 'is', null)
    .where('c.voided', '=', 0)
    .groupBy('c.stage_id')
    .execute();
  return new Map(rows.map((r) => [r.stage_id, r.n]));
};

/** How many records each machine has that bear on its forecast. */
export const countRecords = async (db: Db): Promise<ReadonlyMap<number, number>> => {
  const { rows } = await sql<{ id: number; n: number }>`
    select id, sum(n) as n from (
      select machine_id as id, count(*) as n from airflow_test group by machine_id
      union all select machine_id, count(*) from stage_change group by machine_id
      union all select machine_id, count(*) from usage_entry group by machine_id
      union all select machine_id, count(*) from path_edit group by machine_id
      union all select machine_id, count(*) from examination group by machine_id
      union all select machine_id, count(*) from dust_collected group by machine_id
      union all select machine_id, count(*) from decontamination group by machine_id
      union all select s.machine_id, count(*) from fill_look l join stage s on s.id = l.stage_id group by s.machine_id
      union all select s.machine_id, count(*) from stage_start b join stage s on s.id = b.stage_id group by s.machine_id
      union all select s.machine_id, count(*) from rule r join stage s on s.id = r.stage_id group by s.machine_id
    ) group by id`.execute(db);
  return new Map(rows.map((r) => [r.id, r.n]));
};
