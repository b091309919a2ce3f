import { type CheckKind, type OpenedPart, type RunState, type StepKey } from './step';

/** What is wrong with a procedure; none may be walked while it has any. */
export type Violation =
  | { readonly kind: 'leftOpen'; readonly opening: OpenedPart }
  | { readonly kind: 'closedOutOfOrder'; readonly opening: OpenedPart; readonly at: number }
  | { readonly kind: 'dustyInWrongState'; readonly run: RunState; readonly at: number }
  | { readonly kind: 'notIsolated'; readonly at: number }
  | { readonly kind: 'runWhileOpen'; readonly at: number }
  | { readonly kind: 'partWithoutFate'; readonly part: 'new' | 'old' }
  | { readonly kind: 'checkMissing'; readonly check: CheckKind }
  | { readonly kind: 'hazardStepMissing'; readonly step: StepKey }
  | { readonly kind: 'tooLate'; readonly step: StepKey }
  | { readonly kind: 'secondLeftOn' }
  | { readonly kind: 'latchOrder' }
  | { readonly kind: 'integrityMissing' }
  | { readonly kind: 'undressOrder' }
  | { readonly kind: 'wrongIsolation' }
  | { readonly kind: 'unplugEarly' }
  | { readonly kind: 'tightenedUnseen' }
  | { readonly kind: 'openedAfterProof' }
  | { readonly kind: 'methodOrder'; readonly what: StepKey | CheckKind };
