/** A task of one machine with its cost on each day: convex in the day, as waste and overrun are. */
export interface TimedTask {
  readonly cost: Float64Array;
}

export interface OverTime {
  readonly cost: number;
  /** Days it is opened on, ascending. */
  readonly days: readonly number[];
  /** The day of each task, by position. */
  readonly on: readonly number[];
}

const cheapestOf = (cost: Float64Array, days: readonly number[]): number =>
  days.reduce((best, day, i) => ((cost[day] ?? Infinity) < (cost[days[best] ?? 0] ?? Infinity) ? i : best), 0);

/**
 * The cheapest openings of one machine that has all minutes and parts to itself, for any number of tasks: a dynamic
 * programme over its openings in time. A task of convex cost goes to the last opening before its own best day or the
 * first one from it on, so the cost between two openings depends on those two alone. Returns null without a day.
 * Source: facility location on a line, exact for convex costs. Valid: costs that are convex over the days.
 */
export const planOverTime = (
  tasks: readonly TimedTask[],
  days: readonly number[],
  openingCost: number,
): OverTime | null => {
  if (tasks.length === 0) return { cost: 0, days: [], on: [] };
  const n = days.length;
  if (n === 0) return null;
  const best = tasks.map((t) => cheapestOf(t.cost, days));
  const at = (t: number, i: number): number => tasks[t]?.cost[days[i] ?? 0] ?? Infinity;
  // Tasks by their own best day, so that those of a stretch are together.
  const order = tasks.map((_, t) => t).sort((a, b) => (best[a] ?? 0) - (best[b] ?? 0));
  const first = Int32Array.from({ length: n + 1 }, (_, i) => {
    const k = order.findIndex((t) => (best[t] ?? 0) >= i);
    return k < 0 ? order.length : k;
  });
  // Least cost of all tasks with a best day up to i, with the newest opening on i.
  const least = new Float64Array(n).fill(Infinity);
  const from = new Int32Array(n).fill(-1);
  for (let j = 0; j < n; j += 1) {
    let none = 0;
    for (let k = 0; k < (first[j + 1] ?? 0); k += 1) none += at(order[k] ?? 0, j);
    least[j] = openingCost + none;
    for (let i = 0; i < j; i += 1) {
      let between = 0;
      for (let k = first[i + 1] ?? 0; k < (first[j + 1] ?? 0); k += 1) {
        const t = order[k] ?? 0;
        between += Math.min(at(t, i), at(t, j));
      }
      const cost = (least[i] ?? Infinity) + openingCost + between;
      if (cost < (least[j] ?? Infinity)) {
        least[j] = cost;
        from[j] = i;
      }
    }
  }
  let [end, cost] = [0, Infinity];
  for (let j = 0; j < n; j += 1) {
    let after = 0;
    for (let k = first[j + 1] ?? 0; k < order.length; k += 1) after += at(order[k] ?? 0, j);
    if ((least[j] ?? Infinity) + after < cost) [end, cost] = [j, (least[j] ?? Infinity) + after];
  }
  if (!Number.isFinite(cost)) return null;
  const opened: number[] = [];
  for (let j = end; j >= 0; j = from[j] ?? -1) opened.unshift(j);
  const on = tasks.map((_, t) => {
    const chosen = opened.reduce((a, b) => (at(t, b) < at(t, a) ? b : a), opened[0] ?? 0);
    return days[chosen] ?? 0;
  });
  return { cost, days: opened.map((i) => days[i] ?? 0), on };
};
