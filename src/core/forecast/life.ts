import { withBreaks } from './breaks';
import type { StageHistory } from './history';
import { bell, endSays, marksSay } from './life-says';
import { LIFE_TUNING, type LifeTuning } from './life-tuning';

// Belief in the load at which a stage reaches its limit, on a grid of its logarithm. Every past or running interval
// gives evidence by its observations and its end; together they give the life on this machine.

/** One possible start of the running interval: its recorded change, or an unrecorded one. */
export interface Branch {
  readonly weight: number;
  /** Load since the start of this branch. */
  readonly behind: number;
  /** Shares of belief on the grid. */
  readonly share: Float64Array;
}

export interface LifeBelief {
  readonly logLoad: Float64Array;
  /** The first branch is the unchanged record. */
  readonly branches: readonly Branch[];
  /** Belief about a future interval by the others, summing to 1. */
  readonly fresh: Float64Array;
}

const GRID = 61;
/** Spreads of the logarithm to each side that the grid covers. */
const REACH = 3.2;
/** Exponents of the share against the load: straight in the middle, bent to both sides, with their belief before. */
const EXPONENTS: readonly (readonly [exponent: number, weight: number])[] = [
  [0.75, 0.25],
  [1, 0.45],
  [1.4, 0.3],
];
const ANY_EXPONENT: readonly (readonly [exponent: number, weight: number])[] = [[1, 1]];
/** Where an unwritten change may have been, as shares of the load so far. */
const CANDIDATES = Array.from({ length: 12 }, (_, i) => (i + 1) / 13);
/** Spread of an untypical interval about the others. */
const ODD_SPREAD = 0.7;
/** After one forgotten change the next is forgotten this often: a diary stops. A modelling choice. */
const FORGOTTEN_AGAIN = 0.5;
/** Logarithm of 1 to 6: how many lives an unrecorded stretch may hold. */
const LIVES = Array.from({ length: 6 }, (_, k) => Math.log(k + 1));
/** Intervals that are learned from, the newest. */
const MOST_INTERVALS = 14;

/** A bell of spread 1 is this high: 1 / sqrt(2 pi). */
const BELL = 0.398_942_28;

/** Bells by the distance of two points of the grid, for a spread; each made once. */
const kernels = (step: number) => {
  const known = new Map<number, Float64Array>();
  return (spread: number): Float64Array => {
    const key = Math.round(spread * 50);
    const held = known.get(key);
    if (held) return held;
    const wide = Math.max(0.04, key / 50);
    const reach = Math.min(GRID - 1, Math.ceil((4 * wide) / step));
    const made = Float64Array.from({ length: reach + 1 }, (_, d) => bell(d * step, 0, wide) * step * BELL);
    known.set(key, made);
    return made;
  };
};

const smeared = (values: Float64Array, kernel: Float64Array): Float64Array => {
  const out = new Float64Array(GRID);
  const reach = kernel.length - 1;
  // Each value spreads to both sides alike. Most values of a narrow belief are 0.
  for (let x = 0; x < GRID; x += 1) {
    const value = values[x] ?? 0;
    if (value === 0) continue;
    out[x] = (out[x] ?? 0) + value * (kernel[0] ?? 0);
    for (let d = 1; d <= reach; d += 1) {
      const here = value * (kernel[d] ?? 0);
      if (x >= d) out[x - d] = (out[x - d] ?? 0) + here;
      if (x + d < GRID) out[x + d] = (out[x + d] ?? 0) + here;
    }
  }
  return out;
};

const sumOf = (values: Float64Array): number => {
  let sum = 0;
  for (const v of values) sum += v;
  return sum;
};

const gridOf = (
  { template }: StageHistory,
  tuning: LifeTuning,
): { readonly grid: Float64Array; readonly step: number } => {
  const widest = Math.max(...tuning.spreads.map(([s]) => s));
  const half = REACH * Math.hypot(template.spread, widest);
  const centre = Math.log(template.load);
  const step = (2 * half) / (GRID - 1);
  return { grid: Float64Array.from({ length: GRID }, (_, i) => centre - half + step * i), step };
};

/** A life of the running interval before anything was seen of it, for each exponent: what the others say. */
const fromOthers = (
  history: StageHistory,
  {
    grid,
    step,
    exponents,
    tuning,
  }: {
    readonly grid: Float64Array;
    readonly step: number;
    readonly exponents: typeof EXPONENTS;
    readonly tuning: LifeTuning;
  },
): readonly Float64Array[] => {
  const kernel = kernels(step);
  const past = withBreaks(history, tuning).slice(-MOST_INTERVALS);
  const ends = past.map((i) => {
    const says = endSays(i, history, tuning);
    return grid.map((x) => says(x));
  });
  const { template } = history;
  const centre = Math.log(template.load);
  const priorOfMiddle = grid.map((m) => bell(m, centre, template.spread));
  const lives = exponents.map(([exponent]) =>
    past.map((i, k) => {
      const end = ends[k] ?? new Float64Array(GRID);
      if (i.marks.length === 0) return end;
      const marked = marksSay(i.marks, grid, { exponent, from: 0, to: Infinity });
      return marked.map((v, x) => v * (end[x] ?? 1));
    }),
  );
  // An interval without marks has the same likelihood for every exponent.
  const known = new Map<Float64Array, Map<Float64Array, Float64Array>>();
  const said = (life: Float64Array, by: Float64Array): Float64Array => {
    const mine = known.get(life) ?? new Map<Float64Array, Float64Array>();
    known.set(life, mine);
    const held = mine.get(by);
    if (held) return held;
    const anyhow = (tuning.odd * sumOf(life)) / GRID;
    const made = smeared(life, by).map((v) => Math.log((1 - tuning.odd) * v + anyhow + 1e-300));
    mine.set(by, made);
    return made;
  };
  const logs: { readonly e: number; readonly s: number; readonly log: Float64Array }[] = [];
  let most = -Infinity;
  exponents.forEach(([, weight], e) => {
    tuning.spreads.forEach(([spread, belief], s) => {
      const log = priorOfMiddle.map((p) => Math.log(p * weight * belief + 1e-300));
      past.forEach((interval, k) => {
        const age = past.length - 1 - k;
        const wide = Math.hypot(spread, tuning.drift * age, interval.beforeRegime ? tuning.regime : 0);
        const life = lives[e]?.[k] ?? new Float64Array(GRID);
        const here = said(life, kernel(wide));
        for (let m = 0; m < GRID; m += 1) log[m] = (log[m] ?? 0) + (here[m] ?? 0);
      });
      for (const v of log) most = Math.max(most, v);
      logs.push({ e, s, log });
    });
  });
  const out = exponents.map(() => new Float64Array(GRID));
  for (const { e, s, log } of logs) {
    const spread = tuning.spreads[s]?.[0] ?? 0.3;
    const middle = log.map((v) => Math.exp(v - most));
    const life = smeared(middle, kernel(spread));
    // The one that runs may be of no account either: put in wrong, it lasts as it lasts.
    const odd = smeared(middle, kernel(ODD_SPREAD));
    const sum = out[e];
    if (sum)
      for (let x = 0; x < GRID; x += 1)
        sum[x] = (sum[x] ?? 0) + (1 - tuning.odd) * (life[x] ?? 0) + tuning.odd * (odd[x] ?? 0);
  }
  const total = out.reduce((sum, v) => sum + sumOf(v), 0);
  return out.map((v) => v.map((p) => p / total));
};

/** "Not changed yet": a limit that was passed is mostly acted on within days. */
const notYet = (history: StageHistory, grid: Float64Array, behind: number): Float64Array => {
  const { ignored } = history;
  const now = history.running.load;
  return grid.map((x) => {
    const past = behind - Math.exp(x);
    if (past <= 0) return 1;
    const days = history.daysSince(Math.min(now, past));
    return ignored + (1 - ignored) * Math.exp(-days / history.actDays);
  });
};

/** A change comes this much after a limit, and so differently, as logarithms of the load. Modelling choices. */
const ENDS_AFTER = 0.08;
const ENDS_SPREAD = 0.25;

/** Likelihood that whole lives, one or several, ended at a load, by the life: all but the last change were not recorded either. */
const livedUntil = (load: number, grid: Float64Array): Float64Array => {
  const at = Math.log(load) - ENDS_AFTER;
  return grid.map((x) =>
    LIVES.reduce((sum, lives, k) => sum + BELL * FORGOTTEN_AGAIN ** k * bell(at - lives, x, ENDS_SPREAD), 0),
  );
};

/**
 * Belief in the load at which the interval that runs reaches its limit: the template, shrunk towards the finished
 * intervals of this machine (each by its observations, the reason it ended, and how sure its dates are), then updated
 * by the observations of this one, by the fact that it is still in, and by the chance of an unrecorded change. Source:
 * Bayes' rule on a grid; the spreads are Moorwind defaults. Valid: loads above 0, in the unit of the history.
 */
export const believeLife = (history: StageHistory, tuning: LifeTuning = LIFE_TUNING): LifeBelief => {
  const { grid, step } = gridOf(history, tuning);
  const shares = [...history.past, history.running].some((i) => i.marks.length > 0);
  const exponents = shares ? EXPONENTS : ANY_EXPONENT;
  const others = fromOthers(history, { grid, step, exponents, tuning });
  const { load, marks } = history.running;
  const branchAt = (from: number, weightOf: (e: number) => number): Branch => {
    const stays = notYet(history, grid, load - from);
    const share = new Float64Array(GRID);
    exponents.forEach(([exponent], e) => {
      const says = marksSay(marks, grid, { exponent, from, to: Infinity });
      const weight = weightOf(e);
      for (let x = 0; x < GRID; x += 1)
        share[x] = (share[x] ?? 0) + weight * (others[e]?.[x] ?? 0) * (says[x] ?? 0) * (stays[x] ?? 0);
    });
    return { weight: sumOf(share), behind: load - from, share };
  };
  const written = branchAt(0, () => 1 - history.unwritten);
  const falls = marks.flatMap((m, i) => {
    const next = marks[i + 1];
    return next?.kind === 'share' && m.kind === 'share' && next.share < m.share - 0.25
      ? [(m.load + next.load) / 2]
      : [];
  });
  const at =
    load > 0 && history.unwritten > 0 ? [...CANDIDATES.map((c) => c * load), ...falls].sort((a, b) => a - b) : [];
  const unwritten = at.map((from, i) => {
    const [below, above] = [at[i - 1] ?? from / 2, at[i + 1] ?? load];
    const cell = Math.log((from + above) / (below + from));
    const lived = livedUntil(from, grid);
    return branchAt(from, (e) => {
      // Before it a life was over, as lives are.
      const exponent = exponents[e]?.[0] ?? 1;
      const before = marksSay(marks, grid, { exponent, from: 0, to: from });
      const sum = sumOf(others[e] ?? new Float64Array(GRID));
      if (!(sum > 0)) return 0;
      let ended = 0;
      for (let x = 0; x < GRID; x += 1) ended += (others[e]?.[x] ?? 0) * (before[x] ?? 0) * (lived[x] ?? 0);
      return (history.unwritten * cell * ended) / sum;
    });
  });
  const fresh = grid.map((_, x) => others.reduce((sum, of) => sum + (of[x] ?? 0), 0));
  return { logLoad: grid, branches: [written, ...unwritten].filter((b) => b.weight > 0), fresh };
};
