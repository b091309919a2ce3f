import { mean, sampleDeviation } from '../numeric/moments';

/** One sample of a streaming meter. */
export interface Sample {
  readonly atMs: number;
  readonly valueSi: number;
}

export interface Settled {
  readonly mean: number;
  readonly deviation: number;
  readonly samples: number;
  readonly highest: number;
}

/** Least span of a settled window, s. A modelling choice. */
const WINDOW_MS = 4000;
const LEAST_SAMPLES = 12;

/**
 * The mean of the newest window once the meter has settled; null while it still drifts or has too few samples. Settled
 * means that the halves of the window differ by no more than their noise allows (twice the standard error of the
 * difference) or by half a per cent.
 * Source: a two-sample comparison of halves; window and limits are modelling choices. Values in any one unit.
 */
export const settledMean = (samples: readonly Sample[]): Settled | null => {
  const last = samples.at(-1);
  if (!last) return null;
  const window = samples.filter((s) => last.atMs - s.atMs <= WINDOW_MS);
  const span = last.atMs - (window[0]?.atMs ?? last.atMs);
  if (window.length < LEAST_SAMPLES || span < WINDOW_MS * 0.75) return null;
  const values = window.map((s) => s.valueSi);
  const half = Math.floor(values.length / 2);
  const [first, second] = [values.slice(0, half), values.slice(half)];
  const error = Math.hypot(
    sampleDeviation(first) / Math.sqrt(first.length),
    sampleDeviation(second) / Math.sqrt(second.length),
  );
  const drift = Math.abs(mean(second) - mean(first));
  const m = mean(values);
  if (drift > 2 * error && drift > 0.005 * Math.abs(m)) return null;
  return { mean: m, deviation: sampleDeviation(values), samples: values.length, highest: Math.max(...values) };
};
