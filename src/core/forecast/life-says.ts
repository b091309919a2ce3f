import type { Interval, Mark, PastInterval, StageHistory } from './history';
import type { LifeTuning } from './life-tuning';

// What marks, and the end of an interval, say of the life of that interval.

/** A gauge changes its zone within this share of the limit; it is read wrong this often, and a share that is way off as rarely. */
const ZONE_WIDTH = 0.12;
const ZONE_WRONG = 0.03;
const SHARE_WRONG = 0.003;

/** Lateness adds at most this to an interval, as a logarithm. */
const MOST_LATE = 0.3;

/** A bell 1 / spread high: the normal density without its constant. Source: the normal density. Valid: a spread above 0. */
export const bell = (x: number, mean: number, deviation: number): number =>
  Math.exp(-0.5 * ((x - mean) / deviation) ** 2) / deviation;

/** A soft step of width 1: the logistic that lies closest to the normal distribution. */
const softStep = (z: number): number => 1 / (1 + Math.exp(-1.702 * z));

/** Likelihood of a mark for a life, by exponent: at most 1. */
const markSays = (mark: Mark, logLoad: number, exponent: number): number => {
  if (mark.load <= 0) return 1;
  const share = Math.exp(exponent * (Math.log(mark.load) - logLoad));
  if (mark.kind === 'share') return SHARE_WRONG + bell(mark.share, share, mark.deviation) * mark.deviation;
  const over = mark.above === null ? 1 : softStep((share / mark.above - 1) / ZONE_WIDTH);
  const under = mark.below === null ? 1 : softStep((1 - share / mark.below) / ZONE_WIDTH);
  return ZONE_WRONG + (1 - ZONE_WRONG) * Math.max(0, over + under - 1);
};

/** What marks say together, over the grid; only those of a stretch of the load, counted from where it began. */
export const marksSay = (
  marks: readonly Mark[],
  grid: Float64Array,
  { exponent, from, to }: { readonly exponent: number; readonly from: number; readonly to: number },
): Float64Array => {
  const says = new Float64Array(grid.length).fill(1);
  for (const mark of marks) {
    if (mark.load <= from || mark.load > to) continue;
    const here = { ...mark, load: mark.load - from };
    for (let k = 0; k < grid.length; k += 1) says[k] = (says[k] ?? 0) * markSays(here, grid[k] ?? 0, exponent);
  }
  return says;
};

/** What lateness adds to an interval, as a logarithm: a few days are much of a fortnight and nothing of a year. Choice: a modelling choice. Valid: days to act above 0. */
export const lateBy = ({ days }: Interval, actDays: number): number =>
  Math.min(MOST_LATE, Math.log(1 + actDays / Math.max(days, 1)));

/** Likelihood of a past interval's end for its own life. */
export const endSays = (
  interval: PastInterval,
  { actDays, unwritten }: StageHistory,
  t: LifeTuning,
): ((x: number) => number) => {
  const at = Math.log(interval.load);
  const bound = (x: number): number => softStep((x - at + 0.15) / Math.hypot(0.25, interval.unsure));
  switch (interval.end) {
    case 'limit': {
      const marked = interval.marks.some((m) => m.kind === 'share' && m.load > 0.8 * interval.load);
      const spread = Math.hypot(t.lateSpread, interval.unsure) * (marked ? 1.5 : 1);
      const late = lateBy(interval, actDays);
      // Two lives in one, where the change between them was not written down.
      return (x) => (1 - unwritten) * bell(at - late, x, spread) + unwritten * bell(at - late - Math.LN2, x, spread);
    }
    case 'early': {
      const spread = Math.hypot(t.earlySpread, interval.unsure);
      const middle = at - Math.log(t.earlyShare);
      return (x) => (1 - t.earlyAnyhow) * bell(middle, x, spread) + t.earlyAnyhow * bound(x);
    }
    case 'bound':
      return (x) => t.earlyAnyhow + (1 - t.earlyAnyhow) * bound(x);
    case 'other':
      return () => 1;
  }
};
