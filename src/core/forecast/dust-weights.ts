import { inverse } from '../numeric/matrix';
import type { Used } from './used';

/** A stretch between two changes, as it tells how fast each dust loads a machine. Days as numbers. */
export interface Stretch {
  /** Which stage it is of: each has a life of its own. */
  readonly stage: number;
  readonly from: number;
  readonly to: number;
  /** How unsure its life is, as a spread of the logarithm. */
  readonly spread: number;
  /** Where its end lies on its life, as a logarithm: above 0 past the limit. */
  readonly late: number;
}

export interface DustWeights {
  /** By the dusts of the use; 1 is the usual. */
  readonly weights: readonly number[];
  /** How unsure the weight of the newest dust is, as a spread of its logarithm. */
  readonly newestUnsure: number;
}

/** Spread between dusts before any record, as a logarithm. A modelling choice. */
const APART = 0.5;
const ROUNDS = 3;

/** Hours of each dust in a stretch. */
const hoursOf = ({ first, load, dust, dusts }: Used, { from, to }: Stretch): Float64Array => {
  const hours = new Float64Array(dusts.length);
  for (let i = Math.max(0, from - first); i < Math.min(load.length, to - first); i += 1) {
    const d = dust[i] ?? 0;
    hours[d] = (hours[d] ?? 0) + (load[i] ?? 0);
  }
  return hours;
};

/**
 * How much faster than usual each dust loads a machine, from stretches on different mixes of them: what took fewer hours
 * to the same limit was the heavier dust. Few stretches leave all dusts alike. Source: ridge regression of the logarithm of
 * lives, Hoerl and Kennard 1970, by Gauss-Newton. Valid: any number of stretches; one dust weighs 1.
 */
export const dustWeights = (used: Used, stretches: readonly Stretch[]): DustWeights => {
  const k = used.dusts.length;
  if (k < 2 || used.counts === 'days') return { weights: used.dusts.map(() => 1), newestUnsure: 0 };
  const rows = stretches.map((s) => ({ ...s, hours: hoursOf(used, s) })).filter((s) => s.hours.some((h) => h > 0));
  const stages = [...new Set(rows.map((r) => r.stage))];
  const n = k + stages.length;
  let log = new Float64Array(n);
  let covariance: readonly (readonly number[])[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const normal = Array.from({ length: n }, () => new Array<number>(n).fill(0));
    const right = new Float64Array(n);
    for (let d = 0; d < k; d += 1) {
      const row = normal[d];
      if (row) row[d] = 1 / APART ** 2;
    }
    for (let s = k; s < n; s += 1) {
      const row = normal[s];
      if (row) row[s] = 1e-4;
    }
    for (const { stage, hours, spread, late } of rows) {
      const total = hours.reduce((sum, h, d) => sum + h * Math.exp(log[d] ?? 0), 0);
      // Derivative of the stage's life by the weights, at their present values.
      const slope = new Float64Array(n);
      hours.forEach((h, d) => (slope[d] = -(h * Math.exp(log[d] ?? 0)) / total));
      slope[k + stages.indexOf(stage)] = 1;
      const seen = Math.log(total) - late + slope.reduce((sum, v, d) => sum + (d < k ? v * (log[d] ?? 0) : 0), 0);
      const weight = 1 / spread ** 2;
      for (let i = 0; i < n; i += 1) {
        const vi = slope[i] ?? 0;
        if (vi === 0) continue;
        right[i] = (right[i] ?? 0) + weight * vi * seen;
        const row = normal[i];
        if (row) for (let j = 0; j < n; j += 1) row[j] = (row[j] ?? 0) + weight * vi * (slope[j] ?? 0);
      }
    }
    // The prior keeps it well away from singular.
    covariance = inverse(normal) ?? covariance;
    log = Float64Array.from(covariance, (row) => row.reduce((sum, v, j) => sum + v * (right[j] ?? 0), 0));
  }
  const newest = used.dust.at(-1) ?? 0;
  return {
    weights: used.dusts.map((_, d) => Math.exp(log[d] ?? 0)),
    newestUnsure: Math.sqrt(Math.max(0, covariance[newest]?.[newest] ?? 0)),
  };
};
