import { type FaultProbability, type Posterior } from './posterior';
import { SILENT } from './fault';
import type { Proposal } from './next-test';

/** What stands between a case and its closing. */
export type Advice =
  /** Nothing left that a test would settle for less than its doubt costs. */
  | { readonly kind: 'close'; readonly doubtMinutes: number }
  | { readonly kind: 'test'; readonly proposal: Proposal; readonly doubtMinutes: number }
  /** Likely enough to repair now: then measure again at the complaint's own place. */
  | { readonly kind: 'repair'; readonly fault: FaultProbability; readonly doubtMinutes: number };

/** Price of closing on the wrong cause: the machine comes back, and dust may have gone past. Moorwind defaults. */
const WRONG_MINUTES = 60;
const SILENT_MINUTES = 60;
/** A cause this likely is repaired before anything else is asked. */
const REPAIR_AT = 0.9;

interface ClosingInput {
  readonly posterior: Posterior;
  /** Faults repaired in this case: cured, they no longer speak. */
  readonly cured: readonly Pick<FaultProbability, 'kind' | 'position'>[];
  readonly best: Proposal | null;
}

const curedNow = (f: FaultProbability, cured: ClosingInput['cured']): boolean => cured.some((c) => c.kind === f.kind && c.position === f.position);

/** Minutes that closing now would cost on average: every fault not cured, by what leaving it costs. */
export const doubtOf = ({ posterior, cured }: Pick<ClosingInput, 'posterior' | 'cured'>): number =>
  posterior.faults.filter((f) => !curedNow(f, cured)).reduce((sum, f) => sum + f.probability * (SILENT.has(f.kind) ? SILENT_MINUTES : WRONG_MINUTES), 0);

/**
 * What to do next: repair what is all but sure, else test while a test costs less than the doubt it could take away,
 * else close. Loading and integrity are separate questions: a silent fault keeps its doubt after the flow is back.
 * Source: expected loss against price (decision rule, Moorwind defaults for the prices).
 */
export const adviceOf = ({ posterior, cured, best }: ClosingInput): Advice => {
  const doubtMinutes = doubtOf({ posterior, cured });
  const sure = posterior.faults.find((f) => !curedNow(f, cured) && f.probability >= REPAIR_AT);
  if (sure) return { kind: 'repair', fault: sure, doubtMinutes };
  return best && best.bits > 0.01 && doubtMinutes * Math.min(1, best.bits) > best.minutes ? { kind: 'test', proposal: best, doubtMinutes } : { kind: 'close', doubtMinutes };
};

/** What still keeps a case open; empty when it may close. */
export type OpenReason = 'complaintNotBack' | 'noRootCause' | 'missingUnrecorded';

/**
 * A case closes only when the complaint's own measure, at the complaint's own place, is back in its band, a root cause
 * apart from the replaced part is answered (or "not found"), and nothing is left missing without being recorded.
 * Source: common practice, no published source.
 */
export const openReasons = (c: { readonly complaintBack: boolean; readonly rootCause: string | null; readonly leftOut: number; readonly recordedMissing: number }): readonly OpenReason[] => [
  ...(c.complaintBack ? [] : (['complaintNotBack'] as const)),
  ...(c.rootCause === null || c.rootCause.trim() === '' ? (['noRootCause'] as const) : []),
  ...(c.leftOut > c.recordedMissing ? (['missingUnrecorded'] as const) : []),
];
