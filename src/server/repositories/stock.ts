import type { MovementReason } from '@/core/stock/ledger';
import { standsFor } from '@/core/stock/merge';
import type { Part } from '@/core/stock/part';
import { MovementReasonName } from '@/contracts/enums';
import type { Selectable } from 'kysely';
import type { Db } from '../db/connect';
import type { Tables } from '../db/tables';

export interface PartOnHand extends Part {
  readonly onHand: number;
}

export interface NewMovement {
  readonly partId: number;
  readonly quantity: number;
  readonly reason: MovementReason;
  readonly at: string;
  readonly by: string;
  /** The action it belongs to: at most one. */
  readonly of: MovementOf;
  readonly note: string;
}

/** The record that moved a part: a change, a guided job, a case of fault finding, or none of them. */
export type MovementOf =
  | { readonly kind: 'none' }
  | { readonly kind: 'change'; readonly id: number }
  | { readonly kind: 'job'; readonly id: number }
  | { readonly kind: 'case'; readonly id: number };

export const loadParts = async (db: Db): Promise<readonly PartOnHand[]> => {
  const parts = await db.selectFrom('part').selectAll().orderBy('code').execute();
  const counted = await db.selectFrom('stock_on_hand').selectAll().execute();
  const sums = new Map(counted.map((c) => [c.part_id, c.quantity]));
  return parts.map((p) => ({
    id: p.id,
    code: p.code,
    name: p.name,
    packSize: p.pack_size,
    bin: p.bin,
    price: p.price,
    leadDays: p.lead_days,
    shelfDays: p.shelf_days,
    supplier: p.supplier,
    minimum: p.minimum,
    retired: p.retired_on !== null,
    medium: p.medium,
    areaM2: p.area_m2,
    rating: p.rating,
    onHand: sums.get(p.id) ?? 0,
  }));
};

export type KeptPart = Omit<Part, 'id' | 'retired'> & { readonly retiredOn: string | null };

/** Enters or changes a part. Returns its id. */
export const savePart = async (db: Db, id: number | null, part: KeptPart): Promise<number> => {
  const values = {
    code: part.code,
    name: part.name,
    pack_size: part.packSize,
    bin: part.bin,
    price: part.price,
    lead_days: part.leadDays,
    shelf_days: part.shelfDays,
    supplier: part.supplier,
    minimum: part.minimum,
    retired_on: part.retiredOn,
    medium: part.medium,
    area_m2: part.areaM2,
    rating: part.rating,
  };
  if (id === null) {
    const made = await db.insertInto('part').values(values).returning('id').executeTakeFirstOrThrow();
    return made.id;
  }
  await db.updateTable('part').set(values).where('id', '=', id).execute();
  return id;
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
      change_id: m.of.kind === 'change' ? m.of.id : null,
      job_id: m.of.kind === 'job' ? m.of.id : null,
      case_id: m.of.kind === 'case' ? m.of.id : null,
      note: m.note,
    })
    .execute();
};

const movementOf = (r: Selectable<Tables['stock_movement']>): MovementOf =>
  r.change_id !== null
    ? { kind: 'change', id: r.change_id }
    : r.job_id !== null
      ? { kind: 'job', id: r.job_id }
      : r.case_id !== null
        ? { kind: 'case', id: r.case_id }
        : { kind: 'none' };

export interface LedgerLine extends NewMovement {
  readonly id: number;
}

/** The movements of a part, newest first; not older than a moment, or the newest few, when that is asked. */
export const loadLedger = async (
  db: Db,
  partId: number,
  { since, most }: { readonly since?: string; readonly most?: number } = {},
): Promise<readonly LedgerLine[]> => {
  const rows = await db
    .selectFrom('stock_movement')
    .selectAll()
    .where('part_id', '=', partId)
    .$if(since !== undefined, (q) => q.where('at', '>=', since ?? ''))
    .orderBy('at', 'desc')
    .orderBy('id', 'desc')
    .$if(most !== undefined, (q) => q.limit(most ?? 0))
    .execute();
  return rows.map((r) => ({
    id: r.id,
    partId: r.part_id,
    quantity: r.quantity,
    reason: MovementReasonName.parse(r.reason),
    at: r.at,
    by: r.by_initials,
    of: movementOf(r),
    note: r.note,
  }));
};

/** Net pieces taken of each part since a moment; a count or a correction is not use. */
export const takenSince = async (db: Db, since: string): Promise<ReadonlyMap<number, number>> => {
  const rows = await db
    .selectFrom('stock_movement')
    .select(({ fn }) => ['part_id', fn.sum<number>('quantity').as('net')])
    .where('at', '>=', since)
    .where('reason', 'in', ['taken', 'returned'])
    .groupBy('part_id')
    .execute();
  const merged = await loadMerges(db);
  const taken = new Map<number, number>();
  for (const { part_id, net } of rows) {
    const id = standsFor(part_id, merged);
    taken.set(id, (taken.get(id) ?? 0) - net);
  }
  return taken;
};

/** Parts that were entered twice, each with the one it is read as. */
export const loadMerges = async (db: Db): Promise<ReadonlyMap<number, number>> => {
  const rows = await db.selectFrom('part_merge').select(['part_id', 'into_id']).execute();
  return new Map(rows.map((r) => [r.part_id, r.into_id]));
};

export const insertMerge = async (
  db: Db,
  m: { readonly partId: number; readonly intoId: number; readonly at: string; readonly by: string },
): Promise<void> => {
  await db
    .insertInto('part_merge')
    .values({ part_id: m.partId, into_id: m.intoId, at: m.at, by_initials: m.by })
    .execute();
  await db.updateTable('stage').set({ part_id: m.intoId }).where('part_id', '=', m.partId).execute();
};

export const retirePart = async (db: Db, id: number, on: string): Promise<void> => {
  await db.updateTable('part').set({ retired_on: on }).where('id', '=', id).execute();
};

/** Kinds of stage that take each part, where any does. */
export const seatsOfParts = async (db: Db): Promise<ReadonlyMap<number, ReadonlySet<string>>> => {
  const rows = await db
    .selectFrom('stage')
    .select(['part_id', 'kind'])
    .where('part_id', 'is not', null)
    .where('retired_on', 'is', null)
    .execute();
  const seats = new Map<number, Set<string>>();
  for (const { part_id, kind } of rows) {
    const id = part_id ?? 0;
    seats.set(id, (seats.get(id) ?? new Set()).add(kind));
  }
  return seats;
};

/** The part of every stage of the yard, by the stage's number. */
export const partOfStages = async (db: Db): Promise<ReadonlyMap<number, number>> => {
  const rows = await db.selectFrom('stage').select(['id', 'part_id']).where('part_id', 'is not', null).execute();
  return new Map(rows.flatMap((r) => (r.part_id === null ? [] : [[r.id, r.part_id] as const])));
};
