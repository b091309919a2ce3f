import type { LifeBelief } from './life';

/** A branch that weighs less than this of all of them is left out. */
const LEAST_WEIGHT = 0.002;

/** The remaining load by a belief, and the weight of the belief in each value. */
export interface LeftBelief {
  /** Ascending. */
  readonly left: Float64Array;
  /** Belief up to and with each, to 1. */
  readonly below: Float64Array;
}

/** The load still ahead of the limit over all branches; below 0 it is behind. Source: the belief, less what is behind. Valid: a belief with some weight. */
export const leftOf = ({ logLoad, branches }: Pick<LifeBelief, 'logLoad' | 'branches'>): LeftBelief => {
  const step = (logLoad[1] ?? 0) - (logLoad[0] ?? 0);
  const whole = branches.reduce((sum, b) => sum + b.weight, 0);
  const kept = branches.filter((b) => b.weight > LEAST_WEIGHT * whole);
  // Each point of the grid represents the two halves of its cell, by their upper ends.
  const n = 2 * logLoad.length;
  const halves = Float64Array.from({ length: n }, (_, i) =>
    Math.exp((logLoad[i >> 1] ?? 0) + (i % 2 === 0 ? 0 : step / 2)),
  );
  const left = new Float64Array(n * kept.length);
  const belief = new Float64Array(n * kept.length);
  kept.forEach(({ behind, share }, b) => {
    for (let i = 0; i < n; i += 1) {
      left[b * n + i] = (halves[i] ?? 0) - behind;
      belief[b * n + i] = (share[i >> 1] ?? 0) / 2;
    }
  });
  const order = Uint32Array.from(left, (_, i) => i);
  if (kept.length > 1) order.sort((a, b) => (left[a] ?? 0) - (left[b] ?? 0));
  const total = belief.reduce((sum, p) => sum + p, 0);
  let below = 0;
  return {
    left: Float64Array.from(order, (i) => left[i] ?? 0),
    below: Float64Array.from(order, (i) => (below += (belief[i] ?? 0) / total)),
  };
};

/** The load of one whole interval that has not begun. Source: as `leftOf`. */
export const wholeOf = ({ logLoad, fresh }: LifeBelief): LeftBelief =>
  leftOf({ logLoad, branches: [{ weight: 1, behind: 0, share: fresh }] });

/** The load left below which a share of the belief lies, between its points. Source: inverse of the distribution function. Valid: p of 0 to 1. */
export const leftQuantile = ({ left, below }: LeftBelief, p: number): number => {
  let [low, high] = [0, below.length - 1];
  while (low < high) {
    const mid = (low + high) >> 1;
    if ((below[mid] ?? 1) < p) low = mid + 1;
    else high = mid;
  }
  const [before, after] = [below[low - 1] ?? 0, below[low] ?? 1];
  const share = after > before ? Math.min(1, Math.max(0, (p - before) / (after - before))) : 1;
  const from = left[low - 1] ?? left[low] ?? 0;
  return from + share * ((left[low] ?? 0) - from);
};
