import { type HeldPart, heldParts, trialParts } from '@/core/stock/held';
import { loadCases } from '../repositories/cases';
import { loadOpenJobs } from '../repositories/jobs';
import { loadLedger, loadParts, partOfStages, type LedgerLine, type PartOnHand } from '../repositories/stock';
import type { Context } from './user-action';
import { loadYard, type Yard } from './yard';

export interface StockLine {
  readonly part: PartOnHand;
  readonly ledger: readonly LedgerLine[];
  /** Tags of the machines it belongs to. */
  readonly usedBy: readonly string[];
  /** What open jobs and cases have reserved, taken or hold, with the tag of the machine. */
  readonly held: readonly (HeldPart & { readonly tag: string })[];
}

export interface StockDesk {
  readonly yard: Yard;
  readonly lines: readonly StockLine[];
}

const SHOWN_LINES = 6;

/** Parts with what is on hand, the newest ledger lines and where they are used; the shortest first. */
export const loadStockDesk = async (context: Context): Promise<StockDesk> => {
  const yard = await loadYard(context);
  const parts = await loadParts(context.db);
  const machines = yard.machines.map((m) => m.machine);
  const held = [...heldParts({ jobs: await loadOpenJobs(context.db), partOf: await partOfStages(context.db) }), ...trialParts(await loadCases(context.db), machines)];
  const tagOf = (id: number): string => machines.find((m) => m.id === id)?.tag ?? '';
  const lines = await Promise.all(
    parts.map(async (part) => ({
      part,
      ledger: (await loadLedger(context.db, part.id)).slice(0, SHOWN_LINES),
      held: held.filter((h) => h.partId === part.id).map((h) => ({ ...h, tag: tagOf(h.machineId) })),
      usedBy: yard.machines.filter((m) => m.machine.stages.some((s) => s.part?.id === part.id)).map((m) => m.machine.tag),
    })),
  );
  return { yard, lines: [...lines].sort((a, b) => a.part.onHand - b.part.onHand || (a.part.code < b.part.code ? -1 : 1)) };
};
