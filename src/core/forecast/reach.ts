import type { ReachQuantiles } from './limit-distribution';
import type { StageHistory } from './history';
import { believeLife, LIFE_TUNING, lifeQuantile, type LifeTuning } from './life';
import { type Chance, daysSince, daysDrawer, FURTHEST_DAYS, type Use } from './use';

/** Draws of the days from now at which one rule is reached, each by its own luck; may be negative. */
export type Draws = Float64Array;

export const DRAWS = 400;

/** Draws of when a limit of wear is reached: by its life in load, then by use in days. */
export const drawWear = (
  history: StageHistory,
  use: Use,
  {
    chance,
    tuning = LIFE_TUNING,
    draws = DRAWS,
  }: { readonly chance: Chance; readonly tuning?: LifeTuning; readonly draws?: number },
): Draws => {
  const belief = believeLife(history, tuning);
  const drawDays = daysDrawer(use);
  return Float64Array.from({ length: draws }, (_, i) => {
    // Stratified: every part of the belief is drawn once.
    const life = lifeQuantile(belief, (i + chance.uniform()) / draws);
    const left = life - history.load;
    return left > 0 ? drawDays(left, chance) : -daysSince(-left, use);
  });
};

/** How often the stage that is counted is really changed, with its habits. */
export interface CountedHabit {
  /** Days of its finished intervals, oldest first. */
  readonly gaps: readonly number[];
  /** Days since its last change. */
  readonly since: number;
  /** Middle days between changes where nothing is on record yet. */
  readonly templateDays: number;
}

/** Spread of the gaps before any is on record, and how much belief that carries, in gaps. */
const GAP_SPREAD = 0.35;
const GAP_BELIEF = 2;
/** How far the coming gaps may lie from those on record altogether: work changes. */
const GAP_DRIFT = 0.2;
/** The newest gaps between changes that are learned from, and how often a gap is drawn that has outlasted the one that runs. */
const GAPS_KEPT = 8;
const MOST_TRIES = 20;

const gapModel = ({
  gaps,
  templateDays,
}: CountedHabit): { readonly middle: number; readonly spread: number; readonly unsure: number } => {
  const logs = gaps
    .slice(-GAPS_KEPT)
    .filter((g) => g > 0)
    .map(Math.log);
  const n = logs.length;
  const centre = n === 0 ? Math.log(templateDays) : logs.reduce((a, b) => a + b, 0) / n;
  const middle = n === 0 ? centre : (n * centre + 0.5 * Math.log(templateDays)) / (n + 0.5);
  const squares = logs.reduce((sum, x) => sum + (x - centre) ** 2, 0);
  const spread = Math.sqrt((squares + GAP_BELIEF * GAP_SPREAD ** 2) / (Math.max(0, n - 1) + GAP_BELIEF));
  return { middle, spread, unsure: n === 0 ? 0.5 : Math.hypot(spread / Math.sqrt(n), GAP_DRIFT) };
};

/**
 * Draws of when a stage has been changed so many times more: the one that runs first, as old as it is, then whole ones.
 * A count inherits the spread and the habits of what it counts. Source: a renewal process with lognormal gaps.
 */
export const drawCount = (
  remaining: number,
  habit: CountedHabit,
  { chance, draws = DRAWS }: { readonly chance: Chance; readonly draws?: number },
): Draws => {
  const { middle, spread, unsure } = gapModel(habit);
  return Float64Array.from({ length: draws }, () => {
    if (remaining <= 0) return 0;
    const own = middle + unsure * chance.normal();
    const gap = () => Math.exp(own + spread * chance.normal());
    let first = gap();
    // It has lasted this long already.
    for (let tries = 0; first <= habit.since && tries < MOST_TRIES; tries += 1) first = gap();
    let sum = Math.max(first - habit.since, 0.5);
    for (let k = 1; k < remaining; k += 1) sum += gap();
    return Math.min(sum, FURTHEST_DAYS);
  });
};

const quantile = (sorted: Float64Array, p: number): number => {
  const at = p * (sorted.length - 1);
  const [low, high] = [sorted[Math.floor(at)] ?? 0, sorted[Math.ceil(at)] ?? 0];
  return low + (high - low) * (at - Math.floor(at));
};

/** One rule of a stage with its draws; a fixed day is a draw that is always the same. */
export interface RuleDraws {
  readonly rule: number;
  readonly draws: Draws;
}

export interface StageForecast {
  /** 0, 10, 50, 90 and 100 % of the days from now at which the first limit is reached. */
  readonly reached: ReachQuantiles;
  /** Chance that each rule is the first, by its number, the likeliest first. */
  readonly binding: readonly { readonly rule: number; readonly chance: number }[];
  /** Chance that a limit is behind already. */
  readonly overdue: number;
}

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
  const sorted = Float64Array.from(reached).sort();
  const q = (p: number) => quantile(sorted, p);
  return {
    reached: [q(0), q(0.1), q(0.5), q(0.9), q(1)],
    binding: [...firsts]
      .map(([rule, count]) => ({ rule, chance: count / reached.length }))
      .sort((a, b) => b.chance - a.chance),
    overdue: reached.reduce((n, t) => n + (t < 0 ? 1 : 0), 0) / reached.length,
  };
};
