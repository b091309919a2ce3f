import { type Ahead, daysUntil, FURTHEST_DAYS } from './ahead';
import type { Chance } from './chance';
import type { Mark, StageHistory } from './history';
import { believeLife } from './life';
import { leftOf, leftQuantile, wholeOf } from './left';
import { LIFE_TUNING, type LifeTuning } from './life-tuning';
import type { ReachQuantiles } from './limit-distribution';

/** Draws of the days from now at which one rule is reached, each on its own path of use; may be negative. */
export type Draws = Float64Array;

interface By {
  readonly ahead: Ahead;
  readonly chance: Chance;
}

/** Strata of a draw in an order of their own: two rules of one stage share the use to come, and nothing else. */
const shuffledStrata = (n: number, { uniform }: Chance): Float64Array => {
  const order = Float64Array.from({ length: n }, (_, i) => (i + uniform()) / n);
  for (let i = n - 1; i > 0; i -= 1) {
    const j = Math.floor(uniform() * (i + 1));
    [order[i], order[j]] = [order[j] ?? 0, order[i] ?? 0];
  }
  return order;
};

/** Draws of when one rule is reached, and of the days one whole interval takes from now. */
export interface Reach {
  readonly draws: Draws;
  readonly whole: Draws;
  /** Days ago that somebody first saw the limit reached, where each later observation shows it too; else null. */
  readonly seenPast: number | null;
}

/** Chance that a limit was seen where it was not: a gauge is misread, a bag is judged wrong. A modelling choice. */
const SEEN_WRONG = 0.05;

/** Chance that a part seen at its limit is still in, so many days later: most are changed soon, and a few changes are not recorded. */
const stillIn = ({ actDays, ignored, unwritten }: StageHistory, days: number): number => {
  const left = ignored + (1 - ignored) * Math.exp(-days / actDays);
  const waits = (1 - unwritten) * left;
  return ((1 - SEEN_WRONG) * waits) / (waits + unwritten * (1 - left));
};

/** Whether the last observation at the stage was at or past its limit. */
const seenPast = (mark: Mark | undefined): boolean =>
  mark !== undefined &&
  (mark.kind === 'zone'
    ? mark.above !== null && mark.above >= 1
    : mark.atStage === true && mark.share - mark.deviation >= 1);

/** Draws of when a limit of wear is reached: by its life in load, then by a path of use in days. A limit that was seen to be reached is due. */
export const drawWear = (
  history: StageHistory,
  { ahead, chance, tuning = LIFE_TUNING }: By & { readonly tuning?: LifeTuning },
): Reach => {
  const believed = believeLife(history, tuning);
  const [belief, fresh] = [leftOf(believed), wholeOf(believed)];
  const strata = shuffledStrata(ahead.paths.length, chance);
  const { unsure, marks } = history.running;
  // The last observation gives the present state, independent of the load so far.
  const last = marks.at(-1);
  const firstPast = marks.slice(marks.findLastIndex((m) => !seenPast(m)) + 1)[0];
  const daysSinceLoad = (at: number): number => Math.floor(history.daysSince(Math.max(0, history.running.load - at)));
  const load = history.running.load - (last?.load ?? 0);
  const seen = last && seenPast(last) ? daysSinceLoad(last.load) : null;
  const holds = seen === null ? 0 : stillIn(history, seen);
  return {
    seenPast: firstPast ? daysSinceLoad(firstPast.load) : null,
    draws: Float64Array.from(ahead.paths, (path, i) => {
      // The load so far is uncertain too, where days were filled in or only days are counted.
      const behind = load * (1 - Math.exp(unsure * chance.normal()));
      const isIn = seen === null || chance.uniform() < holds;
      // Changed since it was seen at its limit, and not recorded: another life began on some day since.
      const left = isIn
        ? leftQuantile(belief, strata[i] ?? 0.5) + behind
        : leftQuantile(fresh, strata[i] ?? 0.5) - load * chance.uniform();
      // Reached today gives 0, at any hour; reached yesterday gives one day past.
      const day = left > 0 ? daysUntil(ahead, path, left) : 0 - Math.floor(history.daysSince(-left));
      return seen !== null && isIn ? Math.min(-seen, day) : day;
    }),
    whole: Float64Array.from(ahead.paths, (path, i) => daysUntil(ahead, path, leftQuantile(fresh, strata[i] ?? 0.5))),
  };
};

/** The real interval of the counted stage. */
export interface CountedHabit {
  /** Load of its finished intervals, oldest first. */
  readonly gaps: readonly number[];
  /** Load since its last change. */
  readonly since: number;
  /** Middle load between changes where nothing is on record yet. */
  readonly template: number;
}

/** Prior spread of the gaps, and the weight of that prior, in gaps. */
const GAP_SPREAD = 0.35;
const GAP_BELIEF = 2;
/** Spread of future gaps about the recorded ones: work changes. */
const GAP_DRIFT = 0.12;
const UNSURE_WITHOUT = 0.5;
/** The newest gaps between changes that are learned from, and how often a gap is drawn that has outlasted the one that runs. */
const GAPS_KEPT = 12;
const MOST_TRIES = 20;

const gapModel = ({
  gaps,
  template,
}: CountedHabit): { readonly middle: number; readonly spread: number; readonly unsure: number } => {
  const logs = gaps
    .filter((g) => g > 0)
    .slice(-GAPS_KEPT)
    .map(Math.log);
  const n = logs.length;
  const centre = n === 0 ? Math.log(template) : logs.reduce((a, b) => a + b, 0) / n;
  const middle = n === 0 ? centre : (n * centre + 0.3 * Math.log(template)) / (n + 0.3);
  const squares = logs.reduce((sum, x) => sum + (x - centre) ** 2, 0);
  const spread = Math.sqrt((squares + GAP_BELIEF * GAP_SPREAD ** 2) / (Math.max(0, n - 1) + GAP_BELIEF));
  return { middle, spread, unsure: n === 0 ? UNSURE_WITHOUT : Math.hypot(spread / Math.sqrt(n), GAP_DRIFT) };
};

/**
 * Draws of when a stage has been changed so many times more: the one that runs first, as far as it has come, then whole
 * ones, on one path of use. A count inherits the spread and the habits of what it counts. Source: a renewal process with
 * lognormal gaps in load.
 */
export const drawCount = (
  { count, done }: { readonly count: number; readonly done: number },
  habit: CountedHabit,
  { ahead, chance }: By,
): Reach => {
  const { middle, spread, unsure } = gapModel(habit);
  const whole = new Float64Array(ahead.paths.length);
  const draws = Float64Array.from(ahead.paths, (path, i) => {
    const own = middle + unsure * chance.normal();
    const gap = () => Math.exp(own + spread * chance.normal());
    let all = 0;
    for (let k = 0; k < count; k += 1) all += gap();
    whole[i] = Math.min(daysUntil(ahead, path, all), FURTHEST_DAYS);
    if (done >= count) return 0;
    let first = gap();
    // It has lasted this long already.
    for (let tries = 0; first <= habit.since && tries < MOST_TRIES; tries += 1) first = gap();
    let sum = Math.max(first - habit.since, 0.05 * Math.exp(middle));
    for (let k = 1; k < count - done; k += 1) sum += gap();
    return Math.min(daysUntil(ahead, path, sum), FURTHEST_DAYS);
  });
  return { draws, whole, seenPast: null };
};

const quantile = (sorted: Float64Array, p: number): number => {
  const at = p * (sorted.length - 1);
  const [low, high] = [sorted[Math.floor(at)] ?? 0, sorted[Math.ceil(at)] ?? 0];
  return low + (high - low) * (at - Math.floor(at));
};

const quantilesOf = (draws: Draws): ReachQuantiles => {
  const sorted = Float64Array.from(draws).sort();
  const q = (p: number) => quantile(sorted, p);
  return [q(0), q(0.1), q(0.5), q(0.9), q(1)];
};

/** One rule of a stage with its draws; a fixed day is a draw that is always the same. */
export interface RuleDraws extends Reach {
  readonly rule: number;
}

export interface StageForecast {
  /** 0, 10, 50, 90 and 100 % of the days from now at which the first limit is reached. */
  readonly reached: ReachQuantiles;
  /** Chance that each rule is the first, by its number, the likeliest first. */
  readonly binding: readonly { readonly rule: number; readonly chance: number }[];
  /** The same of one whole interval that begins today, days. */
  readonly whole: ReachQuantiles;
  /** The middle day of each rule by itself, by its number. */
  readonly middles: readonly { readonly rule: number; readonly middle: number }[];
  /** Chance that a limit is reached by the end of today. */
  readonly overdue: number;
  /** The rule whose limit somebody saw reached, and how many days ago; null where nobody did. */
  readonly seenPast: { readonly rule: number; readonly daysAgo: number } | null;
}

/** Days from now before which a limit counts as reached today: a draw of today is 0. Definition: half a day. */
export const END_OF_TODAY = 0.5;

/** The first of several rules, draw by draw. Returns null without any. */
export const firstOf = (rules: readonly RuleDraws[]): StageForecast | null => {
  const [one] = rules;
  if (!one) return null;
  const firsts = new Map<number, number>();
  const reached = one.draws.map((_, i) => {
    const best = rules.reduce((a, r) => ((r.draws[i] ?? Infinity) < (a.draws[i] ?? Infinity) ? r : a), one);
    firsts.set(best.rule, (firsts.get(best.rule) ?? 0) + 1);
    return best.draws[i] ?? 0;
  });
  const whole = one.whole.map((_, i) => rules.reduce((least, r) => Math.min(least, r.whole[i] ?? Infinity), Infinity));
  return {
    reached: quantilesOf(reached),
    whole: quantilesOf(whole),
    binding: [...firsts]
      .map(([rule, count]) => ({ rule, chance: count / reached.length }))
      .sort((a, b) => b.chance - a.chance),
    middles: rules.map(({ rule, draws }) => ({ rule, middle: quantile(Float64Array.from(draws).sort(), 0.5) })),
    overdue: reached.reduce((n, t) => n + (t < END_OF_TODAY ? 1 : 0), 0) / reached.length,
    seenPast: rules.reduce<StageForecast['seenPast']>(
      (first, { rule, seenPast: daysAgo }) =>
        daysAgo !== null && (first === null || daysAgo > first.daysAgo) ? { rule, daysAgo } : first,
      null,
    ),
  };
};
