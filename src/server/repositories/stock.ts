import { type MovementReason, onHand } from '@/core/stock/ledger';
import type { Db } from '../db/connect';

export interface PartOnHand {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  readonly packSize: number;
  readonly bin: string;
  readonly price: number;
  readonly leadDays: number;
  readonly shelfDays: number | null;
  readonly onHand: number;
}

export interface NewMovement {
  readonly partId: number;
  readonly quantity: number;
  readonly reason: MovementReason;
  readonly at: string;
  readonly by: string;
  readonly changeId: number | null;
  readonly note: string;
}

export const loadParts = async (db: Db): Promise<readonly PartOnHand[]> => {
  const parts = await db.selectFrom('part').selectAll().orderBy('code').execute();
  const movements = await db.selectFrom('stock_movement').select(['part_id as partId', 'quantity']).execute();
  const sums = onHand(movements);
  return parts.map((p) => ({
    id: p.id,
    code: p.code,
    name: p.name,
    packSize: p.pack_size,
    bin: p.bin,
    price: p.price,
    leadDays: p.lead_days,
    shelfDays: p.shelf_days,
    onHand: sums.get(p.id) ?? 0,
  }));
};

export const insertMovement = async (db: Db, m: NewMovement): Promise<void> => {
  await db
    .insertInto('stock_movement')
    .values({
      part_id: m.partId,
      quantity: m.quantity,
      reason: m.reason,
      at: m.at,
      by_initials: m.by,
      change_id: m.changeId,
      note: m.note,
    })
    .execute();
};

export interface LedgerLine extends NewMovement {
  readonly id: number;
}

export const loadLedger = async (db: Db, partId: number): Promise<readonly LedgerLine[]> => {
  const rows = await db
    .selectFrom('stock_movement')
    .selectAll()
    .where('part_id', '=', partId)
    .orderBy('at', 'desc')
    .orderBy('id', 'desc')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    partId: r.part_id,
    quantity: r.quantity,
    reason: r.reason as MovementReason,
    at: r.at,
    by: r.by_initials,
    changeId: r.change_id,
    note: r.note,
  }));
};

/** The part of every stage of the yard, by the stage's number. */
export const partOfStages = async (db: Db): Promise<ReadonlyMap<number, number>> => {
  const rows = await db.selectFrom('stage').select(['id', 'part_id']).where('part_id', 'is not', null).execute();
  return new Map(rows.flatMap((r) => (r.part_id === null ? [] : [[r.id, r.part_id] as const])));
};
