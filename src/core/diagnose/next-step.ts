import { backSinceTrial, type CaseState } from './case-log';
import type { Advice } from './closing';
import { measuresNow } from './evaluate-case';
import type { CaseSubject } from './expected';
import { type Operation, sameOperation } from './operation';
import { type SwapStep, swapStep } from './swap-steps';

interface Tested {
  readonly operation: Operation;
}

/** Why this test is the one that is shown. */
export type WhyThisTest = 'picked' | 'correction' | 'asFound' | 'again' | 'school' | 'best';

/** The next step of a case, one at a time; the screen draws it and decides nothing. */
export type NextStep<T extends Tested, A extends { readonly kind: string }> =
  /** Its essential filter is not in: nothing runs before it is. */
  | { readonly kind: 'fitFirst'; readonly position: number }
  /** `isPending`: it is the complaint's own measure that is waited for. */
  | { readonly kind: 'test'; readonly test: T; readonly why: WhyThisTest; readonly isPending: boolean }
  /** A new part goes in, stays, or comes out again. */
  | { readonly kind: 'trial'; readonly step: Exclude<SwapStep, { kind: 'watch' | 'none' }> }
  /** The technician wants to test although nothing is proposed: a test is chosen by hand. */
  | { readonly kind: 'choose' }
  | Extract<A, { kind: 'repair' | 'close' | 'escalate' }>;

interface TestAdvice<T extends Tested> {
  readonly kind: 'test';
  readonly test: T;
}

interface NextStepInput<T extends Tested, A> {
  readonly subject: CaseSubject;
  readonly state: CaseState;
  readonly findings: { readonly advice: A; readonly schoolTest: T | null; readonly back: boolean };
  /** Stages a new part can be swapped into, coarse to fine, by position. */
  readonly swappable: readonly number[];
  /** The technician's own choice; null without one. */
  readonly picked: T | null;
  readonly correcting: boolean;
  /** The technician declined the proposed repair or closing and wants more tests. */
  readonly askOn: boolean;
}

/** The step of the swap school that is due; null where it has none, or the complaint was never measured as found. */
const trialStep = <T extends Tested, A>(
  { state, subject, findings, swappable, askOn }: NextStepInput<T, A>,
  asFoundDue: boolean,
): Exclude<SwapStep, { kind: 'watch' | 'none' }> | null => {
  const swapping = state.school === 'swap' || state.trials.length > 0;
  if (!swapping || askOn || asFoundDue) return null;
  const none = state.trials.length === 0;
  const step = swapStep({
    order: swappable,
    trials: state.trials,
    failed: state.failedTrials,
    back: none ? null : backSinceTrial(state, subject),
  });
  return step.kind === 'watch' || step.kind === 'none' || (findings.back && none) ? null : step;
};

/**
 * The one next step of a case, in this order: an essential filter, the technician's own choice, the open trial, the
 * complaint's own measure, the chosen school, the smallest loss. A new part on trial takes stock in every case. Source:
 * common practice, no published source, for the order; `adviceOf` for the advice.
 */
export const nextStep = <
  T extends Tested,
  A extends TestAdvice<T> | Extract<Advice, { kind: 'fitFirst' }> | { readonly kind: 'repair' | 'close' | 'escalate' },
>(
  input: NextStepInput<T, A>,
): NextStep<T, A> => {
  const { state, subject, findings, picked, correcting, askOn } = input;
  const advice: A = findings.advice;
  if (advice.kind === 'fitFirst') return { kind: 'fitFirst', position: advice.position };
  const { pending } = measuresNow(subject, state.progress);
  const untouched = state.progress.evidence.length === 0;
  const test = (t: T, why: WhyThisTest): NextStep<T, A> =>
    t.operation.kind === 'swap'
      ? { kind: 'trial', step: { kind: 'fit', position: t.operation.position } }
      : { kind: 'test', test: t, why, isPending: pending !== null && sameOperation(pending, t.operation) };
  if (picked) return test(picked, correcting ? 'correction' : 'picked');
  const trial = trialStep(input, pending !== null && untouched);
  if (trial) return { kind: 'trial', step: trial };
  if (advice.kind !== 'test')
    return askOn ? { kind: 'choose' } : (advice as Extract<A, { kind: 'repair' | 'close' | 'escalate' }>);
  if (pending !== null && sameOperation(pending, advice.test.operation))
    return test(advice.test, untouched ? 'asFound' : 'again');
  if (findings.schoolTest && state.school !== 'swap' && !findings.back) return test(findings.schoolTest, 'school');
  return test(advice.test, 'best');
};
