import type { DustHazard } from '../dust/level';
import type { QuantityKind } from '../units';
import type { Where } from './signature';

/** State a machine is in for a test: off, running, opened. Live parts are never guided. */
export const TEST_STATES = ['off', 'running', 'open'] as const;
export type TestState = (typeof TEST_STATES)[number];

/** Every test of the trade, as something that can be done to this machine. */
export type Operation =
  | { readonly kind: 'flow'; readonly place: Where }
  | { readonly kind: 'hand'; readonly place: Where }
  | { readonly kind: 'sealed'; readonly place: Where }
  | { readonly kind: 'stageDp'; readonly position: number }
  | { readonly kind: 'gauge'; readonly position: number }
  /** The gauge after a pulse purge. */
  | { readonly kind: 'purge'; readonly position: number }
  | { readonly kind: 'listen' }
  | { readonly kind: 'settings' }
  | { readonly kind: 'lookNozzle' }
  | { readonly kind: 'lookHose' }
  | { readonly kind: 'lookBag'; readonly position: number }
  | { readonly kind: 'weigh'; readonly position: number }
  /** Flow at the tool with this stage taken out (and what was taken out before). */
  | { readonly kind: 'takeOut'; readonly position: number }
  /** Flow at the tool with a new part in this stage. */
  | { readonly kind: 'swap'; readonly position: number }
  | { readonly kind: 'lamp' }
  | { readonly kind: 'lampCoverOff' }
  | { readonly kind: 'disc' }
  | { readonly kind: 'cleanSide'; readonly position: number }
  | { readonly kind: 'particles' }
  | { readonly kind: 'smell' }
  | { readonly kind: 'smoke' }
  | { readonly kind: 'voltage' }
  | { readonly kind: 'supply' }
  /** Whether the fault was there to be seen when it was repaired; no test to propose, it comes with the repair. */
  | { readonly kind: 'found'; readonly fault: string; readonly position: number };

export interface OperationFacts {
  readonly minutes: number;
  /** 0 none to 3 high. */
  readonly exposure: number;
  readonly state: TestState;
  /** Minutes' worth of a part that may be spent. */
  readonly partMinutes: number;
}

const fact = (minutes: number, exposure: number, state: TestState): OperationFacts => ({
  minutes,
  exposure,
  state,
  partMinutes: 0,
});

/** Price of a new part in minutes, where it turns out not to be needed. A Moorwind default, a modelling choice. */
const PART_MINUTES = 12;

/** What each test costs. Source: common practice, no published source. */
export const OPERATION_FACTS: Record<Operation['kind'], OperationFacts> = {
  flow: fact(2, 0, 'running'),
  hand: fact(0.3, 0, 'running'),
  sealed: fact(1, 0, 'running'),
  stageDp: fact(2, 0, 'running'),
  gauge: fact(0.3, 0, 'running'),
  purge: fact(1, 1, 'running'),
  listen: fact(1, 0, 'running'),
  settings: fact(0.5, 0, 'running'),
  lookNozzle: fact(0.2, 0, 'off'),
  lookHose: fact(2, 1, 'off'),
  lookBag: fact(1, 2, 'open'),
  weigh: fact(1, 1, 'open'),
  takeOut: fact(5, 3, 'open'),
  swap: { ...fact(3, 2, 'open'), partMinutes: PART_MINUTES },
  lamp: fact(0.3, 0, 'running'),
  lampCoverOff: fact(0.5, 1, 'open'),
  disc: fact(3, 0, 'running'),
  cleanSide: fact(2, 2, 'open'),
  particles: fact(4, 0, 'running'),
  smell: fact(0.5, 0, 'running'),
  smoke: fact(3, 0, 'running'),
  voltage: fact(1, 0, 'running'),
  supply: fact(1, 0, 'running'),
  found: fact(0, 0, 'open'),
};

/** Minutes one unit of exposure is worth by hazard. A Moorwind default, a modelling choice. */
export const EXPOSURE_MINUTES: Record<DustHazard, number> = { plain: 1, controlled: 2, contained: 4 };
export type HazardLevel = DustHazard;

/** Changing the state of the machine costs a little. */
const STATE_MINUTES = 0.3;

/** Price of a test in minutes: its time, its exposure by the hazard, a part perhaps spent, and a change of state. Throws nothing. Choice: Moorwind defaults, modelling choices. Valid: every test, level and state. */
export const priceOf = (
  operation: Operation,
  { hazard, state }: { readonly hazard: HazardLevel; readonly state: TestState },
): number => {
  const facts = OPERATION_FACTS[operation.kind];
  // An open machine is not opened again: a look into it stirs up less dust.
  const exposure = facts.state === 'open' && state === 'open' ? Math.max(0, facts.exposure - 1) : facts.exposure;
  return (
    facts.minutes +
    exposure * EXPOSURE_MINUTES[hazard] +
    facts.partMinutes +
    (facts.state === state ? 0 : STATE_MINUTES)
  );
};

/** The quantity a test reads; missing for tests that give a word. */
export const QUANTITY_OF: Partial<Record<Operation['kind'], QuantityKind>> = {
  flow: 'flow',
  sealed: 'pressure',
  stageDp: 'pressure',
  takeOut: 'flow',
  swap: 'flow',
  voltage: 'voltage',
  supply: 'pressure',
};

/** A name for a test that two like tests share. */
export const operationKey = (op: Operation): string =>
  `${op.kind}${'place' in op ? ` ${op.place}` : ''}${'position' in op ? ` ${op.position}` : ''}${op.kind === 'found' ? ` ${op.fault}` : ''}`;

export const sameOperation = (a: Operation, b: Operation): boolean => operationKey(a) === operationKey(b);
