import type { Proposal } from './next-test';
import type { Losses } from './loss';
import type { Case, FaultProbability, Posterior } from './posterior';
import { type Repair, repairOf } from './repair';

/** What stands between a case and its closing. */
export type Advice =
  /** Its essential filter is not in: nothing runs before it is. */
  | { readonly kind: 'fitFirst'; readonly position: number; readonly doubtMinutes: number }
  /** Nothing left that a test would settle for less than its doubt costs. */
  | { readonly kind: 'close'; readonly doubtMinutes: number }
  | { readonly kind: 'test'; readonly proposal: Proposal; readonly doubtMinutes: number }
  /** So likely that repairing it costs less than asking on. */
  | {
      readonly kind: 'repair';
      readonly fault: FaultProbability;
      readonly repair: Repair;
      readonly doubtMinutes: number;
    }
  /** The rounds are used up: hand the case on, with the costliest doubt first. */
  | { readonly kind: 'escalate'; readonly fault: FaultProbability | null; readonly doubtMinutes: number };

export interface ClosingInput {
  readonly c: Case;
  readonly posterior: Posterior;
  readonly losses: Losses;
  /** Best first, by information for the price. */
  readonly ranked: readonly Proposal[];
  /** The complaint's own measure has been taken since the last repair, and is in its band. */
  readonly back: boolean;
  /** Tests done so far. */
  readonly tests: number;
}

/** Sure enough to act whatever a test would cost. Moorwind default. */
const SURE = 0.93;
/** Below this a cause is asked about, not repaired. */
const LIKELY = 0.45;
/** Once the flow is back, what is cheap to put right and dear to leave is put right at smaller odds. */
const LIKELY_WHEN_BACK = 0.25;
/** More tests than this on one case: hand it on. */
const MOST_TESTS = 22;
/** A test must be expected to tell at least this much. */
const LEAST_BITS = 0.02;

interface Candidate {
  readonly fault: FaultProbability;
  readonly repair: Repair;
  /** What doing it for nothing is expected to cost. */
  readonly risk: number;
  /** What leaving it is expected to cost. */
  readonly leaving: number;
}

const candidatesOf = ({ c, posterior, losses, back }: ClosingInput): readonly Candidate[] => {
  const { stages } = c.subject.faultSimulator.suspect.model;
  return posterior.faults
    .flatMap((fault): readonly Candidate[] => {
      const index = c.causes.findIndex((x) => x.kind === fault.kind && x.position === fault.position);
      if ((losses.left[index] ?? 0) === 0 || fault.probability < (back ? LIKELY_WHEN_BACK : LIKELY)) return [];
      const leaving = fault.probability * (losses.left[index] ?? 0);
      return [
        {
          fault,
          repair: repairOf(fault, stages),
          risk: (1 - fault.probability) * (losses.needless[index] ?? 0),
          leaving,
        },
      ];
    })
    .slice(0, 3);
};

/** What leaving everything as it is may cost, in minutes. Source: expected loss (Raiffa and Schlaifer). Valid: probabilities of 0 to 1. */
export const doubtOf = (c: Case, { faults }: Posterior, { left }: Losses): number =>
  faults.reduce(
    (sum, f) =>
      sum + f.probability * (left[c.causes.findIndex((x) => x.kind === f.kind && x.position === f.position)] ?? 0),
    0,
  );

const cured = ({ c, losses }: ClosingInput, f: FaultProbability): boolean =>
  (losses.left[c.causes.findIndex((x) => x.kind === f.kind && x.position === f.position)] ?? 0) === 0;

/**
 * What to do next: repair what is all but sure, or what costs less to repair for nothing than to ask about; else test,
 * while a test costs less than the loss it is expected to take away; else close. Loading and integrity are separate
 * questions: once the flow is back, what is silent keeps its doubt. Source: expected loss against price (decision rule;
 * Raiffa and Schlaifer, Applied Statistical Decision Theory); the prices are Moorwind defaults.
 */
export const adviceOf = (input: ClosingInput): Advice => {
  const { c, posterior, losses, ranked, back, tests } = input;
  const doubtMinutes = doubtOf(c, posterior, losses);
  const [candidate] = candidatesOf(input).filter((x) => x.leaving > x.risk);
  const repair = candidate
    ? ({ kind: 'repair', fault: candidate.fault, repair: candidate.repair, doubtMinutes } as const)
    : null;
  if (repair && repair.fault.probability >= SURE) return repair;
  const telling = ranked.filter((p) => p.bits > LEAST_BITS);
  const paying = telling.filter((p) => p.saves > p.minutes);
  // While it is felt, the quickest way to know; once it is back, what saves most.
  const best = back
    ? [...paying].sort((a, b) => b.saves - b.minutes - (a.saves - a.minutes))[0]
    : (paying[0] ?? (repair ? undefined : telling[0]));
  if (best && tests < MOST_TESTS) return { kind: 'test', proposal: best, doubtMinutes };
  if (repair) return repair;
  return back
    ? { kind: 'close', doubtMinutes }
    : { kind: 'escalate', fault: posterior.faults.find((f) => !cured(input, f)) ?? null, doubtMinutes };
};

/** What still keeps a case open; empty when it may close. */
export type OpenReason = 'complaintNotBack' | 'noRootCause' | 'missingUnrecorded';

/**
 * A case closes only when the complaint's own measure, at the complaint's own place, is back in its band, a root cause
 * apart from the replaced part is answered (or "not found"), and nothing is left missing without being recorded.
 * Source: common practice, no published source.
 */
export const openReasons = (c: {
  readonly complaintBack: boolean;
  readonly rootCause: string | null;
  readonly leftOut: number;
  readonly recordedMissing: number;
}): readonly OpenReason[] => [
  ...(c.complaintBack ? [] : (['complaintNotBack'] as const)),
  ...(c.rootCause === null || c.rootCause.trim() === '' ? (['noRootCause'] as const) : []),
  ...(c.leftOut > c.recordedMissing ? (['missingUnrecorded'] as const) : []),
];
