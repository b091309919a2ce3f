import { NORMAL_95 } from '../numeric/normal';
import { withHose } from '../calibrate/load';
import type { Basis } from '../calibrate/machine-model';
import { parameterMoves } from '../calibrate/parameter-moves';
import { UNSTATED_UNCERTAINTY } from '../constants/calibration';
import type { StageAir } from '../path/stage-spec';
import type { MachineModel, ModelStage, PathParameters, PathState } from '../path/machine-path';

export interface Hose {
  readonly boreM: number;
  readonly lengthM: number;
}

/** Whether two are one size of hose: bores within 2 %, lengths within 5 cm. Choice: a Moorwind default. Valid: above 0. */
export const sameHose = (a: Hose, b: Hose): boolean =>
  Math.abs(a.boreM / b.boreM - 1) <= SAME_BORE && Math.abs(a.lengthM - b.lengthM) <= SAME_LENGTH_M;

/** A machine in its present state, ready for predictions. */
export interface Standing {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly state: PathState;
  readonly basis: Basis;
}

/** The flow at each tool. 95 % interval from the uncertainty of the machine, its present state and the hose. */
export interface Predicted {
  readonly hose: Hose;
  readonly flowM3s: number;
  readonly lowM3s: number;
  readonly highM3s: number;
  /** In the hose, m/s. */
  readonly velocityMs: number;
  readonly lowMs: number;
  readonly highMs: number;
  /** Tools that share the hose: its Y sits at the tool end. 1 where each has its own. */
  readonly toolsOnHose: number;
}

const SAME_BORE = 0.02;
const SAME_LENGTH_M = 0.05;
/**
 * Spread of the friction of a hose that was not measured on this machine. Standard deviation of the logarithm; a
 * Moorwind default.
 */
const FRICTION_WIDTH = 0.12;

/** Two ways of a Y, each with the tool and its hose, joined before the machine. Loss of a usual Y; a modelling choice. */
const WYE: ModelStage = {
  id: 0,
  kind: 'wye',
  name: 'Y',
  missing: false,
  spec: {
    air: { form: 'wye', ways: 2, lossK: 0.6, boreM: 0.05 },
    fit: { orientation: 'unmarked', seals: 0, bypass: 0, rating: { scale: 'none' }, foreign: false, gaugePa: null },
  },
};

const shifted = <V>(by: Readonly<Record<number, V>>, from: number): Readonly<Record<number, V>> =>
  Object.fromEntries(Object.entries(by).map(([at, v]) => [Number(at) >= from ? Number(at) + 1 : Number(at), v]));

/** The machine with a Y behind its hose, so that two tools each have a hose of their own. One that has a Y keeps it. Definition: the lay-out of a Y. Valid: a path with a hose. */
export const throughY = (standing: Standing): Standing => {
  const { model, state } = standing;
  if (model.stages.some((s) => s.kind === 'wye')) return standing;
  const after = model.stages.findIndex((s) => s.kind === 'hose') + 1;
  if (after === 0) return standing;
  return {
    ...standing,
    model: { ...model, stages: [...model.stages.slice(0, after), WYE, ...model.stages.slice(after)] },
    state: { ...state, stages: shifted(state.stages, after), leaksM2: shifted(state.leaksM2, after) },
  };
};

/** One tool on a machine with a Y: the other branch is plugged. Definition: the lay-out of a Y. */
export const oneBranch = (standing: Standing): Standing => ({
  ...standing,
  model: {
    ...standing.model,
    stages: standing.model.stages.map((s) => {
      const { air } = s.spec;
      if (s.kind !== 'wye' || air.form !== 'wye') return s;
      const way: StageAir = { form: 'fitting', lossK: air.lossK, boreM: air.boreM };
      return { ...s, kind: 'inlet', spec: { ...s.spec, air: way } };
    }),
  },
});

const flowWith = (s: Standing, parameters: PathParameters, hose: Hose) => {
  const solved = withHose({ model: s.model, parameters, state: s.state }, hose);
  return solved.ok ? (solved.value.flowsAtToolsM3s[0] ?? null) : null;
};

/** Tools that share one hose: those of a Y that sits before it, at the tool end. Definition: the lay-out of a Y. Total. */
export const toolsOnHose = ({ model: { stages } }: Standing): number => {
  const at = stages.findIndex((s) => s.kind === 'wye');
  const air = stages[at]?.spec.air;
  return air?.form === 'wye' && at < stages.findIndex((s) => s.kind === 'hose') ? air.ways : 1;
};

/** The machine with another hose on the second way of its Y. Definition: the lay-out of a Y. Valid: a path with a Y; without one nothing changes. */
export const besideOf = (standing: Standing, other: Hose): Standing => ({
  ...standing,
  state: { ...standing.state, secondHose: other },
});

/**
 * The flow at each tool through a hose, with its interval: each parameter is moved by its own width, the present load by
 * that of a reading, the friction of a foreign hose by its width; the moves are added as squares. null where the model has no answer. Bore and length in m. Source: the air-path model;
 * propagation of uncertainty, JCGM 100:2008 (GUM) 5.1.2. Valid: hoses of 5 mm and more.
 */
export const predictThrough = (standing: Standing, hose: Hose): Predicted | null => {
  const flowM3s = flowWith(standing, standing.parameters, hose);
  if (flowM3s === null || !(flowM3s > 0)) return null;
  const half = (up: number | null, down: number | null): number => Math.log((up ?? flowM3s) / (down ?? flowM3s)) / 2;
  const moves = parameterMoves(standing.parameters, standing.basis).map(([up, down]) =>
    half(flowWith(standing, up, hose), flowWith(standing, down, hose)),
  );
  const { hoseBoreM, hoseLengthM } = standing.model;
  const own = hoseBoreM === hose.boreM && hoseLengthM === hose.lengthM;
  // Friction goes with the length: a rougher hose is a longer one.
  const [long = null, short = null] = [FRICTION_WIDTH, -FRICTION_WIDTH].map((w) =>
    flowWith(standing, standing.parameters, { ...hose, lengthM: hose.lengthM * Math.exp(w) }),
  );
  const spread = NORMAL_95 * Math.hypot(...moves, own ? 0 : half(long, short), UNSTATED_UNCERTAINTY.value);
  const onHose = toolsOnHose(standing);
  const area = (Math.PI * hose.boreM ** 2) / 4 / onHose;
  const [lowM3s, highM3s] = [flowM3s * Math.exp(-spread), flowM3s * Math.exp(spread)];
  return {
    hose,
    flowM3s,
    lowM3s,
    highM3s,
    velocityMs: flowM3s / area,
    lowMs: lowM3s / area,
    highMs: highM3s / area,
    toolsOnHose: onHose,
  };
};
