import { gapOfPlace, type Place } from '../path/air-path';
import { CLEAN, type MachineModel, type PathParameters, type PathState } from '../path/machine-path';
import { type Entry, type Staircase, staircase } from '../path/staircase';
import { withFaults } from './effects';
import type { Fault, FaultKind } from './fault';

/** A machine under suspicion. */
export interface Suspect {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  /** How it stood when last known, or clean. */
  readonly state: PathState;
}

/** What the air-path model says a faulty machine would read. Solved when first asked. */
export interface Signature {
  readonly faults: readonly Fault[];
  /** At the tool as in use, or with the nozzle or hose off. m3/s; 0 where nothing can be solved. */
  readonly flowM3s: (place: Exclude<Place, 'outlet'>) => number;
  readonly sealedPa: (place: Exclude<Place, 'outlet'>) => number;
  /** As in use. null where it cannot be solved. */
  readonly inUse: () => Staircase | null;
  /** Tool flow with some stages out and some as new. */
  readonly flowWith: (change: { readonly out: readonly number[]; readonly fresh: readonly number[] }) => number;
  /** The same machine once new parts stand in these stages: their own faults are cured, all others stay. */
  readonly renewed: (positions: readonly number[]) => Signature;
}

/** Faults that a new, well-seated part takes away. */
const OF_THE_PART: ReadonlySet<FaultKind> = new Set<FaultKind>(['blocked', 'torn', 'misseated', 'missing', 'reversed', 'spentGas']);

const entryAt = (model: MachineModel, place: Exclude<Place, 'outlet'>, sealed: boolean): Entry => {
  const node = gapOfPlace(model.stages.map((s) => s.kind), place);
  if (sealed) return { at: 'node', opening: { node, state: 'drawn', flowM3s: 0 } };
  return place === 'toolEnd' ? { at: 'use' } : { at: 'node', opening: { node, state: 'open' } };
};

const changed = (state: PathState, { out, fresh }: { readonly out: readonly number[]; readonly fresh: readonly number[] }): PathState => {
  const stages = { ...state.stages };
  for (const i of out) stages[i] = { ...(stages[i] ?? CLEAN), removed: true };
  for (const i of fresh) stages[i] = CLEAN;
  return { ...state, stages };
};

/** Makes the signature of a machine with faults. Every figure is solved at most once. */
export const signatureOf = ({ model, parameters, state }: Suspect, faults: readonly Fault[]): Signature => {
  const faulty = withFaults(state, faults, { model, parameters });
  const memo = new Map<string, Staircase | null>();
  const renewals = new Map<string, Signature>();
  const solve = (key: string, entry: Entry, at: PathState): Staircase | null => {
    const held = memo.get(key);
    if (held !== undefined) return held;
    const solved = staircase({ model, parameters, state: at, entry });
    const stairs = solved.ok ? solved.value : null;
    memo.set(key, stairs);
    return stairs;
  };
  return {
    faults,
    inUse: () => solve('use', { at: 'use' }, faulty),
    flowM3s: (place) => solve(place === 'toolEnd' ? 'use' : `open ${place}`, entryAt(model, place, false), faulty)?.flowPerToolM3s ?? 0,
    sealedPa: (place) => {
      const node = gapOfPlace(model.stages.map((s) => s.kind), place);
      return -(solve(`sealed ${place}`, entryAt(model, place, true), faulty)?.nodesPa[node] ?? 0);
    },
    renewed: (positions) => {
      const key = positions.join();
      const held = renewals.get(key);
      if (held) return held;
      const made = signatureOf({ model, parameters, state: changed(state, { out: [], fresh: positions }) }, faults.filter((f) => !(positions.includes(f.position) && OF_THE_PART.has(f.kind))));
      renewals.set(key, made);
      return made;
    },
    flowWith: (change) => solve(`with ${change.out.join()}/${change.fresh.join()}`, { at: 'use' }, changed(faulty, change))?.flowPerToolM3s ?? 0,
  };
};
