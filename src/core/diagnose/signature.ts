import type { Result } from '../failure/failure';
import { type Place } from '../measure/place';
import { gapOfPlace } from '../path/path-places';
import { CLEAN, type MachineModel, type PathParameters, type PathState } from '../path/machine-path';
import type { Condition } from '../path/model/path';
import { type OperatingPoint, type ReadyPath, solveReady } from '../path/model/solve';
import { quickMachine, type QuickMachine, quickPath } from '../path/quick-path';
import { conditionOf } from '../path/pressure-profile';
import { sizeFinder, type SizeOf, withFaults } from './effects';
import type { Fault, FaultKind } from './fault';
import { curedBy, type Repair } from './repair';

export type Where = Exclude<Place, 'outlet'>;

/** A machine under suspicion. */
export interface Suspect {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  /** Its last known state, or clean. */
  readonly state: PathState;
}

/** Earlier actions on the machine at the time of a test. */
export interface Interventions {
  /** Stages out of it. */
  readonly out: readonly number[];
  readonly repairs: readonly Repair[];
}

export const UNTOUCHED: Interventions = { out: [], repairs: [] };

/** A machine in one state of its air, solved where and when asked; 0 where nothing can be solved. */
export interface Airs {
  readonly flowM3s: (where: Where) => number;
  readonly sealedPa: (where: Where) => number;
  readonly fanFlowM3s: () => number;
  /** Lost in a stage as in use, Pa. */
  readonly dropPa: (position: number) => number;
}

/** Faults the air does not feel: whole families of explanations share one state of the air. */
const UNFELT: ReadonlySet<FaultKind> = new Set<FaultKind>([
  'reversed',
  'wrongSelector',
  'brushJammed',
  'indicatorOut',
  'spentGas',
]);

const WHERE: Record<Where, number> = { toolEnd: 0, hoseEnd: 1, inlet: 2 };

interface Places {
  readonly node: Record<Where, number>;
  readonly inUse: Condition;
  readonly open: Record<Where, Condition>;
  readonly sealed: Record<Where, Condition>;
}

const placesOf = (model: MachineModel): Places => {
  const kinds = model.stages.map((s) => s.kind);
  const of = <T>(make: (where: Where) => T): Record<Where, T> => ({
    toolEnd: make('toolEnd'),
    hoseEnd: make('hoseEnd'),
    inlet: make('inlet'),
  });
  return {
    node: of((where) => gapOfPlace(kinds, where)),
    inUse: conditionOf(model, { at: 'use' }),
    open: of((where) => conditionOf(model, { at: 'node', opening: { node: gapOfPlace(kinds, where), state: 'open' } })),
    sealed: of((where) =>
      conditionOf(model, { at: 'node', opening: { node: gapOfPlace(kinds, where), state: 'drawn', flowM3s: 0 } }),
    ),
  };
};

const perTool = (point: OperatingPoint | null): number =>
  point ? point.toolFlowM3s / Math.max(1, point.mouths.length) : 0;

const pressureAt = (point: OperatingPoint, node: number, from: number): number =>
  node < from ? (point.mouths[0]?.pressuresPa[node] ?? 0) : (point.pressuresPa[node - from] ?? 0);

const suctionAt = (point: OperatingPoint | null, node: number, from: number): number =>
  point ? -pressureAt(point, node, from) : 0;

/** Solves one state of a machine's air, each condition once. */
class SolvedAir implements Airs {
  private ready: Result<ReadyPath> | null = null;
  private use: OperatingPoint | null | undefined = undefined;
  private readonly held: (number | undefined)[] = [];

  constructor(
    private readonly quick: QuickMachine,
    private readonly places: Places,
    /**
     * Flow in the present state, and with the hose off where the hose itself has the leak. Computed on demand: many
     * tests do not need it.
     */
    private readonly states: { readonly whole: () => PathState; readonly hoseOff: (() => PathState) | null },
  ) {}

  private solve(condition: Condition, where: Where = 'toolEnd'): OperatingPoint | null {
    const { whole, hoseOff } = this.states;
    const off = where === 'inlet' && hoseOff !== null;
    if (!off) this.ready ??= quickPath(this.quick, whole());
    const ready = off ? quickPath(this.quick, hoseOff()) : this.ready;
    const solved = ready?.ok ? solveReady(ready.value, condition) : null;
    return solved?.ok ? solved.value : null;
  }

  private inUse(): OperatingPoint | null {
    if (this.use === undefined) this.use = this.solve(this.places.inUse);
    return this.use;
  }

  flowM3s(where: Where): number {
    return (this.held[WHERE[where]] ??= perTool(
      where === 'toolEnd' ? this.inUse() : this.solve(this.places.open[where], where),
    ));
  }

  sealedPa(where: Where): number {
    return (this.held[3 + WHERE[where]] ??= suctionAt(
      this.solve(this.places.sealed[where], where),
      this.places.node[where],
      this.quick.from,
    ));
  }

  fanFlowM3s(): number {
    return this.inUse()?.fanFlowM3s ?? 0;
  }

  dropPa(position: number): number {
    const point = this.inUse();
    return point ? pressureAt(point, position, this.quick.from) - pressureAt(point, position + 1, this.quick.from) : 0;
  }
}

/** A faulty machine as its faults and its handling leave it. */
export interface Signature {
  /** Faults that are still there. */
  readonly faults: readonly Fault[];
  readonly air: Airs;
}

/** Computes the readings of a machine with faults after earlier actions; equal states of the air are solved once. */
export interface FaultSimulator {
  readonly suspect: Suspect;
  /** With nothing wrong, as on the day of its baselines. */
  readonly sound: Signature;
  /** Size of a fault in its own measure. */
  readonly sizeOf: SizeOf;
  readonly signature: (faults: readonly Fault[], interventions?: Interventions) => Signature;
}

const handled = (state: PathState, { out, repairs }: Interventions): PathState => {
  if (out.length === 0 && !repairs.some((r) => r.kind === 'newPart')) return state;
  const stages = { ...state.stages };
  for (const r of repairs) if (r.kind === 'newPart') stages[r.position] = CLEAN;
  for (const i of out) stages[i] = { ...(stages[i] ?? CLEAN), removed: true };
  return { ...state, stages };
};

const nothing = (): Airs => ({ flowM3s: () => 0, sealedPa: () => 0, fanFlowM3s: () => 0, dropPa: () => 0 });

/**
 * A mechanic for one machine. A path that cannot be solved reads 0 everywhere. `wasSound` is what it read on the day of
 * its baselines, where it has drifted since.
 */
export const faultSimulatorOf = (suspect: Suspect, wasSound: Signature | null = null): FaultSimulator => {
  const { model, parameters, state } = suspect;
  const quick = quickMachine(model, parameters, state);
  const places = placesOf(model);
  const flowOf = (at: PathState) =>
    quick.ok ? new SolvedAir(quick.value, places, { whole: () => at, hoseOff: null }).flowM3s('toolEnd') : 0;
  const sizeOf = sizeFinder({
    model,
    parameters,
    flowWith: (fault, size) => flowOf(fault ? withFaults(state, [fault], { model, sizeOf: size }) : state),
  });
  const context = { model, sizeOf };
  const held = new Map<string, Airs>();
  const signature = (all: readonly Fault[], interventions: Interventions = UNTOUCHED): Signature => {
    const { out, repairs } = interventions;
    const faults = repairs.length === 0 ? all : all.filter((f) => !curedBy(repairs, f));
    let key = `${out.join()}|`;
    for (const r of repairs) if (r.kind === 'newPart') key += `${r.position},`;
    for (const f of faults)
      if (!UNFELT.has(f.kind))
        key += `|${f.kind}${f.position}:${f.severity}${f.node === undefined ? '' : `@${f.node}`}`;
    const before = held.get(key);
    if (before) return { faults, air: before };
    const stateWith = (these: readonly Fault[]) => () =>
      handled(withFaults(handled(state, { out: [], repairs }), these, context), { out, repairs: [] });
    const offWithHose = faults.filter((f) => f.kind === 'hoseHoled' && f.position < places.node.inlet);
    const air = quick.ok
      ? new SolvedAir(quick.value, places, {
          whole: stateWith(faults),
          hoseOff: offWithHose.length > 0 ? stateWith(faults.filter((f) => !offWithHose.includes(f))) : null,
        })
      : nothing();
    held.set(key, air);
    return { faults, air };
  };
  return { suspect, sound: wasSound ?? signature([]), sizeOf, signature };
};
