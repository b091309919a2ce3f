import { bracketedNewton } from '../../numeric/root';
import type { Drop, DropOf } from './drop-of';

/** Adds drops in series: they sum at the same flow. */
export const inSeries = (parts: readonly DropOf[]): DropOf => {
  const one: Drop = { pa: 0, slope: 0 };
  return (flow, out) => {
    let [pa, slope] = [0, 0];
    for (const part of parts) {
      part(flow, one);
      pa += one.pa;
      slope += one.slope;
    }
    out.pa = pa;
    out.slope = slope;
  };
};

/** Flow of one way at a drop of 0 or more, and how fast it grows with the drop. */
const flowAt = (way: DropOf, pa: number, highM3s: number): { flow: number; slope: number } => {
  const drop: Drop = { pa: 0, slope: 0 };
  const found = bracketedNewton({
    low: 0,
    high: highM3s,
    start: highM3s / 2,
    tolerance: Math.max(pa, 1e-9) * 1e-12,
    evaluate: (flow, out) => {
      way(flow, drop);
      out.value = pa - drop.pa;
      out.slope = -drop.slope;
    },
  });
  way(found.root, drop);
  return { flow: found.root, slope: drop.slope > 0 ? 1 / drop.slope : 0 };
};

/**
 * Ways side by side as one drop: all see the same pressure, their flows add up. Source: parallel pipes (White, Fluid
 * Mechanics, 6.10). Valid: each way's drop rises with its flow. Flows in m3/s of either sign.
 */
export const waysOf = (ways: readonly (readonly DropOf[])[]): DropOf => {
  const series = ways.map(inSeries);
  return (flow, out) => {
    const total = Math.abs(flow);
    const least: Drop = { pa: 0, slope: 0 };
    let high = Number.POSITIVE_INFINITY;
    // No way can carry more than the total: the drop is at most that of the easiest way alone.
    for (const way of series) {
      way(total, least);
      high = Math.min(high, least.pa);
    }
    let slope = 0;
    const found =
      total === 0 || high === 0
        ? { root: 0 }
        : bracketedNewton({
            low: 0,
            high,
            start: high / ways.length ** 2,
            tolerance: total * 1e-11,
            evaluate: (pa, r) => {
              const shares = series.map((way) => flowAt(way, pa, total));
              slope = shares.reduce((sum, s) => sum + s.slope, 0);
              r.value = total - shares.reduce((sum, s) => sum + s.flow, 0);
              r.slope = -slope;
            },
          });
    out.pa = Math.sign(flow) * found.root;
    out.slope = slope > 0 ? 1 / slope : 0;
  };
};
