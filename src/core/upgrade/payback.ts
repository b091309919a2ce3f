import { NORMAL_80 } from '../numeric/normal';
import { seeded } from '../numeric/seeded';

/** Yearly cost of one stage, and its change. */
export interface StageSpend {
  readonly name: string;
  /** A change of it: pieces, and its part of the opening. */
  readonly perChange: number;
  /** The same afterwards; 0 where it goes out. */
  readonly perChangeAfter: number;
  /** Days between its changes, the middle, and how surely that is known (standard deviation of the logarithm). */
  readonly days: number;
  readonly spread: number;
  /** Times as long afterwards, the middle, and its spread. */
  readonly factor: number;
  readonly factorSpread: number;
}

export interface PaybackInput {
  /** Price of the upgrade. */
  readonly price: number;
  readonly stages: readonly StageSpend[];
  /** Yearly cost of the upgrade itself: emptying a bin, its own filters. */
  readonly addedPerYear: number;
  readonly seed: number;
}

export interface Range {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

/** How an upgrade pays: never (it costs more, or saves nothing), at once, most likely never, or after some years. */
export type PaybackOutcome = 'costsMore' | 'savesNothing' | 'noPrice' | 'likelyNever' | 'pays';

export interface Payback {
  readonly costBefore: Range;
  readonly costAfter: Range;
  readonly savedPerYear: Range;
  /** Years until it is paid: 10, 50 and 90 % of the cases; Infinity where it never is. */
  readonly years: Range;
  /** Chance that it is not paid within `NEVER_YEARS`. */
  readonly never: number;
  readonly outcome: PaybackOutcome;
  /** The input that the answer depends on most; null with only one input. */
  readonly hangsOn: { readonly name: string; readonly of: 'life' | 'gain' } | null;
}

export const NEVER_YEARS = 10;
const DRAWS = 4000;
const YEAR_DAYS = 365.25;

const rangeOf = (values: readonly number[]): Range => {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (p: number): number => sorted[Math.min(sorted.length - 1, Math.round(p * (sorted.length - 1)))] ?? 0;
  return { low: at(0.1), middle: at(0.5), high: at(0.9) };
};

/** A yearly saving this close to 0 is none, in money: sums of costs that cancel leave a rounding error. */
const NO_SAVING = 1e-9;

const outcomeOf = (price: number, { savedPerYear, years }: Pick<Payback, 'savedPerYear' | 'years'>): PaybackOutcome => {
  if (savedPerYear.high <= NO_SAVING) return savedPerYear.low < -NO_SAVING ? 'costsMore' : 'savesNothing';
  if (price <= 0) return 'noPrice';
  return Number.isFinite(years.middle) ? 'pays' : 'likelyNever';
};

interface Drawn {
  readonly days: readonly number[];
  readonly factors: readonly number[];
}

const spent = (input: PaybackInput, { days, factors }: Drawn) => {
  const changes = input.stages.map((s, i) => YEAR_DAYS / (days[i] ?? s.days));
  const before = input.stages.reduce((sum, s, i) => sum + (changes[i] ?? 0) * s.perChange, 0);
  const after = input.stages.reduce(
    (sum, s, i) => sum + ((changes[i] ?? 0) / (factors[i] ?? 1)) * s.perChangeAfter,
    input.addedPerYear,
  );
  return { before, after, saved: before - after };
};

const yearsOf = (price: number, saved: number): number =>
  price <= 0 ? 0 : saved > 0 ? price / saved : Number.POSITIVE_INFINITY;

/** The 10 and 90 % points of a normal. */

/** Swing of the yearly saving when one input alone moves over its uncertainty. */
const hangsOn = (input: PaybackInput): Payback['hangsOn'] => {
  const middle: Drawn = { days: input.stages.map((s) => s.days), factors: input.stages.map((s) => s.factor) };
  const swing = (with_: (z: number) => Drawn): number =>
    Math.abs(spent(input, with_(NORMAL_80)).saved - spent(input, with_(-NORMAL_80)).saved);
  const swings = input.stages.flatMap((s, i) => [
    {
      name: s.name,
      of: 'life' as const,
      by: swing((z) => ({ ...middle, days: middle.days.map((d, k) => (k === i ? d * Math.exp(z * s.spread) : d)) })),
    },
    {
      name: s.name,
      of: 'gain' as const,
      by: swing((z) => ({
        ...middle,
        factors: middle.factors.map((f, k) => (k === i ? f * Math.exp(z * s.factorSpread) : f)),
      })),
    },
  ]);
  const [most] = swings.filter((s) => s.by > 0).sort((a, b) => b.by - a.by);
  return most ? { name: most.name, of: most.of } : null;
};

/**
 * How long an upgrade takes to pay for itself: the machine's yearly cost before and after, each life and each gain drawn
 * from what is known of it, undiscounted. Money in the site's own currency. Source: simple payback; common practice, no
 * published source. Valid: price 0 and more, days above 0, factors above 0. A saving of nothing or less never pays.
 */
export const payback = (input: PaybackInput): Payback => {
  const chance = seeded(input.seed);
  const draws = Array.from({ length: DRAWS }, () =>
    spent(input, {
      days: input.stages.map((s) => s.days * Math.exp(s.spread * chance.normal())),
      factors: input.stages.map((s) => Math.exp(Math.log(s.factor) + s.factorSpread * chance.normal())),
    }),
  );
  const years = rangeOf(draws.map((d) => yearsOf(input.price, d.saved)));
  const savedPerYear = rangeOf(draws.map((d) => d.saved));
  return {
    costBefore: rangeOf(draws.map((d) => d.before)),
    costAfter: rangeOf(draws.map((d) => d.after)),
    savedPerYear,
    years,
    never: draws.filter((d) => yearsOf(input.price, d.saved) > NEVER_YEARS).length / DRAWS,
    outcome: outcomeOf(input.price, { savedPerYear, years }),
    hangsOn: hangsOn(input),
  };
};

/**
 * What 1 a year for n years is worth today. Source: the ordinary annuity, a = (1 - (1 + r)^-n) / r, as every table of
 * annuities prints it. Valid: rate 0 and more a year, years 0 and more.
 * @example annuityFactor({ rate: 0.05, years: 10 }) // 7.7217
 */
export const annuityFactor = ({ rate, years }: { readonly rate: number; readonly years: number }): number => {
  if (!(rate >= 0 && years >= 0)) throw new RangeError(`rate ${rate} over ${years} years`);
  return rate === 0 ? years : (1 - (1 + rate) ** -years) / rate;
};

/** Years until savings, discounted, have paid a price; Infinity where they never do. Source: the annuity, turned round. Valid: rate 0 and more. */
export const discountedYears = ({
  price,
  savedPerYear,
  rate,
}: {
  readonly price: number;
  readonly savedPerYear: number;
  readonly rate: number;
}): number => {
  const plain = yearsOf(price, savedPerYear);
  if (rate === 0 || !Number.isFinite(plain)) return plain;
  const left = 1 - plain * rate;
  return left > 0 ? -Math.log(left) / Math.log(1 + rate) : Number.POSITIVE_INFINITY;
};
