import { BASELINE_GAIN_QUESTION, CONFIDENCE, VERDICT_REPEATS } from '../constants/limits';
import { studentFactor } from '../numeric/student';
import { combineSides, sideOf } from './correlated';
import { commonOf, type ReducedTest } from './reduce-test';

export interface LossThresholds {
  /** Share of the baseline lost, 0 to 1, inclusive. */
  readonly warnLoss: number;
  readonly actLoss: number;
}

export type BaselineVerdict =
  | { readonly outcome: 'noBaseline' }
  /** The test is itself the first baseline of its place and method. */
  | { readonly outcome: 'isBaseline' }
  | { readonly outcome: 'notUsable' }
  /** A maximum hold: biased high, without a spread. */
  | { readonly outcome: 'biased'; readonly lossFraction: number }
  | { readonly outcome: 'tooFew'; readonly lossFraction: number; readonly repeats: number; readonly needed: number }
  | {
      readonly outcome: 'fine' | 'warn' | 'act' | 'more' | 'cannotTell';
      /** Share of the baseline lost; negative when there is more than the baseline. */
      readonly lossFraction: number;
      /** Half the 95 % interval of the loss. */
      readonly expanded: number;
      /** For cannotTell: the threshold that the interval straddles. */
      readonly straddles: number | null;
      /** Share lost from which it warns. */
      readonly warnsAt: number;
    };

type Decided = Exclude<BaselineVerdict, { outcome: 'noBaseline' | 'isBaseline' | 'notUsable' | 'biased' | 'tooFew' }>;

/** A little slack keeps an exact 15 % inclusive in floating point. */
const SLACK = 1e-9;

const decide = (loss: number, expanded: number, limits: LossThresholds): Pick<Decided, 'outcome' | 'straddles'> => {
  const low = loss - expanded + SLACK;
  const high = loss + expanded - SLACK;
  if (low >= limits.actLoss) return { outcome: 'act', straddles: null };
  // Surely past the warning line: say so even when the act line is still open.
  if (low >= limits.warnLoss) return { outcome: 'warn', straddles: high >= limits.actLoss ? limits.actLoss : null };
  if (high >= limits.warnLoss) return { outcome: 'cannotTell', straddles: limits.warnLoss };
  if (high < 0 && -loss >= BASELINE_GAIN_QUESTION.value) return { outcome: 'more', straddles: null };
  return { outcome: 'fine', straddles: null };
};

/**
 * Compares a test with the machine's own baseline: share lost = 1 - now/baseline, guarded by the uncertainty of both;
 * an instrument common to both cancels its systematic part. Actual volume flow is compared, since a fan moves a
 * constant volume. More than the baseline is not a pass: a torn or missing filter also flows well. Source: GUM 5.2.2
 * and G.4; guarded acceptance JCGM 106; thresholds are Moorwind defaults, inclusive. Valid: tests of one place and
 * method; throws RangeError otherwise. Under three repeats on a side: no verdict.
 */
export const judgeAgainstBaseline = (input: {
  readonly now: ReducedTest;
  readonly baseline: ReducedTest | null;
  readonly thresholds: LossThresholds;
}): BaselineVerdict => {
  const { now, baseline, thresholds } = input;
  if (!now.usable) return { outcome: 'notUsable' };
  if (!baseline || !(baseline.repeats.mean > 0)) return { outcome: 'noBaseline' };
  if (baseline.place !== now.place || baseline.method !== now.method)
    throw new RangeError('baseline of another place or method');
  const q = now.repeats;
  const b = baseline.repeats;
  const lossFraction = 1 - q.mean / b.mean;
  if (now.biased || baseline.biased) return { outcome: 'biased', lossFraction };
  const [first, second] = [sideOf(q), sideOf(b)];
  if (!first || !second) {
    return { outcome: 'tooFew', lossFraction, repeats: Math.min(q.n, b.n), needed: VERDICT_REPEATS.value };
  }
  const { uncertainty, degreesOfFreedom } = combineSides({
    first,
    second,
    sensitivities: { first: -1 / b.mean, second: q.mean / b.mean ** 2 },
    same: commonOf(now, baseline),
  });
  const expanded = uncertainty * studentFactor({ confidence: CONFIDENCE.value, degreesOfFreedom });
  return { ...decide(lossFraction, expanded, thresholds), lossFraction, expanded, warnsAt: thresholds.warnLoss };
};
