import { ok, type Result } from '../failure/failure';
import { REFERENCE_VISCOSITY } from '../constants/path';
import {
  airPathOf,
  fanCurveOf,
  fanWith,
  type MachineModel,
  type PathParameters,
  type PathState,
  type StageState,
  trunkStart,
} from './machine-path';
import type { DropOf } from './model/drop-of';
import { fanCoefficients } from './model/fan';
import { leakConductance } from './model/leak';
import type { ReadyChain } from './model/march';
import { readyPath, type ReadyPath } from './model/solve';

/** A machine's clean path, checked once; its states are derived from it without another build of the path. */
export interface QuickMachine {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly clean: ReadyPath;
  readonly from: number;
}

/** Makes a machine ready for many states in one air, with one hose. Errors as `airPathOf` and `readyPath`. */
export const quickMachine = (
  model: MachineModel,
  parameters: PathParameters,
  state: PathState,
): Result<QuickMachine> => {
  const path = airPathOf(model, parameters, { ...state, stages: {}, leaksM2: {} });
  if (!path.ok) return path;
  const clean = readyPath(path.value);
  return clean.ok ? ok({ model, parameters, clean: clean.value, from: trunkStart(model) }) : clean;
};

const scaledDrop =
  (part: DropOf, { blockFactor }: StageState, r1: number): DropOf =>
  (flow, out) => {
    part(flow, out);
    out.pa = out.pa * blockFactor + r1 * flow;
    out.slope = out.slope * blockFactor + r1;
  };

interface Laying {
  readonly machine: QuickMachine;
  readonly state: PathState;
  /** Position of the chain's first stage. */
  readonly offset: number;
  /** Nodes of the chain that carry the machine's leaks. */
  readonly leakNodes: number;
}

const laid = (chain: ReadyChain, { machine, state, offset, leakNodes }: Laying): ReadyChain => {
  const { densityKgM3, viscosityPaS } = state.air;
  const thick = viscosityPaS / REFERENCE_VISCOSITY.value;
  const [r1, r2, drops, leaks] = [chain.r1.slice(), chain.r2.slice(), chain.drops.slice(), chain.leaks.slice()];
  for (const position in state.stages) {
    const held = state.stages[position];
    const i = Number(position) - offset;
    if (!held || i < 0 || i >= chain.length || i === chain.fanAt || machine.model.stages[i + offset]?.missing) continue;
    const loadR1 = held.loadPaSM3 * thick;
    const part = drops[i];
    if (held.removed) {
      r1[i] = 0;
      r2[i] = 0;
      drops[i] = null;
    } else if (part) drops[i] = scaledDrop(part, held, loadR1);
    else {
      r1[i] = (r1[i] ?? 0) * held.blockFactor + loadR1;
      r2[i] = (r2[i] ?? 0) * held.blockFactor;
    }
  }
  for (const node in state.leaksM2) {
    const at = Number(node) - offset;
    const areaM2 = state.leaksM2[node] ?? 0;
    if (at >= 0 && at < leakNodes && areaM2 > 0)
      leaks[at] = (leaks[at] ?? 0) + leakConductance({ areaM2, densityKgM3 });
  }
  return { ...chain, r1, r2, drops, leaks };
};

/**
 * A machine's path in a state, ready to be solved: what `airPathOf` and `readyPath` give, without the building and the
 * checking. Source: the same; held to it by test. Valid: states of the machine's own stages in the air and with the hose
 * it was made ready in, loads of 0 or more, block factors above 0. Errors: those of the fan's drive.
 */
export const quickPath = (machine: QuickMachine, state: PathState): Result<ReadyPath> => {
  const { clean, from, model, parameters } = machine;
  const curve = fanCurveOf(model);
  const fan = curve ? fanCoefficients(fanWith(curve, parameters), state.drive, state.air) : ok(clean.fan);
  if (!fan.ok) return fan;
  const trunk = laid(clean.trunk, { machine, state, offset: from, leakNodes: clean.trunk.length + 1 });
  const way = clean.ways[0] ? laid(clean.ways[0], { machine, state, offset: 0, leakNodes: from }) : null;
  return ok({
    path: clean.path,
    fan: fan.value,
    trunk: { ...trunk, fan: fan.value },
    ways: way ? clean.ways.map(() => way) : [],
  });
};
