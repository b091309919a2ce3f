import type { CaseEvent } from '../diagnose/case-log';
import type { Operation } from '../diagnose/operation';
import type { RepairKind } from '../diagnose/repair';
import { integrityTestsOf } from '../machine/integrity';
import type { Machine, MachineAirPath } from '../machine/machine';
import type { PathSnapshot } from '../machine/path-edit';
import type { JobState } from '../procedure/job-log';
import type { PartMove, Procedure, Step } from '../procedure/step';

/** One thing done to a machine. */
export type Deed =
  /** A step of a walked job, or of its short sheet. */
  | { readonly kind: 'step'; readonly step: Step }
  | { readonly kind: 'givenUp'; readonly state: Pick<JobState, 'moves'> }
  | { readonly kind: 'finished'; readonly procedure: Procedure; readonly state: Pick<JobState, 'leftOut'> }
  /** A change written down without the guide; a correction writes another. */
  | { readonly kind: 'changed'; readonly stage: number; readonly quantity: number }
  | { readonly kind: 'found'; readonly event: CaseEvent }
  /** The path before and after an upgrade or its undoing. */
  | { readonly kind: 'rebuilt'; readonly from: PathSnapshot; readonly to: PathSnapshot };

/** A movement of the part that belongs to a stage: below 0 it leaves the shelf. */
export interface StageStock {
  readonly stage: number;
  readonly quantity: number;
}

/** The consequences of a deed. Positions are those of the machine before it. */
export interface Entailed {
  /** Stages whose part comes out. */
  readonly out: readonly number[];
  /** Stages a part goes into. */
  readonly in: readonly number[];
  /** Stages whose seat was touched. */
  readonly seats: readonly number[];
  /** Those of `seats` that must be screened again; the class is suspended until then. */
  readonly suspends: readonly number[];
  readonly stock: readonly StageStock[];
  /** Stages whose old part leaves as waste. */
  readonly waste: readonly number[];
  /** The machine counts as decontaminated. */
  readonly clears: boolean;
}

type Effect = Omit<Entailed, 'suspends'>;
const NOTHING: Effect = { out: [], in: [], seats: [], stock: [], waste: [], clears: false };

/** What each move of a part does at its stage. */
const MOVES: Record<PartMove, (stage: number) => Partial<Effect>> = {
  takeNew: (stage) => ({ stock: [{ stage, quantity: -1 }] }),
  fitNew: (stage) => ({ in: [stage], seats: [stage] }),
  bagOld: (stage) => ({ out: [stage], seats: [stage] }),
  holdOld: (stage) => ({ out: [stage], seats: [stage] }),
  disposeOld: (stage) => ({ waste: [stage] }),
  putOldBack: (stage) => ({ in: [stage], seats: [stage] }),
  returnNew: (stage) => ({ stock: [{ stage, quantity: 1 }] }),
};

/** Tests that open the seat of their stage. */
const OPENS_SEAT: Record<Operation['kind'], boolean> = {
  flow: false,
  hand: false,
  sealed: false,
  stageDp: false,
  gauge: false,
  purge: false,
  listen: false,
  settings: false,
  lookNozzle: false,
  lookHose: false,
  lookBag: false,
  weigh: true,
  takeOut: true,
  swap: true,
  lamp: false,
  lampCoverOff: false,
  disc: false,
  cleanSide: true,
  particles: false,
  smell: false,
  smoke: false,
  voltage: false,
  supply: false,
  found: false,
};

/** Repairs that open the seat of their stage. */
const REPAIR_OPENS: Record<RepairKind, boolean> = {
  newPart: true,
  reseat: true,
  newSeal: true,
  clear: false,
  newHose: false,
  serviceFan: false,
  supply: false,
  settings: false,
  indicator: false,
  brush: false,
};

const ofCase = (event: CaseEvent): Effect => {
  switch (event.kind) {
    case 'trialIn':
      return {
        ...NOTHING,
        out: [event.position],
        in: [event.position],
        seats: [event.position],
        stock: [{ stage: event.position, quantity: -1 }],
      };
    case 'trialBack':
      return {
        ...NOTHING,
        in: [event.position],
        seats: [event.position],
        stock: [{ stage: event.position, quantity: 1 }],
      };
    case 'putBack':
      return { ...NOTHING, in: [event.position], seats: [event.position] };
    case 'saw':
      return OPENS_SEAT[event.operation.kind] && 'position' in event.operation
        ? { ...NOTHING, seats: [event.operation.position] }
        : NOTHING;
    case 'repaired':
      return REPAIR_OPENS[event.repair.kind] ? { ...NOTHING, seats: [event.repair.position] } : NOTHING;
    case 'trialKept':
      return { ...NOTHING, waste: [event.position] };
    case 'struck':
    case 'skipped':
    case 'school':
    case 'closed':
    case 'handedOn':
      return NOTHING;
  }
};

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Where a filter comes in or goes out, the others are reached past. */
const ofRebuilding = (machine: MachineAirPath, from: PathSnapshot, to: PathSnapshot): Effect => {
  const isFilter = (s: PathSnapshot['stages'][number]): boolean => s.spec.air.form === 'medium';
  const ids = (of: PathSnapshot): readonly (number | null)[] => of.stages.filter(isFilter).map((s) => s.id);
  const reachedIn = !same(ids(from), ids(to));
  const touched = from.stages.filter((s) => {
    const now = to.stages.find((x) => x.id === s.id);
    if (s.id === null || !now) return false;
    return !same([s.spec, s.missing], [now.spec, now.missing]) || (reachedIn && isFilter(s));
  });
  const at = (id: number | null): readonly number[] => {
    const position = machine.stages.findIndex((s) => s.id === id);
    return position < 0 ? [] : [position];
  };
  return { ...NOTHING, seats: touched.flatMap((s) => at(s.id)) };
};

const GONE_BACK: ReadonlySet<PartMove> = new Set<PartMove>(['fitNew', 'returnNew']);

const effectOf = (machine: MachineAirPath, deed: Deed): Effect => {
  switch (deed.kind) {
    case 'step': {
      const { moves, stage } = deed.step;
      return moves === undefined || stage === null ? NOTHING : { ...NOTHING, ...MOVES[moves](stage) };
    }
    case 'givenUp': {
      const { moves } = deed.state;
      const taken = moves.flatMap((m) => (m.move === 'takeNew' && m.stage !== null ? [m.stage] : []));
      const kept = taken.filter((stage) => !moves.some((m) => m.stage === stage && GONE_BACK.has(m.move)));
      return { ...NOTHING, stock: kept.map((stage) => ({ stage, quantity: 1 })) };
    }
    case 'finished':
      return { ...NOTHING, clears: deed.procedure.id === 'decontamination' && deed.state.leftOut.size === 0 };
    case 'changed':
      return {
        ...NOTHING,
        out: [deed.stage],
        in: [deed.stage],
        seats: [deed.stage],
        stock: deed.quantity === 0 ? [] : [{ stage: deed.stage, quantity: -deed.quantity }],
      };
    case 'found':
      return ofCase(deed.event);
    case 'rebuilt':
      return ofRebuilding(machine, deed.from, deed.to);
  }
};

/**
 * Returns the consequences of a deed: parts out and in, seats opened, screening that is due, stock, waste, and whether
 * the machine counts as decontaminated. A job with anything left out never clears. Services write what this returns.
 * Source: EN 60335-2-69 (the appliance is tested together with its filter); handbook of the trade, sections 9 to 11;
 * common practice, no published source. Valid: a deed of this machine.
 */
export const entails = (machine: Machine, deed: Deed): Entailed => {
  const effect = effectOf(machine, deed);
  return {
    ...effect,
    suspends: effect.seats.filter((i) => {
      const stage = machine.stages[i];
      return stage !== undefined && integrityTestsOf(machine, stage).length > 0;
    }),
  };
};
