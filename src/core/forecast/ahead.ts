import type { Chance } from './chance';
import type { Used } from './used';

// Future use. It continues at the recent rate for a while, then returns to its long-run rate in blocks of whole past
// weeks, so that pauses and busy months recur. Days on which the yard is known to be shut have no use and are counted
// once: the rate of a week is taken over its open days.

/** Days further on than this are not looked at. */
export const FURTHEST_DAYS = 1500;
export const PATHS = 320;

const WEEK = 7;
/** Weeks simulated one by one; later weeks go in fours. */
const FINE_WEEKS = 26;
const COARSE = 4;
/** From a year on eight. */
const COARSE_UNTIL = 378;
/** Weeks of a block: about what a job lasts. */
const BLOCK = 4;
/** Weeks of the record that are drawn from, and those that count as of late. Modelling choices. */
const KEPT_WEEKS = 130;
const LATE_WEEKS = 5;
/** Age at which a week counts half, weeks: use drifts. */
const HALF_WEIGHT_WEEKS = 40;
/** Chance that the next block is of late weeks, and the one after it, and so on. */
const STAYS = 0.6;
/**
 * Uncertainty of the level of use about the record, as a spread of its logarithm, and its drift in a year. Modelling
 * choices.
 */
export const USE_UNSURE = { hours: 0.18, days: 0.22 } as const;
/** Spread between one block of weeks and the next where only days are counted. */
const HIDDEN_BLOCK = 0.45;
const DRIFT_A_YEAR = 0.22;
/** Least use of a future day, as a share of the usual one: an idle month must not give an endless life. */
const LEAST = 0.02;

export interface Ahead {
  /** Days from today at which the bins end, ascending; the first is 0. */
  readonly ends: Float64Array;
  /** Load used up to each of the ends, a row for each path. */
  readonly paths: readonly Float64Array[];
  /** Open days up to each end, for days within a bin. */
  readonly open: (day: number) => boolean;
}

interface Week {
  /** Load of an open day. */
  readonly rate: number;
  readonly dust: number;
}

/** The weeks on record, newest first, each by its open days; weeks that were shut are left out. */
const weeksOf = (used: Used, weights: readonly number[], worked: (day: number) => boolean): readonly Week[] => {
  const weeks: Week[] = [];
  for (let end = used.load.length; end >= WEEK && weeks.length < KEPT_WEEKS; end -= WEEK) {
    let [sum, open, dust] = [0, 0, 0];
    for (let i = end - WEEK; i < end; i += 1) {
      const here = used.load[i] ?? 0;
      const which = used.dust[i] ?? 0;
      sum += here * (weights[which] ?? 1);
      if (here > 0) dust = which;
      if (worked(used.first + i)) open += 1;
    }
    if (open >= 2 || sum > 0) weeks.push({ rate: sum / Math.max(1, open), dust });
  }
  if (weeks.length > 0) return weeks;
  const total = used.load.reduce((a, b) => a + b, 0);
  return [{ rate: total / Math.max(1, (used.load.length * 5) / WEEK), dust: 0 }];
};

const binsOf = (): Float64Array => {
  const ends = [0];
  for (let w = 1; w <= FINE_WEEKS; w += 1) ends.push(w * WEEK);
  for (let d = FINE_WEEKS * WEEK; d < FURTHEST_DAYS;) {
    d += (d < COARSE_UNTIL ? COARSE : 2 * COARSE) * WEEK;
    ends.push(d);
  }
  return Float64Array.from(ends);
};
const ENDS = binsOf();
/** Weeks of each bin, and the drift of use in it. */
const WEEKS_OF = Float64Array.from(ENDS, (end, b) => (end - (ENDS[b - 1] ?? 0)) / WEEK);
const DRIFT_OF = Float64Array.from(WEEKS_OF, (weeks, b) =>
  weeks > 1 || b === FINE_WEEKS ? DRIFT_A_YEAR * Math.sqrt(((weeks > 1 ? weeks : FINE_WEEKS) * WEEK) / 365) : 0,
);

export interface AheadInput {
  readonly used: Used;
  readonly weights: readonly number[];
  /** How unsure the level of use to come is, as a spread of its logarithm. */
  readonly unsure: number;
  /** Whether the yard was open on a recorded day, and whether it will be open that many days from today. */
  readonly worked: (day: number) => boolean;
  readonly works: (day: number) => boolean;
  readonly chance: Chance;
}

/** Paths of the load to come, on one scale with the clock of the record. Source: block bootstrap, Kunsch 1989. Valid: at least one day on record. */
export const aheadOf = ({ used, weights, unsure, worked, works, chance }: AheadInput): Ahead => {
  const weeks = weeksOf(used, weights, worked);
  const n = weeks.length;
  const mean = weeks.reduce((sum, w) => sum + w.rate, 0) / n;
  const least = LEAST * mean;
  const rates = Float64Array.from(weeks, (w) => w.rate);
  const last = ENDS.at(-1) ?? 0;
  const isOpen = Uint8Array.from({ length: last + 1 }, (_, day) => (works(day) ? 1 : 0));
  const open = Float64Array.from(ENDS, (end, b) => {
    let count = 0;
    for (let day = (ENDS[b - 1] ?? 0) + 1; day <= end; day += 1) count += isOpen[day] ?? 0;
    return b === 0 ? 0 : count;
  });
  // The newest weeks first: the weight halves every HALF_WEIGHT_WEEKS.
  const whole = Array.from({ length: n }, (_, i) => 0.5 ** (i / HALF_WEIGHT_WEEKS));
  const sum = whole.reduce((a, b) => a + b, 0);
  let below = 0;
  const cumulative = Float64Array.from(whole, (w) => (below += w / sum));
  const pick = (u: number): number => {
    let [low, high] = [0, n - 1];
    while (low < high) {
      const mid = (low + high) >> 1;
      if ((cumulative[mid] ?? 1) < u) low = mid + 1;
      else high = mid;
    }
    return low;
  };
  const hidden = used.counts === 'days';
  const late = Math.min(LATE_WEEKS, n);
  const paths = Array.from({ length: PATHS }, () => {
    const path = new Float64Array(ENDS.length);
    let level = unsure * chance.normal();
    let factor = Math.exp(level);
    let at = 0;
    let left = 0;
    let stays = true;
    let total = 0;
    let block = 1;
    for (let b = 1; b < ENDS.length; b += 1) {
      if (left <= 0) {
        stays = stays && chance.uniform() < STAYS;
        // A block runs unchanged from an older week to a newer one; the index falls.
        at = stays ? Math.floor(chance.uniform() * late) : pick(chance.uniform());
        left = BLOCK;
        if (hidden) block = Math.exp(HIDDEN_BLOCK * chance.normal() - HIDDEN_BLOCK ** 2 / 2);
      }
      const rate = rates[at] ?? mean;
      if (at > 0) at -= 1;
      left -= WEEKS_OF[b] ?? 1;
      const drift = DRIFT_OF[b] ?? 0;
      if (drift > 0) {
        level += drift * chance.normal();
        factor = Math.exp(level);
      }
      total += (rate > least ? rate : least) * block * factor * (open[b] ?? 0);
      path[b] = total;
    }
    return path;
  });
  return { ends: ENDS, paths, open: (day) => isOpen[day] === 1 };
};

/** The day from now on which a path has used up a load: 1 is tomorrow; it is a day of work. Source: the path. Valid: a load of 0 or more. */
export const daysUntil = ({ ends, open }: Ahead, path: Float64Array, load: number): number => {
  if (load <= 0) return 0;
  let [low, high] = [0, path.length - 1];
  if ((path[high] ?? 0) < load) return FURTHEST_DAYS;
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    if ((path[mid] ?? 0) < load) low = mid;
    else high = mid;
  }
  const [from, to] = [ends[low] ?? 0, ends[high] ?? 0];
  const step = (path[high] ?? 0) - (path[low] ?? 0);
  const share = step > 0 ? (load - (path[low] ?? 0)) / step : 1;
  if (to - from > WEEK) return Math.min(FURTHEST_DAYS, Math.ceil(from + share * (to - from)));
  // Within a week only open days count.
  let count = 0;
  for (let day = from + 1; day <= to; day += 1) if (open(day)) count += 1;
  let wanted = Math.max(1, Math.ceil(share * count));
  for (let day = from + 1; day <= to; day += 1) {
    if (open(day)) wanted -= 1;
    if (wanted <= 0) return Math.min(FURTHEST_DAYS, day);
  }
  return Math.min(FURTHEST_DAYS, to);
};
