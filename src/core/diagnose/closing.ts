import type { Proposal } from './next-test';
import { type Losses, lossOfLeaving, lossOfRemedy, riskOf, useOf } from './loss';
import type { Case, FaultProbability, Posterior } from './posterior';
import { VAIN_REPAIRS } from './in-vain';
import type { Operation } from './operation';
import type { Repair } from './repair';

/** The obstacle between a case and its closing. */
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
      /** Chance that it puts something right: of all the causes it cures together. */
      readonly use: number;
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
  /** Repairs in a row that changed nothing. */
  readonly inVain: number;
}

/** Sure enough that nothing is asked first, where being wrong would cost little. Moorwind defaults. */
const SURE = 0.93;
const LITTLE_MINUTES = 3;
/**
 * A repair with a smaller chance of being useful is not proposed as a test; once all measures are back it needs a
 * larger chance.
 */
const LEAST_USE = 0.2;
const LEAST_USE_WHEN_BACK = 0.35;
/** More tests than this on one case: hand it on. */
const MOST_TESTS = 22;
/** With more doubt than this, minutes, a case is tested on; with no test left it is closed only with a follow-up. A Moorwind default. */
export const MOST_DOUBT_MINUTES = 10;
/** After repairs in vain only a repair with this chance is proposed. A Moorwind default. */
const SEEN = 0.95;
/** A test must be expected to tell at least this much. */
const LEAST_BITS = 0.02;

interface Candidate {
  /** The likeliest of the causes it cures. */
  readonly fault: FaultProbability;
  readonly repair: Repair;
  /** Chance that it is of use. */
  readonly use: number;
  /** Expected price beyond the needed one, minutes. */
  readonly risk: number;
  /** Price of a useless repair, minutes. */
  readonly needless: number;
  /** Expected loss of leaving the stage, less that of this remedy. */
  readonly gain: number;
}

/**
 * Remedies with a smaller expected loss than leaving the stage: every cause a repair cures counts for it. While the
 * complaint is felt, the one with the most chance per needless cost goes first: cheap before dear. Source: Heckerman,
 * Breese and Rommelse, Decision-Theoretic Troubleshooting (1995), from memory.
 */
const candidatesOf = ({ posterior, losses, c, back }: ClosingInput): readonly Candidate[] => {
  const byCause = c.causes.map((x) => posterior.faults.find((f) => f.kind === x.kind && f.position === x.position));
  const chance = (f: number) => byCause[f]?.probability ?? 0;
  return losses.stages
    .flatMap((stage): readonly Candidate[] => {
      const leaving = lossOfLeaving(stage, chance, losses);
      return stage.remedies.flatMap((remedy): readonly Candidate[] => {
        const use = useOf(remedy, chance);
        const [fault] = [...remedy.cures.keys()]
          .flatMap((f) => byCause[f] ?? [])
          .sort((a, b) => b.probability - a.probability);
        const risk = riskOf(remedy, chance);
        const gain = leaving - lossOfRemedy(stage, remedy, { chance, losses });
        return fault && use >= (back ? LEAST_USE_WHEN_BACK : LEAST_USE) && gain > 0
          ? [{ fault, repair: remedy.repair, use, risk, needless: remedy.needless, gain }]
          : [];
      });
    })
    .sort(back ? (a, b) => b.gain - a.gain : (a, b) => b.use / b.needless - a.use / a.needless);
};

/** Tests that look at the very thing a repair would put right. Source: common practice, no published source. */
const looksAt = ({ kind, position }: Repair, op: Operation): boolean => {
  switch (kind) {
    case 'newPart':
    case 'reseat':
      return 'position' in op && op.position === position && op.kind !== 'takeOut' && op.kind !== 'swap';
    case 'clear':
    case 'newHose':
      return op.kind === 'lookHose' || (position === 0 && op.kind === 'lookNozzle');
    case 'newSeal':
      return op.kind === 'smoke' || op.kind === 'settings';
    case 'serviceFan':
      return op.kind === 'settings' || op.kind === 'voltage' || op.kind === 'supply' || op.kind === 'listen';
    case 'settings':
    case 'brush':
      return op.kind === 'settings';
    case 'supply':
      return op.kind === 'voltage' || op.kind === 'supply';
    case 'indicator':
      return op.kind === 'disc' || op.kind === 'lamp';
  }
};

/** Sure enough of a repair that it is not looked at first; and how cheap one must be not to be looked at anyway. */
const NOT_LOOKED_AT = 0.97;

/**
 * The look that comes before a repair: into the compartment before a filter is condemned, at the settings before a fan.
 * null where all is looked at that would tell, or the repair is all but sure. Source: common practice, no published source.
 */
const lookBefore = ({ repair, use, risk }: Candidate, telling: readonly Proposal[]): Proposal | null =>
  use >= NOT_LOOKED_AT && risk <= LITTLE_MINUTES ? null : (telling.find((p) => looksAt(repair, p.operation)) ?? null);

/**
 * Expected loss of leaving everything unrepaired, in minutes. Source: expected loss (Raiffa and Schlaifer). Valid:
 * probabilities of 0 to 1.
 */
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
 * questions: once the flow is back, what is silent keeps its doubt. A case with much doubt is tested on
 * while a test is left that tells something. After two repairs in vain no third one is proposed that is not all but certain. Source: expected loss against price (decision rule;
 * Raiffa and Schlaifer, Applied Statistical Decision Theory); the prices are Moorwind defaults.
 */
export const adviceOf = (input: ClosingInput): Advice => {
  const { c, posterior, losses, ranked, back, tests, inVain } = input;
  const doubtMinutes = doubtOf(c, posterior, losses);
  const candidates = candidatesOf(input).filter((x) => inVain < VAIN_REPAIRS || x.use >= SEEN);
  const telling = ranked.filter((p) => p.bits > LEAST_BITS);
  const sure = candidates.filter((x) => x.use >= SURE && x.risk <= LITTLE_MINUTES);
  const lookAt = (x: Candidate) => (tests < MOST_TESTS ? lookBefore(x, telling) : null);
  // A sure and cheap repair goes first, before any other finding.
  const ready = sure.find((x) => lookAt(x) === null);
  const doing = ({ fault, repair, use }: Candidate) => ({ kind: 'repair', fault, repair, use, doubtMinutes }) as const;
  if (ready) return doing(ready);
  const [candidate] = candidates;
  const repair = candidate ? doing(candidate) : null;
  const paying = telling.filter((p) => p.saves > p.minutes);
  // While it is felt, the quickest way to know; once it is back, what saves most.
  const best = back
    ? [...paying].sort((a, b) => b.saves - b.minutes - (a.saves - a.minutes))[0]
    : (paying[0] ?? (repair ? undefined : telling[0]));
  if (best && tests < MOST_TESTS) return { kind: 'test', proposal: best, doubtMinutes };
  const look = candidate ? lookAt(candidate) : null;
  if (look) return { kind: 'test', proposal: look, doubtMinutes };
  if (repair) return repair;
  const open = back && doubtMinutes > MOST_DOUBT_MINUTES && tests < MOST_TESTS;
  const [settling] = open ? [...telling].sort((a, b) => b.saves - a.saves) : [];
  if (settling) return { kind: 'test', proposal: settling, doubtMinutes };
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
