import { CLASS_HOSE_VELOCITY } from '../constants/limits';
import type { Failure } from '../failure/failure';
import type { Machine } from '../machine/machine';
import { MACHINE_KINDS } from '../machine/kinds';
import type { MachineModel, PathParameters, PathState } from '../path/machine-path';
import type { FlowLamp } from '../path/indicator';
import { type PressureProfile, pressureProfile } from '../path/pressure-profile';
import { type Basis, type ModelledMachine, wholeModel } from './machine-model';
import { AS_NEW } from '../path/as-new';
import type { Today } from './today';

/** Everything a staircase on the screen is drawn from. Plain data. */
export interface PathView {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly basis:
    | { readonly kind: 'calibrated'; readonly readings: number; readonly agreeing: number }
    | { readonly kind: 'template'; readonly why: Failure | null };
  readonly today: Today;
  /** Clean and with every stage in place. */
  readonly asNew: PressureProfile | null;
  readonly now: PressureProfile | null;
  /** Why it cannot be drawn; null when it can. */
  readonly failure: Failure | null;
  readonly lamp: FlowLamp | null;
  readonly hoseM: number | null;
  readonly nominalVolts: number;
  readonly collector: boolean;
}

const shortBasis = (basis: Basis): PathView['basis'] => {
  if (basis.kind === 'template') return { kind: 'template', why: basis.why };
  const { compared } = basis.calibration;
  return { kind: 'calibrated', readings: compared.length, agreeing: compared.filter((c) => c.agrees).length };
};

/** M and H machines warn below 20 m/s in the hose their selector is set to. */
const lampOf = (machine: Machine): FlowLamp | null => {
  const selectorM = machine.hoseSelectorM ?? machine.hoseBoreM;
  return MACHINE_KINDS[machine.kind].hoseVelocityLimit && selectorM !== null
    ? { selectorM, belowMs: CLASS_HOSE_VELOCITY.value }
    : null;
};

const drawn = (model: MachineModel, parameters: PathParameters, state: PathState) =>
  pressureProfile({ model, parameters, state });

/** The view of a machine's path: as new, today, and what both rest on. */
export const pathViewOf = (machine: Machine, { model, parameters, basis }: ModelledMachine, today: Today): PathView => {
  const asNew = drawn(wholeModel(model), parameters, AS_NEW);
  const now = drawn(model, parameters, today.state);
  return {
    model,
    parameters,
    basis: shortBasis(basis),
    today,
    asNew: asNew.ok ? asNew.value : null,
    now: now.ok ? now.value : null,
    failure: asNew.ok ? (now.ok ? null : (now.failures[0] ?? null)) : (asNew.failures[0] ?? null),
    lamp: lampOf(machine),
    hoseM: machine.hoseBoreM,
    nominalVolts: machine.nominalVolts,
    collector: MACHINE_KINDS[machine.kind].collector,
  };
};
