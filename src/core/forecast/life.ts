import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import type { PastInterval, Inspection, StageHistory } from './history';

/** The load to the limit of the interval that runs, as shares of belief on a grid of its logarithm. */
export interface LifeBelief {
  readonly logLoad: Float64Array;
  readonly share: Float64Array;
}

/** Spreads and biases of the life of a stage, as logarithms. Moorwind defaults, tuned on made-up yards. */
export interface LifeTuning {
  /** From one interval to the next on the same machine. */
  readonly between: number;
  /** People change late: by how many days, and how differently. */
  readonly lateDays: number;
  readonly lateSpread: number;
  /** A coarse look at the fill. */
  readonly look: number;
  /** How far the life of a new dust, job or path lies from that of the old one. */
  readonly regime: number;
  /** Spread that days hide, for a life of one day; it falls with the root of the life. */
  readonly hidden: number;
  /** Drift from one interval to the next. */
  readonly drift: number;
  /** Where an early change leaves the limit: at least this soft. */
  readonly soft: number;
  /** An interval this many spreads away from those before it tells of a new regime that nobody recorded. */
  readonly surprise: number;
}

export const LIFE_TUNING: LifeTuning = {
  between: 0.3,
  lateDays: 4,
  lateSpread: 0.2,
  look: 0.16,
  regime: 0.6,
  hidden: 1.6,
  drift: 0.06,
  soft: 0.3,
  surprise: 2.2,
};

const HIDDEN_MOST = 0.4;
/** Found emptier than this, an interval says nothing of its life. */
const LEAST_FOUND = 0.05;
/** Chance that a stage was changed early for a reason that has nothing to do with its load. */
const EARLY_ANYHOW = 0.1;
/** A gauge changes its zone within this share of the limit; it is read wrong this often, and a share that is way off as rarely. */
const ZONE_WIDTH = 0.1;
const ZONE_WRONG = 0.02;
const SHARE_WRONG = 0.01;

const GRID = 81;
/** Spreads of the logarithm to each side that the grid covers. */
const REACH = 3.5;
/** Exponents of the share against the load: straight in the middle, floating to both sides, with their belief before. */
const EXPONENTS: readonly (readonly [number, number])[] = [
  [0.7, 0.12],
  [0.85, 0.23],
  [1, 0.3],
  [1.2, 0.23],
  [1.45, 0.12],
];

const density = (x: number, mean: number, deviation: number): number =>
  Math.exp(-0.5 * ((x - mean) / deviation) ** 2) / deviation;

/** What lateness adds to an interval: a few days are much of a fortnight and nothing of a year. */
const lateOf = ({ days }: PastInterval, { lateDays }: LifeTuning): number => Math.log(1 + lateDays / Math.max(days, 1));

/** What one past interval says of the machine's middle life, as a likelihood; null when it says nothing. */
const saysOf = (interval: PastInterval, age: number, t: LifeTuning): ((m: number) => number) | null => {
  const aged = Math.hypot(t.between, t.drift * age, interval.beforeRegime ? t.regime : 0);
  const x = Math.log(interval.load);
  if (interval.found !== null && interval.found > LEAST_FOUND) {
    const deviation = Math.hypot(aged, t.look / Math.min(1, interval.found));
    return (m) => density(x - Math.log(interval.found ?? 1), m, deviation);
  }
  if (interval.end === 'limit') return (m) => density(x - lateOf(interval, t), m, Math.hypot(aged, t.lateSpread));
  // Opened before its limit: the life was longer, most likely.
  if (interval.end === 'early')
    return (m) => EARLY_ANYHOW + (1 - EARLY_ANYHOW) * normalCdf((m - x + t.soft / 2) / Math.hypot(aged, t.soft), 0, 1);
  return null;
};

/** The logarithm of a finished interval's life, as well as it is known; null where it is only a bound. */
const lifeOf = (i: PastInterval, t: LifeTuning): number | null =>
  i.found !== null && i.found > LEAST_FOUND
    ? Math.log(i.load / i.found)
    : i.end === 'limit'
      ? Math.log(i.load) - lateOf(i, t)
      : null;

/**
 * Marks what lies before a break nobody recorded: where the newest lives stand further from the older ones than lives of
 * one machine do, the older ones are of another regime and are not averaged in. Source: a modelling choice.
 */
export const withBreaks = (
  past: readonly PastInterval[],
  tuning: LifeTuning = LIFE_TUNING,
): readonly PastInterval[] => {
  const lives = past.map((i) => (i.beforeRegime ? null : lifeOf(i, tuning)));
  const known = lives.flatMap((life, at) => (life === null ? [] : [{ life, at }]));
  if (known.length < 4) return past;
  const newest = known.slice(-2);
  const older = known.slice(0, -2);
  const meanOf = (of: typeof known) => of.reduce((sum, k) => sum + k.life, 0) / of.length;
  const gap = Math.abs(meanOf(newest) - meanOf(older));
  const spread = tuning.between * Math.sqrt(1 / newest.length + 1 / older.length);
  const from = newest[0]?.at ?? 0;
  return gap > tuning.surprise * spread ? past.map((i, at) => (at < from ? { ...i, beforeRegime: true } : i)) : past;
};

/** What a inspection says of a life of the interval that runs, for an exponent. */
const inspectionLikelihood = (inspection: Inspection, logLoad: number, exponent: number): number => {
  const share = (inspection.load / Math.exp(logLoad)) ** exponent;
  if (inspection.kind === 'side') {
    const over = normalCdf(share / inspection.share, 1, ZONE_WIDTH);
    return ZONE_WRONG + (1 - 2 * ZONE_WRONG) * (inspection.above ? over : 1 - over);
  }
  return SHARE_WRONG + density(inspection.share, share, inspection.deviation) * inspection.deviation;
};

const normalised = (shares: Float64Array): Float64Array => {
  const sum = shares.reduce((a, b) => a + b, 0);
  return sum > 0 ? shares.map((s) => s / sum) : shares.fill(1 / shares.length);
};

/**
 * Belief in the load at which the interval that runs reaches its limit: the template, shrunk towards what the finished
 * intervals of this machine say (each by why it ended and what was found), then by what was seen of this one. "Not
 * changed yet" is no evidence. Source: Bayes' rule on a grid; the spreads are Moorwind defaults.
 * Valid: loads above 0. The load is in whatever the history counts in: run hours or days.
 */
export const believeLife = (history: StageHistory, given: LifeTuning = LIFE_TUNING): LifeBelief => {
  const { template, inspections } = history;
  const hidden =
    history.counts === 'hours' ? 0 : Math.min(HIDDEN_MOST, given.hidden / Math.sqrt(Math.max(1, template.load)));
  const tuning = { ...given, between: Math.hypot(given.between, hidden) };
  const past = withBreaks(
    history.past.filter((i) => i.load > 0),
    tuning,
  );
  const centre = Math.log(template.load);
  const half = REACH * Math.hypot(template.spread, tuning.between);
  const logLoad = Float64Array.from({ length: GRID }, (_, i) => centre - half + (2 * half * i) / (GRID - 1));
  const says = past.flatMap((interval, i) => saysOf(interval, past.length - 1 - i, tuning) ?? []);
  const middle = normalised(
    logLoad.map((m) => says.reduce((p, say) => p * say(m), density(m, centre, template.spread))),
  );
  const prior = logLoad.map((x) =>
    middle.reduce((sum, p, k) => sum + p * density(x, logLoad[k] ?? 0, tuning.between), 0),
  );
  const seen = logLoad.map(
    (x, i) =>
      (prior[i] ?? 0) *
      EXPONENTS.reduce(
        (sum, [exponent, weight]) =>
          sum + weight * inspections.reduce((p, s) => p * inspectionLikelihood(s, x, exponent), 1),
        0,
      ),
  );
  return { logLoad, share: normalised(seen) };
};

/** The load below which a share of the belief lies, between the points of the grid. Source: inverse of the distribution function, linear between points. Valid: p of 0 to 1. */
export const lifeQuantile = ({ logLoad, share }: LifeBelief, p: number): number => {
  let below = 0;
  for (let i = 0; i < share.length; i += 1) {
    const here = share[i] ?? 0;
    if (below + here >= p) {
      const step = (logLoad[1] ?? 0) - (logLoad[0] ?? 0);
      const within = here > 0 ? (p - below) / here : 0.5;
      return Math.exp((logLoad[i] ?? 0) + step * (within - 0.5));
    }
    below += here;
  }
  return Math.exp(logLoad.at(-1) ?? 0);
};
