import { CONFIDENCE } from '../constants/limits';
import { studentFactor } from '../numeric/student';
import { combineSides, sideOf } from './correlated';
import { commonOf, type ReducedTest } from './reduce-test';

export interface ChainLink {
  /** Later less earlier, in the measurand's unit. */
  readonly difference: number;
  readonly relative: number;
  /** Share of the whole way from the first configuration to the last; null when the whole way is within the noise. */
  readonly share: number | null;
  /** Half the 95 % interval of the difference and of the share; null under three readings. */
  readonly expanded: number | null;
  readonly shareExpanded: number | null;
}

const interval = (before: ReducedTest, after: ReducedTest): { expanded: number; factor: number } | null => {
  const [first, second] = [sideOf(before.repeats), sideOf(after.repeats)];
  if (!first || !second) return null;
  const combined = combineSides({
    first,
    second,
    sensitivities: { first: -1, second: 1 },
    same: commonOf(before, after),
  });
  const factor = studentFactor({ confidence: CONFIDENCE.value, degreesOfFreedom: combined.degreesOfFreedom });
  return { expanded: combined.uncertainty * factor, factor };
};

/**
 * A chain of configurations (all in, one out, ... all out): what each step gives, and its share of the whole.
 * Source: Welch per step as in `compareTests`; the share's interval by first-order propagation (GUM 5.1.2), the step
 * and the whole taken as independent, which errs on the wide side.
 * Valid: two or more tests of one measurand, place and method; throws RangeError otherwise.
 */
export const compareChain = (tests: readonly ReducedTest[]): readonly ChainLink[] => {
  const [first] = tests;
  const last = tests.at(-1);
  if (!first || !last || tests.length < 2) throw new RangeError('a chain needs two tests or more');
  if (tests.some((t) => t.place !== first.place || t.method !== first.method))
    throw new RangeError('a chain of different places or methods');
  const whole = last.repeats.mean - first.repeats.mean;
  const wholeInterval = interval(first, last);
  return tests.slice(1).map((after, i) => {
    const before = tests[i] ?? first;
    const difference = after.repeats.mean - before.repeats.mean;
    const own = interval(before, after);
    const real = wholeInterval !== null && Math.abs(whole) > wholeInterval.expanded;
    const share = real ? difference / whole : null;
    const shareExpanded =
      share === null || !own || !wholeInterval
        ? null
        : Math.hypot(own.expanded / whole, (share * wholeInterval.expanded) / whole);
    return {
      difference,
      relative: difference / before.repeats.mean,
      share,
      expanded: own?.expanded ?? null,
      shareExpanded,
    };
  });
};
