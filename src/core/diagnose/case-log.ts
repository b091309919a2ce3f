import type { Complaint } from './complaint';
import { measuresNow, type Progress } from './evaluate-case';
import type { CaseSubject } from './expected';
import type { FaultKind } from './fault';
import type { School } from './next-test';
import { type HazardLevel, type Operation, OPERATION_FACTS, type TestState } from './operation';
import type { Outcome } from './outcome';
import type { Evidence } from './posterior';
import { leavesOpen, type Repair } from './repair';
import type { Interventions } from './signature';

/** One thing done in a case. A case is its events; nothing in it is ever overwritten. */
export type CaseEvent =
  | {
      readonly kind: 'saw';
      readonly operation: Operation;
      readonly outcome: Outcome;
      /** As typed, for a reading. */ readonly typed: string;
      readonly note: string;
    }
  /** Removes a piece of evidence from the weighing; a correction strikes the old one and adds a new one. */
  | { readonly kind: 'struck'; readonly eventId: number; readonly because: string }
  | { readonly kind: 'skipped'; readonly operation: Operation }
  | { readonly kind: 'school'; readonly school: School }
  | { readonly kind: 'putBack'; readonly position: number }
  /** A new part from stock is in, the old one is held, bagged and tagged. */
  | { readonly kind: 'trialIn'; readonly position: number }
  /** The original is back, the new part returned to stock. */
  | { readonly kind: 'trialBack'; readonly position: number }
  /** The new part stays; the old one is spent. */
  | { readonly kind: 'trialKept'; readonly position: number; readonly changeId: number | null }
  | {
      readonly kind: 'repaired';
      readonly repair: Repair;
      readonly fault: { readonly kind: FaultKind; readonly position: number };
      readonly found: 'yes' | 'no' | 'unseen';
      readonly changeId: number | null;
    }
  | {
      readonly kind: 'closed';
      readonly rootCause: string;
      readonly root: { readonly kind: FaultKind; readonly position: number } | null;
      readonly followUp: string;
      readonly snapshot: Snapshot;
    }
  /** Given to somebody else, with the reason. */
  | { readonly kind: 'handedOn'; readonly because: string; readonly snapshot: Snapshot };

/** The likeliest causes at the end, with their stated chances. */
export type Snapshot = readonly { readonly kind: FaultKind; readonly position: number; readonly probability: number }[];

export interface LoggedEvent {
  readonly id: number;
  readonly at: string;
  readonly by: string;
  readonly event: CaseEvent;
}

export interface CaseRecord {
  readonly id: number;
  readonly machineId: number;
  readonly openedAt: string;
  readonly by: string;
  readonly complaint: Complaint;
  readonly words: string;
  readonly hazard: HazardLevel;
  readonly lastCollected: string;
  readonly school: School;
  readonly events: readonly LoggedEvent[];
}

export interface CaseState {
  readonly progress: Progress;
  readonly school: School;
  /** Event of each piece of evidence, in the order of `progress.evidence`. */
  readonly evidenceIds: readonly number[];
  readonly trials: readonly number[];
  /** Stages whose new part was on trial and went back to stock. */
  readonly failedTrials: readonly number[];
  readonly ended: LoggedEvent | null;
}

const trialRepair = (position: number): Repair => ({ kind: 'newPart', position });

interface Folding {
  readonly state: CaseState;
  readonly struck: ReadonlySet<number>;
}

const withInterventions = (
  s: CaseState,
  over: Partial<Interventions>,
  state: TestState = s.progress.state,
): CaseState => ({
  ...s,
  progress: { ...s.progress, state, interventions: { ...s.progress.interventions, ...over } },
});

const addEvidence = (s: CaseState, e: Evidence, id: number): CaseState => ({
  ...s,
  evidenceIds: [...s.evidenceIds, id],
  progress: { ...s.progress, evidence: [...s.progress.evidence, e], skipped: s.progress.skipped },
});

const saw = (
  { state, struck }: Folding,
  { id, event }: LoggedEvent & { readonly event: Extract<CaseEvent, { kind: 'saw' }> },
): CaseState => {
  const { operation, outcome } = event;
  const { interventions } = state.progress;
  const seen = addEvidence(state, { operation, outcome, interventions, struck: struck.has(id) }, id);
  const next = withInterventions(seen, {}, OPERATION_FACTS[operation.kind].state);
  // A part that was taken out for a reading stays out until it is recorded as back.
  return operation.kind === 'takeOut' && !interventions.out.includes(operation.position)
    ? withInterventions(next, { out: [...interventions.out, operation.position] })
    : next;
};

const repaired = (
  { state, struck }: Folding,
  { id, event }: LoggedEvent & { readonly event: Extract<CaseEvent, { kind: 'repaired' }> },
): CaseState => {
  const { repair, fault, found } = event;
  const { interventions } = state.progress;
  const operation: Operation = { kind: 'found', fault: fault.kind, position: fault.position };
  const seen =
    found === 'unseen'
      ? state
      : addEvidence(
          state,
          { operation, outcome: { kind: 'word', word: found }, interventions, struck: struck.has(id) },
          id,
        );
  return withInterventions(
    seen,
    { repairs: [...interventions.repairs, repair], out: interventions.out.filter((p) => p !== repair.position) },
    leavesOpen(repair) ? 'open' : 'off',
  );
};

const step = (f: Folding, logged: LoggedEvent): CaseState => {
  const { state } = f;
  const { event } = logged;
  const { interventions } = state.progress;
  switch (event.kind) {
    case 'saw':
      return saw(f, { ...logged, event });
    case 'struck':
      return state;
    case 'skipped':
      return { ...state, progress: { ...state.progress, skipped: [...state.progress.skipped, event.operation] } };
    case 'school':
      return { ...state, school: event.school };
    case 'putBack':
      return withInterventions(state, { out: interventions.out.filter((p) => p !== event.position) }, 'open');
    case 'trialIn':
      return {
        ...withInterventions(
          state,
          {
            repairs: [...interventions.repairs, trialRepair(event.position)],
            out: interventions.out.filter((p) => p !== event.position),
          },
          'open',
        ),
        trials: [...state.trials, event.position],
      };
    case 'trialBack': {
      const back = withInterventions(
        state,
        { repairs: interventions.repairs.filter((r) => !(r.kind === 'newPart' && r.position === event.position)) },
        'open',
      );
      return {
        ...back,
        trials: state.trials.filter((p) => p !== event.position),
        failedTrials: [...state.failedTrials, event.position],
      };
    }
    case 'trialKept':
      return { ...state, trials: state.trials.filter((p) => p !== event.position) };
    case 'repaired':
      return repaired(f, { ...logged, event });
    case 'closed':
    case 'handedOn':
      return { ...state, ended: logged };
  }
};

/** The state of a case, folded from its events. Definition: the log itself. */
export const caseState = (record: CaseRecord): CaseState => {
  const struck = new Set(record.events.flatMap(({ event }) => (event.kind === 'struck' ? [event.eventId] : [])));
  const start: CaseState = {
    progress: {
      complaint: record.complaint,
      hazard: record.hazard,
      state: 'off',
      interventions: { out: [], repairs: [] },
      evidence: [],
      skipped: [],
    },
    school: record.school,
    evidenceIds: [],
    trials: [],
    failedTrials: [],
    ended: null,
  };
  const state = record.events.reduce((held, logged) => step({ state: held, struck }, logged), start);
  return { ...state, progress: { ...state.progress, trialOn: state.trials.length > 0 } };
};

/**
 * Whether the complaint's measure is back since the newest trial part went in; null while it was not measured, or where
 * a measurement was skipped: a missing reading sends no part back.
 */
export const backSinceTrial = (state: CaseState, subject: CaseSubject): boolean | null => {
  const { unanswered, back } = measuresNow(subject, state.progress);
  return unanswered ? null : back;
};
