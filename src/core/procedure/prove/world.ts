import type { DustHazard } from '../../dust/level';
import { MACHINE_KINDS, type MachineKindFacts, wayOf } from '../../machine/kinds';
import type { Machine, Stage, MachinePlate } from '../../machine/machine';
import type { OpenedPart, Procedure, RunState, Step, StepKey } from '../step';
import type { Fault, Worn } from '../violation';
import { WAYS, type WayFacts } from '../ways';

/** Where the part that was in a stage is. `closed`: still in its seat, its holes shut. */
export type OldPart = 'in' | 'closed' | 'bagged' | 'tied' | 'wiped' | 'away' | 'loose';
/** Where the part that goes into a stage is. */
export type NewPart = 'shelf' | 'hand' | 'in' | 'returned';

/** The state of machine, person and waste while a procedure is walked. Changed step by step. */
export interface World {
  fed: boolean;
  run: RunState;
  open: OpenedPart[];
  /** Containers that were closed and not latched since. */
  unlatched: number;
  inlet: 'free' | 'stopped' | 'bare';
  hoseEnd: 'on' | 'open' | 'capped';
  port: 'shut' | 'connected' | 'open';
  second: boolean;
  readonly old: Map<number, OldPart>;
  readonly held: Set<number>;
  readonly fresh: Map<number, NewPart>;
  /** Parts of the stack that are off, and whether they are in bags. */
  above: 'in' | 'open' | 'bagged';
  readonly loose: Set<number>;
  readonly seen: Map<number, Set<string>>;
  readonly cleaned: Set<string>;
  /** Dust on touched surfaces since the last wipe. */
  residue: boolean;
  wipes: 'none' | 'loose' | 'tied';
  secondBag: boolean;
  labelled: boolean;
  asked: boolean;
  area: 'open' | 'closed';
  readonly worn: Set<Worn>;
  suitBag: 'none' | 'out' | 'tied';
  suit: 'none' | 'wiped' | 'off';
  washed: boolean;
  undressed: boolean;
  embersSeen: boolean;
  settled: boolean;
  pulsed: boolean;
  ran: boolean;
  measured: boolean;
  screenedClean: boolean;
  screenedRunning: boolean;
  readonly done: Set<StepKey>;
  /** Checks answered, at any stage. */
  readonly checks: Set<string>;
}

/** Everything that judges a step. */
export interface Walk {
  readonly machine: Machine;
  readonly facts: MachineKindFacts;
  readonly level: DustHazard;
  readonly procedure: Pick<Procedure, 'id' | 'school' | 'integrity' | 'goesWith' | 'stage'>;
  readonly world: World;
  readonly blame: (fault: Fault) => void;
}

export const newWorld = (): World => ({
  fed: true,
  run: 'off',
  open: [],
  unlatched: 0,
  inlet: 'free',
  hoseEnd: 'on',
  port: 'shut',
  second: false,
  old: new Map(),
  held: new Set(),
  fresh: new Map(),
  above: 'in',
  loose: new Set(),
  seen: new Map(),
  cleaned: new Set(),
  residue: false,
  wipes: 'none',
  secondBag: false,
  labelled: false,
  asked: false,
  area: 'open',
  worn: new Set(),
  suitBag: 'none',
  suit: 'none',
  washed: false,
  undressed: false,
  embersSeen: false,
  settled: false,
  pulsed: false,
  ran: false,
  measured: false,
  screenedClean: false,
  screenedRunning: false,
  done: new Set(),
  checks: new Set(),
});

export const factsOf = (machine: MachinePlate): MachineKindFacts => MACHINE_KINDS[machine.kind];
export const stageAt = ({ machine }: Walk, { stage }: Step): Stage | null =>
  stage === null ? null : (machine.stages[stage] ?? null);
/** How the part of a step's stage sits; null where it holds none. */
export const wayAt = (walk: Walk, step: Step): WayFacts | null => {
  const stage = stageAt(walk, step);
  const way = stage && wayOf(walk.machine, stage);
  return way ? WAYS[way] : null;
};

/** Containers and fixings; an inlet is only a way in. */
export const containersOpen = ({ open }: World): readonly OpenedPart[] => open.filter((o) => o !== 'inlet');
export const guarded = ({ level }: Walk): boolean => level !== 'plain';
export const contained = ({ level }: Walk): boolean => level === 'contained';
