/** What to do next in the school of swapping new parts in. Positions are stages. */
export type SwapStep =
  | { readonly kind: 'fit'; readonly position: number }
  /** A new part is in: look at the light, or measure, 10 to 15 s after the start. */
  | { readonly kind: 'watch' }
  /** It was this one (or these): the old part is spent. */
  | { readonly kind: 'keep'; readonly positions: readonly number[] }
  /** Not it: the ORIGINAL goes back, the new one returns to stock, and a new one goes into the next stage. */
  | { readonly kind: 'putBack'; readonly position: number; readonly next: number }
  /** The last stage alone did not do it: fit the new part before it too. */
  | { readonly kind: 'fitToo'; readonly position: number }
  /** Neither: every original goes back. */
  | { readonly kind: 'putAllBack'; readonly positions: readonly number[] }
  | { readonly kind: 'none' };

export interface SwapSoFar {
  /** Stages that a new part can be swapped into, coarse to fine. */
  readonly order: readonly number[];
  /** New parts on trial in the machine now. */
  readonly trials: readonly number[];
  /** Stages whose new part was tried alone and did not help. */
  readonly failed: readonly number[];
  /** Whether the complaint's measure is back since the last part went in; null while it was not measured. */
  readonly back: boolean | null;
}

/**
 * The next step of the swap school: the old part is held until the new one is proven; a new part that proved nothing
 * goes back to stock before the next stage is judged; where neither alone does it, both are spent.
 * Source: common practice, no published source.
 */
export const swapStep = ({ order, trials, failed, back }: SwapSoFar): SwapStep => {
  const untried = order.find((p) => !failed.includes(p) && !trials.includes(p));
  if (trials.length === 0) return untried === undefined ? { kind: 'none' } : { kind: 'fit', position: untried };
  if (back === null) return { kind: 'watch' };
  if (back) return { kind: 'keep', positions: trials };
  const [only] = trials;
  if (trials.length > 1 || only === undefined) return { kind: 'putAllBack', positions: trials };
  const next = order[order.indexOf(only) + 1];
  if (next !== undefined && !failed.includes(next)) return { kind: 'putBack', position: only, next };
  const before = order[order.indexOf(only) - 1];
  return before === undefined ? { kind: 'putAllBack', positions: trials } : { kind: 'fitToo', position: before };
};
