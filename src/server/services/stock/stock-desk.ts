import { DAY_MS } from '@/core/calendar/time';
import { type HeldPart, heldParts, trialParts } from '@/core/stock/held';
import { loadCases } from '../../repositories/cases';
import { loadOpenJobs } from '../../repositories/jobs';
import {
  loadLedger,
  loadParts,
  partOfStages,
  takenSince,
  type LedgerLine,
  type PartOnHand,
} from '../../repositories/stock';
import { type Reorder, reorderOf } from '@/core/stock/demand';
import type { OpenOrder } from '../../repositories/plans';
import { planYard, type YardPlan } from '../plan/plan-yard';
import type { Context } from '../yard/user-action';
import { loadYard, type Yard } from '../yard/yard';

export interface StockLine {
  readonly part: PartOnHand;
  readonly ledger: readonly LedgerLine[];
  /** Tags of the machines it belongs to. */
  readonly usedBy: readonly string[];
  /** What open jobs and cases have reserved, taken or hold, with the tag of the machine. */
  readonly held: readonly (HeldPart & { readonly tag: string })[];
  readonly reorder: Reorder;
  /** Pieces the plan takes before a fresh order could be here. */
  readonly planned: number;
  readonly orders: readonly OpenOrder[];
}

export interface StockDesk {
  readonly yard: Yard;
  readonly lines: readonly StockLine[];
}

const SHOWN_LINES = 6;

const YEAR_DAYS = 365;

const plannedOf = ({ made, days, input }: YardPlan, part: PartOnHand): number =>
  made.problem.tasks.filter(
    (t, i) =>
      input.parts[(t.part ?? t.orders)?.index ?? -1]?.id === part.code &&
      ((days[i] ?? null) === null || (days[i] ?? 0) <= part.leadDays),
  ).length;

/** Parts with their stock, the newest ledger lines and their machines; the shortest first. */
export const loadStockDesk = async (context: Context): Promise<StockDesk> => {
  const yard = await loadYard(context);
  const parts = await loadParts(context.db);
  const machines = yard.machines.map((m) => m.machine);
  const held = [
    ...heldParts({ jobs: await loadOpenJobs(context.db), partOf: await partOfStages(context.db) }),
    ...trialParts(await loadCases(context.db), machines),
  ];
  const plan = await planYard(context, { yard });
  const taken = await takenSince(context.db, new Date(Date.parse(context.now()) - YEAR_DAYS * DAY_MS).toISOString());
  const orderOf = async (part: PartOnHand): Promise<Pick<StockLine, 'ledger' | 'reorder' | 'orders' | 'planned'>> => {
    const ledger = await loadLedger(context.db, part.id, { most: SHOWN_LINES });
    const orders = plan.orders.filter((o) => o.partId === part.id);
    const planned = plannedOf(plan, part);
    const use = {
      partId: part.id,
      packSize: part.packSize,
      onHand: part.onHand,
      onOrder: orders.reduce((sum, o) => sum + o.quantity, 0),
      reserved: held.filter((h) => h.partId === part.id && h.state === 'reserved').length,
      leadDays: part.leadDays,
      shelfDays: part.shelfDays,
      taken: taken.get(part.id) ?? 0,
      overDays: YEAR_DAYS,
      planned,
      minimum: part.retired ? null : part.minimum,
    };
    return { ledger, orders, planned, reorder: reorderOf(use) };
  };
  const tagOf = (id: number): string => machines.find((m) => m.id === id)?.tag ?? '';
  const lines = await Promise.all(
    parts.map(async (part) => ({
      part,
      ...(await orderOf(part)),
      held: held.filter((h) => h.partId === part.id).map((h) => ({ ...h, tag: tagOf(h.machineId) })),
      usedBy: yard.machines
        .filter((m) => m.machine.stages.some((s) => s.part?.id === part.id))
        .map((m) => m.machine.tag),
    })),
  );
  return {
    yard,
    lines: [...lines].sort((a, b) => a.part.onHand - b.part.onHand || (a.part.code < b.part.code ? -1 : 1)),
  };
};
