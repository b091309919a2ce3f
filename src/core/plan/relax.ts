import { Capacity } from './capacity';
import type { MachineGroups } from './groups';
import { splitsBy } from './insert-machine';
import type { PlanProblem } from './problem';

// The value of a minute of each day, by relaxing the only thing machines share: the minutes of a day.

interface Priced {
  readonly cost: number;
  readonly openings: readonly { readonly day: number; readonly minutes: number }[];
}

/** The cheapest grouping of a machine where each minute of a day has a price of its own. */
const pricedOpenings = (groups: MachineGroups, fits: readonly (readonly number[])[], prices: Float64Array): Priced => {
  const at = groups.sets.map((set, bits) => {
    if (!set) return null;
    let [best, cost] = [-1, Infinity];
    for (const day of fits[bits] ?? []) {
      const here = (set.cost[day] ?? Infinity) + (prices[day] ?? 0) * set.minutes;
      if (here < cost) [best, cost] = [day, here];
    }
    return best < 0 ? null : { day: best, cost };
  });
  const { cost, sets } = splitsBy(groups, (bits) => at[bits]?.cost ?? Infinity);
  return {
    cost,
    openings: sets.flatMap((bits) => {
      const [chosen, set] = [at[bits], groups.sets[bits]];
      return chosen && set ? [{ day: chosen.day, minutes: set.minutes }] : [];
    }),
  };
};

/** Assumed gap of the best plan above the bound while nothing better is known. A modelling choice. */
const ABOVE = 0.05;
/** Steps without a better bound after which the strides are halved. */
const PATIENCE = 8;

export interface Relaxed {
  /** No plan of these machines costs less. */
  readonly bound: number;
  /** Value of a minute of each day at that bound. */
  readonly prices: Float64Array;
}

/**
 * Plans every machine for itself, exactly. Its share of the common minutes is priced by the day, and their value is
 * given back, so that crowding counts. Parts count as available as far as one opening needs them. Source: Lagrangian
 * relaxation with subgradient steps, Held, Wolfe and Crowder 1974; each set of prices gives a bound; returns the best.
 * Valid: machines grouped in every way; `known` is the cost of a plan.
 */
export const relaxMinutes = (
  problem: PlanProblem,
  groups: readonly MachineGroups[],
  { steps, known = 0 }: { readonly steps: number; readonly known?: number },
): Relaxed => {
  const room = new Capacity(problem);
  const all = groups.map((of) => ({
    of,
    fits: of.sets.map((set) => (set ? [...set.order].filter((day) => room.fits(set, day)) : [])),
  }));
  const prices = new Float64Array(problem.minutes.length);
  let best: Relaxed = { bound: 0, prices: Float64Array.from(prices) };
  let [stride, waited] = [1, 0];
  for (let step = 0; step < Math.max(1, steps); step += 1) {
    const taken = new Float64Array(problem.minutes.length);
    let bound = 0;
    for (const { of, fits } of all) {
      const priced = pricedOpenings(of, fits, prices);
      bound += priced.cost;
      for (const { day, minutes } of priced.openings) taken[day] = (taken[day] ?? 0) + minutes;
    }
    prices.forEach((price, day) => (bound -= price * (problem.minutes[day] ?? 0)));
    waited = bound > best.bound ? 0 : waited + 1;
    if (waited >= PATIENCE) [stride, waited] = [stride / 2, 0];
    if (bound > best.bound) best = { bound, prices: Float64Array.from(prices) };
    const over = taken.map((t, day) => (problem.minutes[day] === 0 ? 0 : t - (problem.minutes[day] ?? 0)));
    // The price of a free day at zero cost does not change.
    const slope = over.reduce((sum, o, day) => sum + (o > 0 || (prices[day] ?? 0) > 0 ? o * o : 0), 0);
    if (!(slope > 0)) break;
    const far = (stride * (Math.max(known, (1 + ABOVE) * best.bound) - bound)) / slope;
    over.forEach((o, day) => (prices[day] = Math.max(0, (prices[day] ?? 0) + far * o)));
  }
  return best;
};
