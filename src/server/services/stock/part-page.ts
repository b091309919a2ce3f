import { newestPartPhoto } from '../../repositories/part-photos';
import { type LedgerLine, loadLedger, loadMerges, loadParts, type PartOnHand } from '../../repositories/stock';
import { standsFor } from '@/core/stock/merge';
import { loadStockDesk, type StockLine } from './stock-desk';
import type { Context } from '../yard/user-action';
import type { Yard } from '../yard/yard';

export interface PartPage {
  readonly yard: Yard;
  /** null for an unknown part. */
  readonly line: StockLine | null;
  readonly ledger: readonly LedgerLine[];
  readonly fits: readonly { readonly tag: string; readonly machine: string; readonly stage: string }[];
  readonly photoId: number | null;
  /** The part this one is read as, where it was entered twice. */
  readonly readAs: PartOnHand | null;
  /** Codes of entries that are read as this one. */
  readonly alsoWas: readonly string[];
  /** Parts it may be the same as: those still kept. */
  readonly others: readonly { readonly id: number; readonly code: string; readonly name: string }[];
}

const SHOWN_LINES = 40;

/** A part with all that is known of it. */
export const loadPartPage = async (context: Context, id: number): Promise<PartPage> => {
  const { yard, lines } = await loadStockDesk(context);
  const line = lines.find((l) => l.part.id === id) ?? null;
  const parts = await loadParts(context.db);
  const merged = await loadMerges(context.db);
  const readAs = merged.has(id) ? (parts.find((p) => p.id === standsFor(id, merged)) ?? null) : null;
  return {
    yard,
    line,
    ledger: line ? await loadLedger(context.db, id, { most: SHOWN_LINES }) : [],
    fits: yard.machines.flatMap(({ machine }) =>
      machine.stages
        .filter((s) => s.part?.id === id)
        .map((s) => ({ tag: machine.tag, machine: machine.name, stage: s.name })),
    ),
    photoId: line ? await newestPartPhoto(context.db, id) : null,
    readAs,
    alsoWas: parts.filter((p) => merged.has(p.id) && standsFor(p.id, merged) === id).map((p) => p.code),
    others: parts
      .filter((p) => p.id !== id && !p.retired)
      .map(({ id: other, code, name }) => ({ id: other, code, name })),
  };
};
