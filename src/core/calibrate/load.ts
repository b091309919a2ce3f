import { fail, failure, ok, type Result } from '../failure/failure';
import { DUST_K2 } from '../constants/media';
import { bracketedNewton } from '../numeric/root';
import { CLEAN, type MachineModel, type PathParameters, type PathState } from '../path/machine-path';
import { cleanResistance, type Entry, IN_USE, type PressureProfile, pressureProfile } from '../path/pressure-profile';

export interface LoadQuestion {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  /** The state of the rest of the machine. */
  readonly state: PathState;
  readonly entry?: Entry;
}

/** The dust load of a stage. */
export interface StageLoad {
  /** Added resistance by dust, Pa s/m3. */
  readonly loadPaSM3: number;
  readonly resistancePaSM3: number;
  /** Whole over clean resistance. */
  readonly timesClean: number;
  /** See `isAsGoodAsClean`. */
  readonly asClean: boolean;
  /** Dust in kg at the given K2. */
  readonly dustKg: number;
}

/** Whether a resistance, in times of the clean one, counts as clean. Choice: 5 %, about what a reading can resolve. */
export const isAsGoodAsClean = (timesClean: number): boolean => timesClean < 1.05;

/** Above this load, Pa s/m3, nothing flows that a meter could show. */
const MOST_LOAD = 1e11;

export const withLoads = (state: PathState, loads: ReadonlyMap<number, number>): PathState => {
  const stages = { ...state.stages };
  for (const [position, loadPaSM3] of loads) stages[position] = { ...(stages[position] ?? CLEAN), loadPaSM3 };
  return { ...state, stages };
};

/** Size of a load on a scale that a search can walk: 0 is clean, near 1 is shut. */
const loadAt = (t: number, unit: number): number => (unit * t) / (1 - t);

interface Search extends LoadQuestion {
  /** How much of the load each stage takes, by position; the largest 1. */
  readonly weights: ReadonlyMap<number, number>;
  /** A figure of the solution that rises (or falls) with the load. */
  readonly read: (stairs: PressureProfile) => number;
  readonly wanted: number;
}

const searchLoad = (q: Search): Result<number> => {
  const unit = q.parameters.p0Pa / q.parameters.qMaxM3s;
  const most = MOST_LOAD / (MOST_LOAD + unit);
  const broken: Result<number>[] = [];
  const readAt = (t: number): number => {
    const loads = new Map([...q.weights].map(([position, w]) => [position, w * loadAt(t, unit)]));
    const solved = pressureProfile({ ...q, state: withLoads(q.state, loads) });
    if (solved.ok) return q.read(solved.value);
    broken.push(solved);
    return Number.NaN;
  };
  const [clean, shut] = [readAt(0), readAt(most)];
  if (broken[0]) return broken[0];
  const rises = shut > clean;
  const sign = rises ? -1 : 1;
  if (sign * (clean - q.wanted) < 0) return fail(failure('load.less-than-clean', '', { clean, wanted: q.wanted }));
  if (sign * (shut - q.wanted) > 0) return fail(failure('load.no-flow', '', { wanted: q.wanted }));
  const found = bracketedNewton({
    low: 0,
    high: most,
    start: 0.3,
    tolerance: 1e-9 * Math.abs(q.wanted),
    // No slope at hand: the root finder halves.
    evaluate: (t, out) => {
      out.value = sign * (readAt(t) - q.wanted);
      out.slope = 0;
    },
  });
  return ok(loadAt(found.root, unit));
};

/**
 * The load of one stage from the pressure measured across it, Pa. The drop rises with the load even though the flow
 * falls. Source: dp = (K1 + K2 w) v_face (filter drag model, EPA Cost Manual) through the air-path model.
 * Valid: a stage with a medium. Returns `stage.unknown`, `load.less-than-clean` or `load.no-flow`.
 */
export const loadOfStageDp = (
  q: LoadQuestion & { readonly position: number; readonly dropPa: number; readonly k2PaSMKg?: number },
): Result<StageLoad> => {
  const stage = q.model.stages[q.position];
  const clean = stage ? cleanResistance(stage, q.parameters.pathScale) : null;
  if (!stage || stage.spec.air.form !== 'medium' || clean === null)
    return fail(failure('stage.unknown', 'position', { tag: '' }));
  const areaM2 = stage.spec.air.areaM2 * stage.spec.air.inParallel;
  const load = searchLoad({
    ...q,
    weights: new Map([[q.position, 1]]),
    read: (s) => s.steps[q.position]?.dropPa ?? 0,
    wanted: q.dropPa,
  });
  if (!load.ok) return load;
  return ok(stageLoad(load.value, { clean, areaM2, k2PaSMKg: q.k2PaSMKg ?? DUST_K2.value }));
};

/**
 * A load in each of its measures. Source: w = (R - R_clean) A / K2 per area, times the area. Valid: clean and area
 * above 0.
 */
export const stageLoad = (
  loadPaSM3: number,
  { clean, areaM2, k2PaSMKg }: { clean: number; areaM2: number; k2PaSMKg: number },
): StageLoad => ({
  loadPaSM3,
  resistancePaSM3: clean + loadPaSM3,
  timesClean: (clean + loadPaSM3) / clean,
  asClean: isAsGoodAsClean((clean + loadPaSM3) / clean),
  dustKg: (loadPaSM3 * areaM2 ** 2) / k2PaSMKg,
});

/** Which flow a reading was of. m3/s. Source: the air-path model. Valid: a solved staircase. */
export const flowIn = (stairs: PressureProfile): number => stairs.flowPerToolM3s;

/**
 * The load that brings the tool flow, m3/s, down to what was measured, shared between stages by weight.
 * Source: the air-path model, solved backwards. Valid: flow above 0. Returns `load.less-than-clean` when more flows than
 * the clean path lets through (a stage out, torn or bypassed, or a calibration that no longer holds).
 */
export const loadOfFlow = (
  q: LoadQuestion & {
    readonly flowM3s: number;
    readonly weights: ReadonlyMap<number, number>;
    readonly read?: (stairs: PressureProfile) => number;
  },
): Result<ReadonlyMap<number, number>> => {
  if (!(q.flowM3s > 0)) return fail(failure('load.no-flow', '', { wanted: q.flowM3s }));
  const load = searchLoad({ ...q, read: q.read ?? flowIn, wanted: q.flowM3s });
  return load.ok ? ok(new Map([...q.weights].map(([position, w]) => [position, w * load.value]))) : load;
};

/**
 * The load a stage had, from the flow before and after its change, m3/s: the flow after gives the load of the rest, the
 * flow before the added load of the old part. Source and errors: as `loadOfFlow`.
 */
export const loadOfChange = (
  q: LoadQuestion & {
    readonly position: number;
    readonly beforeM3s: number;
    readonly afterM3s: number;
    readonly others: ReadonlyMap<number, number>;
  },
): Result<StageLoad> => {
  const rest = loadOfFlow({ ...q, flowM3s: q.afterM3s, weights: q.others });
  const loads = rest.ok ? rest.value : new Map<number, number>();
  if (!rest.ok && rest.failures[0]?.code !== 'load.less-than-clean') return rest;
  const state = withLoads(q.state, loads);
  const old = loadOfFlow({ ...q, state, flowM3s: q.beforeM3s, weights: new Map([[q.position, 1]]) });
  if (!old.ok) return old;
  const stage = q.model.stages[q.position];
  const clean = stage ? cleanResistance(stage, q.parameters.pathScale) : null;
  if (stage?.spec.air.form !== 'medium' || clean === null)
    return fail(failure('stage.unknown', 'position', { tag: '' }));
  return ok(
    stageLoad(old.value.get(q.position) ?? 0, {
      clean,
      areaM2: stage.spec.air.areaM2 * stage.spec.air.inParallel,
      k2PaSMKg: DUST_K2.value,
    }),
  );
};

/**
 * The machine's figures with another hose and nothing else changed: "what would the baseline be with a 10 m hose?".
 * Errors as `pressureProfile`.
 */
export const withHose = (
  q: LoadQuestion,
  hose: { readonly boreM: number; readonly lengthM: number },
): Result<PressureProfile> =>
  pressureProfile({ model: q.model, parameters: q.parameters, state: { ...q.state, hose }, entry: q.entry ?? IN_USE });
