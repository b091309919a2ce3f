import type { DustPart } from '../machine/dust-parts';
import type { IntegrityTest } from '../machine/integrity';
import type { CheckKind, OpenedPart, StepKey } from './step';

/** What protects a person. */
export const WORN = ['respirator', 'coverall', 'gloves'] as const;
export type Worn = (typeof WORN)[number];

/** One thing that is wrong, without its place. */
export type Fault =
  /** Dust is open to the room and this protection is not on. */
  | { readonly kind: 'unprotected'; readonly need: Worn }
  | { readonly kind: 'areaOpen' }
  | { readonly kind: 'hazardNotAsked' }
  | { readonly kind: 'notIsolated' }
  | { readonly kind: 'wrongFeed' }
  /** Switched on while it is still cut off from its feed. */
  | { readonly kind: 'noFeed' }
  | { readonly kind: 'runWhileOpen'; readonly opening: OpenedPart }
  | { readonly kind: 'runUnlatched' }
  | { readonly kind: 'runBlind' }
  /** Run with a part out of its seat. */
  | { readonly kind: 'runWithout' }
  | { readonly kind: 'handsInRun' }
  /** A way of running that this kind was not built for, or the stage may not be changed in. */
  | { readonly kind: 'notBuiltForIt' }
  | { readonly kind: 'wrongState' }
  | { readonly kind: 'inletOpen' }
  | { readonly kind: 'hoseOpen' }
  | { readonly kind: 'unplugEarly' }
  | { readonly kind: 'portOpen' }
  | { readonly kind: 'secondLeftOn' }
  | { readonly kind: 'latchOrder' }
  | { readonly kind: 'closedOutOfOrder'; readonly opening: OpenedPart }
  | { readonly kind: 'leftOpen'; readonly opening: OpenedPart }
  | { readonly kind: 'notLatched' }
  | { readonly kind: 'oldNotClosed' }
  | { readonly kind: 'fixingTight' }
  | { readonly kind: 'fixingLoose' }
  | { readonly kind: 'stackAbove' }
  | { readonly kind: 'stackOpen' }
  | { readonly kind: 'seatTaken' }
  | { readonly kind: 'notInHand' }
  | { readonly kind: 'partWithoutFate'; readonly part: 'new' | 'old' }
  | { readonly kind: 'notWiped' }
  | { readonly kind: 'wrapFirst' }
  | { readonly kind: 'checkMissing'; readonly check: CheckKind }
  | { readonly kind: 'tightenedUnseen' }
  | { readonly kind: 'wasteOpen' }
  | { readonly kind: 'wasteReopened' }
  | { readonly kind: 'wasteUnlabelled' }
  | { readonly kind: 'wipesLoose' }
  | { readonly kind: 'goneUnproven' }
  | { readonly kind: 'embers' }
  | { readonly kind: 'notSettled' }
  | { readonly kind: 'dressOrder' }
  | { readonly kind: 'undressOrder' }
  | { readonly kind: 'dustAfterUndressing' }
  | { readonly kind: 'notUndressed' }
  | { readonly kind: 'areaLeftClosed' }
  | { readonly kind: 'suitWithoutBag' }
  | { readonly kind: 'notRun' }
  | { readonly kind: 'notMeasured' }
  | { readonly kind: 'notScreened'; readonly test: IntegrityTest }
  | { readonly kind: 'openedAfterProof' }
  | { readonly kind: 'leftRunning' }
  | { readonly kind: 'dustLeft'; readonly part: DustPart }
  /** Asked or done for something this machine does not have. */
  | { readonly kind: 'notThere' }
  | { readonly kind: 'missing'; readonly step: StepKey };

/** One thing that is wrong with a procedure, with the number of the step from 0; null for its end. A procedure with a violation must not be walked. */
export type Violation = Fault & { readonly at: number | null };
