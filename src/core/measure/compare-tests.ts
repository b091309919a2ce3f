import { CONFIDENCE } from '../constants/limits';
import { studentFactor, studentTwoSidedP } from '../numeric/student';
import { combineSides, sideOf } from './correlated';
import { VOLTAGE_SHARE } from './needs-of-use';
import { commonOf, type ReducedTest } from './reduce-test';

export type Differs = 'place' | 'method' | 'stage' | 'instrument' | 'rig' | 'hose' | 'voltage' | 'bagState' | 'maxHold';

export interface Comparison {
  readonly outcome: 'more' | 'less' | 'noRealDifference' | 'tooFew' | 'notComparable' | 'notUsable';
  /** After less before, m3/s or Pa; null when the two cannot be subtracted. */
  readonly difference: number | null;
  /** Share of the before value. */
  readonly relative: number | null;
  readonly expanded: number | null;
  readonly degreesOfFreedom: number | null;
  readonly p: number | null;
  /** On a side all readings were the same, so that the display's step is the least doubt of it. */
  readonly displayLimited: boolean;
  /** Differences between the two tests' conditions. */
  readonly differs: readonly Differs[];
}

/** Two per cent apart, or known on one side only. */
const voltageDiffers = (a: number | null, b: number | null): boolean =>
  a !== null && b !== null && Math.abs(a / b - 1) > VOLTAGE_SHARE;

const differences = (before: ReducedTest, after: ReducedTest): readonly Differs[] => [
  ...(before.place !== after.place ? (['place'] as const) : []),
  ...(before.method !== after.method ? (['method'] as const) : []),
  ...(before.stageId !== after.stageId ? (['stage'] as const) : []),
  ...(before.instrumentId !== after.instrumentId ? (['instrument'] as const) : []),
  ...(before.method === after.method && before.rigKey !== after.rigKey ? (['rig'] as const) : []),
  ...(before.measurand === 'flow' && before.hoseBoreM !== after.hoseBoreM ? (['hose'] as const) : []),
  ...(voltageDiffers(before.volts, after.volts) ? (['voltage'] as const) : []),
  ...(before.biased || after.biased ? (['maxHold'] as const) : []),
];

/**
 * Compares the repeats of two tests by Welch's t: difference, share, 95 % interval, p. Instruments that differ add
 * their own uncertainty; one instrument cancels but for the part that grows with the difference.
 * Source: Welch 1947, as in the NIST/SEMATECH e-Handbook 1.3.5.3; GUM 5.2.2 for the instrument.
 * Valid: one measurand, place and method; otherwise `notComparable`. Under three repeats a side: `tooFew`, the
 * difference is given, no claim is made.
 */
export const compareTests = ({ before, after }: { before: ReducedTest; after: ReducedTest }): Comparison => {
  const differs = differences(before, after);
  const displayLimited = before.repeats.displayLimited || after.repeats.displayLimited;
  const none = {
    difference: null,
    relative: null,
    expanded: null,
    degreesOfFreedom: null,
    p: null,
    displayLimited,
    differs,
  };
  if (differs.includes('place') || differs.includes('method') || differs.includes('stage'))
    return { outcome: 'notComparable', ...none };
  const difference = after.repeats.mean - before.repeats.mean;
  const from = before.repeats.mean;
  // Nothing has no share.
  const plain = { ...none, difference, relative: from === 0 ? null : difference / from };
  if (!before.usable || !after.usable) return { outcome: 'notUsable', ...plain };
  if (before.biased || after.biased) return { outcome: 'tooFew', ...plain };
  const [first, second] = [sideOf(before.repeats), sideOf(after.repeats)];
  if (!first || !second) return { outcome: 'tooFew', ...plain };
  const { uncertainty, degreesOfFreedom } = combineSides({
    first,
    second,
    sensitivities: { first: -1, second: 1 },
    same: commonOf(before, after),
  });
  const expanded = uncertainty * studentFactor({ confidence: CONFIDENCE.value, degreesOfFreedom });
  const p =
    uncertainty === 0
      ? difference === 0
        ? 1
        : 0
      : studentTwoSidedP({ t: difference / uncertainty, degreesOfFreedom });
  const real = Math.abs(difference) > expanded;
  const outcome = !real ? 'noRealDifference' : difference > 0 ? 'more' : 'less';
  return { outcome, ...plain, expanded, degreesOfFreedom, p };
};
