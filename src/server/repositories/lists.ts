import type { DatedQuery, PageQuery } from '@/contracts/reads';
import type { Db } from '../db/connect';
import { grouped } from './grouped';
import { cut, type Page, within } from './paged';

// Pages of machines, parts, stock movements and meters for programs, by ascending id.

export const listMachines = async (db: Db, { after, limit }: PageQuery): Promise<Page<'MachinesReply'>> => {
  const rows = await db
    .selectFrom('machine')
    .selectAll()
    .where('id', '>', after)
    .orderBy('id')
    .limit(limit + 1)
    .execute();
  const { items, next } = cut(rows, limit);
  const ids = items.map((m) => m.id);
  const stages = await db
    .selectFrom('stage')
    .selectAll()
    .where('machine_id', 'in', ids)
    .where('retired_on', 'is', null)
    .orderBy('position')
    .execute();
  const retirements = await db
    .selectFrom('machine_retirement')
    .select(['machine_id', 'how'])
    .where('machine_id', 'in', ids)
    .orderBy('id')
    .execute();
  const gone = new Map(retirements.map((r) => [r.machine_id, r.how !== 'back']));
  const byMachine = grouped(stages, (s) => s.machine_id);
  return {
    next,
    items: items.map((m) => ({
      id: m.id,
      tag: m.tag,
      name: m.name,
      kind: m.kind,
      maker: m.maker,
      place: m.place,
      machineClass: m.machine_class,
      inServiceOn: m.in_service_on,
      retired: gone.get(m.id) ?? false,
      stages: (byMachine.get(m.id) ?? []).map((s) => ({
        id: s.id,
        position: s.position,
        kind: s.kind,
        name: s.name,
        partId: s.part_id,
        missing: s.missing === 1,
      })),
    })),
  };
};

export const listParts = async (db: Db, { after, limit }: PageQuery): Promise<Page<'PartsReply'>> => {
  const rows = await db
    .selectFrom('part')
    .leftJoin('stock_on_hand', 'stock_on_hand.part_id', 'part.id')
    .selectAll('part')
    .select('stock_on_hand.quantity as onHand')
    .where('part.id', '>', after)
    .orderBy('part.id')
    .limit(limit + 1)
    .execute();
  const { items, next } = cut(rows, limit);
  return {
    next,
    items: items.map((p) => ({
      id: p.id,
      code: p.code,
      name: p.name,
      packSize: p.pack_size,
      bin: p.bin,
      price: p.price,
      leadDays: p.lead_days,
      onHand: p.onHand ?? 0,
      retired: p.retired_on !== null,
    })),
  };
};

export const listStock = async (db: Db, query: DatedQuery): Promise<Page<'StockReply'>> => {
  const rows = await db
    .selectFrom('stock_movement')
    .select(['id', 'part_id', 'quantity', 'reason', 'at', 'by_initials', 'note'])
    .where('id', '>', query.after)
    .where(within('at', query))
    .orderBy('id')
    .limit(query.limit + 1)
    .execute();
  const { items, next } = cut(rows, query.limit);
  return {
    next,
    items: items.map((m) => ({
      id: m.id,
      partId: m.part_id,
      quantity: m.quantity,
      reason: m.reason,
      at: m.at,
      by: m.by_initials,
      note: m.note,
    })),
  };
};

export const listMeters = async (db: Db, { after, limit }: PageQuery): Promise<Page<'MetersReply'>> => {
  const rows = await db
    .selectFrom('instrument')
    .selectAll()
    .where('id', '>', after)
    .orderBy('id')
    .limit(limit + 1)
    .execute();
  const { items, next } = cut(rows, limit);
  return {
    next,
    items: items.map((m) => ({
      id: m.id,
      name: m.name,
      reads: m.reads,
      certificate: m.certificate,
      calibrationDueOn: m.calibration_due_on,
      retired: m.retired_on !== null,
    })),
  };
};
