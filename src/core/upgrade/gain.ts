import { NORMAL_95 } from '../numeric/normal';
import type { Basis } from '../calibrate/machine-model';
import { AS_NEW } from '../path/as-new';
import { UNSTATED_UNCERTAINTY } from '../constants/calibration';
import { fail, ok, type Result } from '../failure/failure';
import { modelOfSnapshot, type PathSnapshot } from '../machine/path-edit';
import { parameterMoves } from '../calibrate/parameter-moves';
import {
  CLEAN,
  sealNode,
  type MachineModel,
  type PathParameters,
  type PathState,
  type StageState,
} from '../path/machine-path';
import { type PressureProfile, pressureProfile } from '../path/pressure-profile';
import type { Upgraded } from './apply';

/** Standard deviation of the logarithm of a new part's resistance about its stated value. A Moorwind default. */
const NEW_PART_WIDTH = 0.3;

/** A flow with its interval, m3/s. */
export interface Between {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** One state of the machine on the way of its changes. */
export interface UpgradeFigures {
  readonly model: MachineModel;
  readonly stairs: PressureProfile;
  readonly flow: Between;
  /** After over before, of this state against the first; 1 for the first itself. */
  readonly ratio: Between;
  readonly air: AirChange;
}

/** Whether the air is more or less for the whole interval, the same, or not certain either way. */
export type AirChange = 'more' | 'less' | 'same' | 'unclear';

/** A ratio this close to 1 counts as the same air. Choice: half a per cent, below what any meter of the trade shows. */
const SAME_AIR = 0.005;

const airChangeOf = ({ value, low, high }: Between): AirChange => {
  if (low > 1) return 'more';
  if (high < 1) return 'less';
  return Math.abs(value - 1) < SAME_AIR ? 'same' : 'unclear';
};

export interface UpgradeInput {
  readonly steps: readonly Upgraded[];
  readonly parameters: PathParameters;
  readonly basis: Basis;
  /** Present loads, by position in the present path. */
  readonly today: PathState;
}

const parametersOf = (parameters: PathParameters, { leakM2 }: Upgraded): PathParameters =>
  leakM2 === null ? parameters : { ...parameters, leakM2: Math.min(parameters.leakM2, leakM2) };

const airOf = (path: PathSnapshot, id: number): string =>
  JSON.stringify(path.stages.find((s) => s.id === id)?.spec.air ?? null);

const hoseOf = ({ machine: { hoseBoreM, hoseLengthM } }: PathSnapshot): string => `${hoseBoreM} ${hoseLengthM}`;

interface Placed {
  readonly state: PathState;
  /** Positions of new parts. */
  readonly fresh: readonly number[];
  /** A load of today is removed by the upgrade: its size was read from one measured flow. */
  readonly unloaded: boolean;
}

/** Deviation of the model from the fitted flows, as a share: the root mean square of the residuals. */
const misfitOf = (basis: Basis): number => {
  if (basis.kind !== 'calibrated') return 0;
  const shares = basis.calibration.compared
    .filter((c) => c.observation.what === 'flow' && c.observation.value > 0)
    .map((c) => c.residual / c.observation.value);
  return shares.length === 0 ? 0 : Math.sqrt(shares.reduce((sum, r) => sum + r * r, 0) / shares.length);
};

/** The loads of today at their places in the changed path: new parts carry none. */
const placed = (from: PathSnapshot, to: PathSnapshot, today: PathState): Placed => {
  const states: Record<number, StageState> = {};
  const fresh: number[] = [];
  for (const [at, stage] of to.stages.entries()) {
    const was = from.stages.findIndex((s) => s.id !== null && s.id === stage.id);
    // Another hose is a new part though its stage stays.
    const { air } = stage.spec;
    const otherHose =
      air.form === 'line' && (air.boreM === null || air.lengthM === null) && hoseOf(from) !== hoseOf(to);
    const same =
      !otherHose && was >= 0 && stage.id !== null && airOf(from, stage.id) === JSON.stringify(stage.spec.air);
    if (!same && !stage.missing) fresh.push(at);
    else if (today.stages[was]) states[at] = today.stages[was];
  }
  const loads = (of: PathState['stages']): number => Object.values(of).filter((s) => s.loadPaSM3 > 0).length;
  return { state: { ...today, stages: states }, fresh, unloaded: loads(states) < loads(today.stages) };
};

const scaled = (state: PathState, at: number, factor: number): PathState => ({
  ...state,
  stages: { ...state.stages, [at]: { ...(state.stages[at] ?? CLEAN), blockFactor: factor } },
});

const spreadOf = (moves: readonly number[]): number => NORMAL_95 * Math.hypot(...moves);

const around = (value: number, spread: number): Between => ({
  value,
  low: value * Math.exp(-spread),
  high: value * Math.exp(spread),
});

/**
 * The flow at the tool after each step of an upgrade, and its ratio to the present flow: the uncertainty of the machine
 * moves both alike and mostly cancels in the ratio; that of the new parts does not. Source: the air-path model;
 * propagation of uncertainty, JCGM 100:2008 (GUM) 5.1.2. Valid: steps of `upgradeSteps`. Errors as `pressureProfile`.
 */
export const upgradeFigures = ({
  steps,
  parameters,
  basis,
  today,
}: UpgradeInput): Result<readonly UpgradeFigures[]> => {
  const [first] = steps;
  if (!first) return ok([]);
  const seal = first.path.stages[sealNode(modelOfSnapshot(first.path))]?.id ?? null;
  const solve = (step: Upgraded, p: PathParameters, state: PathState) => {
    const parameters = parametersOf(p, step);
    // The leak stays where it was found, also after parts were added.
    const at = seal === null ? -1 : step.path.stages.findIndex((s) => s.id === seal);
    return at < 0
      ? pressureProfile({ model: modelOfSnapshot(step.path), parameters, state })
      : pressureProfile({
          model: modelOfSnapshot(step.path),
          parameters: { ...parameters, leakM2: 0 },
          state: { ...state, leaksM2: { ...state.leaksM2, [at]: (state.leaksM2[at] ?? 0) + parameters.leakM2 } },
        });
  };
  const misfit = misfitOf(basis);
  const figures: UpgradeFigures[] = [];
  const before = solve(first, parameters, today);
  if (!before.ok) return before;
  const base = before.value.flowPerToolM3s;
  for (const step of steps) {
    const { state, fresh, unloaded } = placed(first.path, step.path, today);
    const solved = solve(step, parameters, state);
    if (!solved.ok) return fail(...solved.failures);
    const flow = solved.value.flowPerToolM3s;
    const at = (p: PathParameters, s: PathState = state): number | null => {
      const moved = solve(step, p, s);
      return moved.ok ? moved.value.flowPerToolM3s : null;
    };
    const from = (p: PathParameters): number | null => {
      const moved = solve(first, p, today);
      return moved.ok ? moved.value.flowPerToolM3s : null;
    };
    const half = (up: number | null, down: number | null): number => (up && down ? Math.log(up / down) / 2 : 0);
    const pairs = parameterMoves(parameters, basis);
    const flows = pairs.map(([up, down]) => half(at(up), at(down)));
    const ratios = pairs.map(([up, down]) => half(at(up), at(down)) - half(from(up), from(down)));
    const parts = fresh.map((i) =>
      half(
        at(parameters, scaled(state, i, Math.exp(NEW_PART_WIDTH))),
        at(parameters, scaled(state, i, Math.exp(-NEW_PART_WIDTH))),
      ),
    );
    const isFirst = step === first;
    const ratio = isFirst
      ? { value: 1, low: 1, high: 1 }
      : around(flow / base, spreadOf([...ratios, ...parts, ...(unloaded ? [UNSTATED_UNCERTAINTY.value, misfit] : [])]));
    figures.push({
      model: modelOfSnapshot(step.path),
      stairs: solved.value,
      flow: around(flow, spreadOf([...flows, ...parts, UNSTATED_UNCERTAINTY.value])),
      ratio,
      air: airChangeOf(ratio),
    });
  }
  return ok(figures);
};

/** The same with every filter clean: what the change itself brings, not what a fresh filter brings. Source, validity and errors: as `upgradeFigures`. */
export const cleanFigures = (input: UpgradeInput): Result<readonly UpgradeFigures[]> =>
  upgradeFigures({ ...input, today: AS_NEW });
