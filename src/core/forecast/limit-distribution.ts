/** Days from now at which a limit is reached: the 0, 10, 50, 90 and 100 % quantiles, ascending; may lie in the past. */
export type ReachQuantiles = readonly [number, number, number, number, number];

const MASS = [0.1, 0.4, 0.4, 0.1] as const;

/** Sums a value over the four pieces of the piecewise linear distribution. */
const overPieces = (q: ReachQuantiles, piece: (a: number, b: number) => number): number =>
  MASS.reduce((sum, mass, i) => sum + mass * piece(q[i] ?? 0, q[i + 1] ?? 0), 0);

const meanAbove = (a: number, b: number, x: number): number =>
  x <= a ? (a + b) / 2 - x : x >= b ? 0 : (b - x) ** 2 / (2 * (b - a));
const meanBelow = (a: number, b: number, x: number): number =>
  x >= b ? x - (a + b) / 2 : x <= a ? 0 : (x - a) ** 2 / (2 * (b - a));
const shareBelow = (a: number, b: number, x: number): number => (x <= a ? 0 : x >= b ? 1 : (x - a) / (b - a));

/**
 * Expected days of life thrown away by a change on day x: the mean of max(0, T - x), T piecewise linear through its
 * quantiles. Source: the integral of each uniform piece. Valid: ascending quantiles, days.
 */
export const expectedWaste = (q: ReachQuantiles, x: number): number => overPieces(q, (a, b) => meanAbove(a, b, x));

/** Expected days run past the limit by a change on day x: the mean of max(0, x - T). Source and range as `expectedWaste`. Valid: as `expectedWaste`. */
export const expectedOverrun = (q: ReachQuantiles, x: number): number => overPieces(q, (a, b) => meanBelow(a, b, x));

/** The chance that the limit is reached before day x, P(T < x). Source and range as `expectedWaste`. Valid: as `expectedWaste`. */
export const chanceBefore = (q: ReachQuantiles, x: number): number => overPieces(q, (a, b) => shareBelow(a, b, x));
