import { MEDIA } from '../constants/media';
import { ok, type Result } from '../failure/failure';
import { boreVelocityMs } from '../measure/bore-flow';
import {
  airPathOf,
  fanCurveOf,
  type MachineModel,
  type ModelStage,
  type PathParameters,
  type PathState,
  trunkStart,
} from './machine-path';
import { type Condition, type InletState } from './model/path';
import { type OperatingPoint, solvePath } from './model/solve';

/** Where a machine's path is entered: as in use, or open or sealed at a node (0 is before the first stage). */
export type Entry =
  { readonly at: 'use' } | { readonly at: 'node'; readonly opening: InletState } | { readonly at: 'closedOutlet' };

export const IN_USE: Entry = { at: 'use' };

/** One stage of the staircase. */
export interface ProfileStep {
  readonly position: number;
  readonly fromPa: number;
  readonly toPa: number;
  /** Lost in the stage; negative for the fan, which lifts. Pa. */
  readonly dropPa: number;
  /** Share of the fan's lift that the stage costs; 0 for the fan. */
  readonly shareOfLift: number;
  /** Through this stage; one way's where ways join later. m3/s at room density. */
  readonly flowM3s: number;
  /** Through the medium, m/s; null where there is none. */
  readonly faceVelocityMs: number | null;
  /** In hose or duct, m/s; null elsewhere. */
  readonly lineVelocityMs: number | null;
}

/** The pressure staircase: the solution drawn along the path. */
export interface PressureProfile {
  readonly steps: readonly ProfileStep[];
  /** At each node, one more than stages. Pa. */
  readonly nodesPa: readonly number[];
  /** What leaks in at each node, m3/s; negative blows out. */
  readonly inflowsM3s: readonly number[];
  readonly toolFlowM3s: number;
  /** Flow at one tool, where a Y joins several. */
  readonly flowPerToolM3s: number;
  /** Of each tool, where the ways of a Y differ; m3/s. */
  readonly flowsAtToolsM3s: readonly number[];
  readonly fanFlowM3s: number;
  readonly outletFlowM3s: number;
  readonly fanLiftPa: number;
  /** In the main hose or duct, m/s; null without one. */
  readonly hoseVelocityMs: number | null;
  readonly iterations: number;
  readonly residual: number;
}

/** The condition of the model's path for an entry at a node of the machine. */
export const conditionOf = (model: MachineModel, entry: Entry): Condition => {
  const from = trunkStart(model);
  if (entry.at === 'use') return { start: null, mouths: [], closedAt: null };
  if (entry.at === 'closedOutlet') return { start: null, mouths: [], closedAt: model.stages.length - from };
  const { opening } = entry;
  const ways = model.stages.find((s) => s.kind === 'wye')?.spec.air;
  if (opening.node >= from && !(opening.node === 0))
    return { start: { ...opening, node: opening.node - from }, mouths: [], closedAt: null };
  if (from === 0) return { start: opening, mouths: [], closedAt: null };
  // Nodes before the Y are there once in each way: all of them are opened, or sealed, alike.
  return {
    start: null,
    mouths: Array.from({ length: ways?.form === 'wye' ? ways.ways : 2 }, () => opening),
    closedAt: null,
  };
};

const areaOf = (stage: ModelStage): number | null =>
  stage.spec.air.form === 'medium' ? stage.spec.air.areaM2 * stage.spec.air.inParallel : null;

const boreOf = (stage: ModelStage, model: MachineModel, state: PathState): number | null => {
  const { air } = stage.spec;
  if (air.form !== 'line') return null;
  const own = air.boreM !== null && air.lengthM !== null;
  return own ? air.boreM : (state.hose?.boreM ?? air.boreM ?? model.hoseBoreM);
};

const gather = (trunk: readonly number[], way: readonly number[] | undefined, from: number): readonly number[] => [
  ...(way ?? Array.from({ length: from }, () => 0)).slice(0, from),
  ...trunk,
];

const stepsOf = (
  model: MachineModel,
  state: PathState,
  along: { nodesPa: readonly number[]; flows: readonly number[]; liftPa: number },
): readonly ProfileStep[] =>
  model.stages.map((stage, i): ProfileStep => {
    const [fromPa, toPa] = [along.nodesPa[i] ?? 0, along.nodesPa[i + 1] ?? 0];
    const flowM3s = along.flows[i] ?? 0;
    const removed = stage.missing || (state.stages[i]?.removed ?? false);
    const [area, bore] = [areaOf(stage), boreOf(stage, model, state)];
    return {
      position: i,
      fromPa,
      toPa,
      dropPa: fromPa - toPa,
      shareOfLift: stage.kind === 'fan' || along.liftPa <= 0 ? 0 : (fromPa - toPa) / along.liftPa,
      flowM3s,
      faceVelocityMs: area === null || removed ? null : flowM3s / area,
      lineVelocityMs: bore === null || removed ? null : boreVelocityMs({ flowM3s, boreM: bore }),
    };
  });

const profileOf = (model: MachineModel, state: PathState, point: OperatingPoint): PressureProfile => {
  const from = trunkStart(model);
  const way = point.mouths[0];
  const nodesPa = gather(point.pressuresPa, way?.pressuresPa, from);
  const flows = gather(point.flowsM3s, way?.flowsM3s, from);
  const steps = stepsOf(model, state, { nodesPa, flows, liftPa: point.fanLiftPa });
  return {
    steps,
    nodesPa,
    inflowsM3s: gather(point.inflowsM3s, undefined, from),
    toolFlowM3s: point.toolFlowM3s,
    flowPerToolM3s: point.mouths.length > 0 ? point.toolFlowM3s / point.mouths.length : point.toolFlowM3s,
    flowsAtToolsM3s: point.mouths.length > 0 ? point.mouths.map((m) => m.flowsM3s[0] ?? 0) : [point.toolFlowM3s],
    fanFlowM3s: point.fanFlowM3s,
    outletFlowM3s: flows.at(-1) ?? 0,
    fanLiftPa: point.fanLiftPa,
    hoseVelocityMs: steps.findLast((s) => s.lineVelocityMs !== null)?.lineVelocityMs ?? null,
    iterations: point.iterations,
    residual: point.residual,
  };
};

export interface PressureProfileInput {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly state: PathState;
  readonly entry?: Entry;
}

/**
 * Solves a machine's path in a state and lays the result along its stages.
 * Source: `solvePath`. Valid and errors: as `solvePath` and `airPathOf`; a failure names the stage by its position.
 */
export const pressureProfile = ({
  model,
  parameters,
  state,
  entry = IN_USE,
}: PressureProfileInput): Result<PressureProfile> => {
  const path = airPathOf(model, parameters, state);
  if (!path.ok) return path;
  const point = solvePath(path.value, conditionOf(model, entry));
  return point.ok ? ok(profileOf(model, state, point.value)) : point;
};

/** The flow a search starts from where no fan is entered, m3/s. */
const NO_FAN_M3S = 0.05;

/** The parameters of a record that was never measured: its own fan, a seal in good order, its path as entered. */
export const templateParameters = (model: MachineModel, sealLeakM2: number): PathParameters => {
  const curve = fanCurveOf(model);
  const qMaxM3s = curve === null ? NO_FAN_M3S : curve.kind === 'points' ? curve.rangeM3s[1] : curve.qMaxM3s;
  return { p0Pa: curve?.p0Pa ?? 0, qMaxM3s, leakM2: sealLeakM2, pathScale: 1 };
};

/** Clean resistance of a stage's medium, Pa s/m3; null for a stage without one. Source: K1/A. Valid: an area above 0. */
export const cleanResistance = (stage: ModelStage, pathScale: number): number | null => {
  const { air } = stage.spec;
  if (air.form !== 'medium') return null;
  return ((air.k1PaSM ?? MEDIA[air.medium].k1.value) * pathScale) / (air.areaM2 * air.inParallel);
};
