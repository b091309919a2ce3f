import type { Comparison } from '../measure/compare-tests';
import type { ReducedTest } from '../measure/reduce-test';
import { repeatsFor } from './power';
import type { Between } from './gain';

/** A difference between two tests that the upgrade did not make, and the share of the flow it can explain. */
export interface Unlike {
  readonly what: 'voltage' | 'stageChanged' | 'otherMeter' | 'otherRig' | 'otherHose' | 'maxHold' | 'edited' | 'older';
  /** A stage by name, where it is one. */
  readonly name: string;
  /** Signed share of the before flow by the model; null where the model cannot say. */
  readonly explains: number | null;
}

export const PROOF_OUTCOMES = [
  'asPredicted',
  'more',
  'less',
  'worse',
  'cannotTell',
  'unlike',
  'notComparable',
] as const;

export interface Proof {
  readonly outcome: (typeof PROOF_OUTCOMES)[number];
  /** After over before, as measured; null where the two cannot be compared. */
  readonly measured: Between | null;
  readonly predicted: Between;
  readonly unlike: readonly Unlike[];
  /** Repeats per side that would show the predicted gain; null where none would. */
  readonly repeats: number | null;
}

const spreadOf = (test: ReducedTest): number => (test.repeats.deviation ?? 0) / test.repeats.mean;

/** Spread of one reading as a share of the mean, of both tests together; 0 where neither has one. Source: root mean square. Valid: means above 0. */
export const spreadOfBoth = (before: ReducedTest, after: ReducedTest): number =>
  Math.sqrt((spreadOf(before) ** 2 + spreadOf(after) ** 2) / 2);

/** The total effect of the differences: null where one of them cannot be computed. */
const explainedBy = (unlike: readonly Unlike[]): number | null =>
  unlike.reduce<number | null>((sum, u) => (sum === null || u.explains === null ? null : sum + u.explains), 0);

/**
 * Whether something else than what is compared could account for a measured ratio: what it explains reaches to the near
 * end of the interval, or cannot be reckoned. Source: the air-path model for each difference. Valid: after over before.
 */
export const couldExplain = (unlike: readonly Unlike[], { low, high }: Pick<Between, 'low' | 'high'>): boolean => {
  const explained = explainedBy(unlike);
  if (explained === null) return true;
  if (low > 1) return explained > 0 && low - 1 <= explained;
  return high < 1 && explained < 0 && high - 1 >= explained;
};

/**
 * What two tests say of a predicted gain. `unlike` withholds every claim where something else than the upgrade could
 * account for what was measured. Source: Welch's interval of the difference (`compareTests`) against the interval of the
 * model. Valid: tests of one machine, method and place, before and after.
 */
export const judgeProof = ({
  comparison,
  before,
  after,
  predicted,
  unlike,
}: {
  readonly comparison: Comparison;
  readonly before: ReducedTest;
  readonly after: ReducedTest;
  readonly predicted: Between;
  readonly unlike: readonly Unlike[];
}): Proof => {
  const spread = spreadOfBoth(before, after);
  const gain = Math.abs(predicted.value - 1);
  const repeats = spread > 0 ? repeatsFor(gain / spread) : null;
  const base = { predicted, unlike, repeats };
  const { relative, expanded } = comparison;
  const usable = comparison.outcome !== 'notComparable' && comparison.outcome !== 'notUsable';
  if (!usable || relative === null) return { ...base, outcome: 'notComparable', measured: null };
  if (expanded === null) return { ...base, outcome: 'cannotTell', measured: null };
  const half = expanded / before.repeats.mean;
  const measured = { value: 1 + relative, low: 1 + relative - half, high: 1 + relative + half };
  const said = (outcome: Proof['outcome']): Proof => ({ ...base, outcome, measured });
  if (couldExplain(unlike, measured)) return said('unlike');
  if (measured.high < 1) return said(predicted.high < 1 && measured.high >= predicted.low ? 'asPredicted' : 'worse');
  if (measured.high < predicted.low) return said('less');
  if (measured.low <= 1) return said('cannotTell');
  return said(measured.low > predicted.high ? 'more' : 'asPredicted');
};
