import { at, fail, failure, ok, type Result } from '../failure/failure';
import { MEDIA } from '../constants/media';
import type { PathAir } from './model/air';
import { type Chain, type Element, OPEN_PLACE } from './model/element';
import type { Drive, FanCurve } from './model/fan';
import type { AirPath } from './model/path';
import { scaleElement } from './model/scale';
import type { StageKind } from './stage-kinds';
import type { StageAir, StageSpec } from './stage-spec';

/** The facts of one stage for the model. Plain data, for the worker. */
export interface ModelStage {
  readonly id: number;
  readonly kind: StageKind;
  readonly name: string;
  readonly missing: boolean;
  readonly spec: StageSpec;
}

/** A machine as the model sees it. */
export interface MachineModel {
  readonly stages: readonly ModelStage[];
  readonly hoseBoreM: number | null;
  readonly hoseLengthM: number | null;
}

/** What calibration finds: the fan, the seal leak, and one scale on the clean path. */
export interface PathParameters {
  readonly p0Pa: number;
  readonly qMaxM3s: number;
  readonly leakM2: number;
  readonly pathScale: number;
}

export interface StageState {
  /** Resistance added by dust, Pa s/m3. */
  readonly loadPaSM3: number;
  /** The stage's own resistance times this: a crushed hose, a plugged nozzle. 1 as built. */
  readonly blockFactor: number;
  readonly removed: boolean;
}

export const CLEAN: StageState = { loadPaSM3: 0, blockFactor: 1, removed: false };

/** The state of a machine beside its clean path. */
export interface PathState {
  /** By stage position; missing ones are clean. */
  readonly stages: Readonly<Record<number, StageState>>;
  /** More leak area to the room, m2, by node; node i lies before stage i. */
  readonly leaksM2: Readonly<Record<number, number>>;
  readonly hose: { readonly boreM: number; readonly lengthM: number } | null;
  /** The second branch of a Y, where it differs; left out, it equals the first. */
  readonly secondHose?: { readonly boreM: number; readonly lengthM: number };
  readonly drive: Drive;
  readonly air: PathAir;
}

const FAN_OF = (stage: ModelStage): FanCurve | null => (stage.spec.air.form === 'fan' ? stage.spec.air.curve : null);

/** The fan's own curve as the machine's record has it; null when the path has no fan stage or one without a curve. */
export const fanCurveOf = (model: MachineModel): FanCurve | null =>
  model.stages.map(FAN_OF).find((c) => c !== null) ?? null;

/** A fan curve stretched to the lift and flow that were fitted. */
export const fanWith = (curve: FanCurve, { p0Pa, qMaxM3s }: PathParameters): FanCurve => {
  if (curve.kind !== 'points') return { ...curve, p0Pa, qMaxM3s };
  // A measured curve keeps its shape: it is stretched to the lift and the flow that were fitted.
  const [low, high] = curve.rangeM3s;
  const [lift, flow] = [p0Pa / curve.p0Pa, qMaxM3s / high];
  return {
    kind: 'points',
    p0Pa,
    bPaSM3: (curve.bPaSM3 * lift) / flow,
    cPaS2M6: (curve.cPaS2M6 * lift) / flow ** 2,
    rangeM3s: [low * flow, qMaxM3s],
  };
};

const lineOf = (air: Extract<StageAir, { form: 'line' }>, boreM: number, lengthM: number): Element => ({
  kind: 'line',
  boreM,
  lengthM,
  friction: air.friction,
  entryK: air.entryK,
  exitK: air.exitK,
});

const elementOf = (air: StageAir, model: MachineModel, hose: PathState['hose']): Result<Element> => {
  switch (air.form) {
    case 'none':
      return ok(OPEN_PLACE);
    case 'medium': {
      const k1PaSM = air.k1PaSM ?? MEDIA[air.medium].k1.value;
      const one: Element = { kind: 'medium', k1PaSM, k2PaSMKg: 0, areaM2: air.areaM2, dustKg: 0 };
      if (air.inParallel <= 1) return ok(one);
      return ok({ kind: 'parallel', ways: Array.from({ length: air.inParallel }, () => [one]) });
    }
    case 'fitting':
      return ok({ kind: 'fitting', lossK: air.lossK, boreM: air.boreM });
    case 'nozzle':
      return ok({ kind: 'nozzle', areaM2: air.areaM2, coefficient: air.coefficient });
    case 'cyclone':
      return ok({ kind: 'cyclone', lossK: air.lossK, inletAreaM2: air.inletAreaM2 });
    case 'wye':
      return ok({ kind: 'fitting', lossK: air.lossK, boreM: air.boreM });
    case 'line': {
      const own = air.boreM !== null && air.lengthM !== null;
      const bore = own ? air.boreM : (hose?.boreM ?? air.boreM ?? model.hoseBoreM);
      const length = own ? air.lengthM : (hose?.lengthM ?? air.lengthM ?? model.hoseLengthM);
      return bore === null || length === null
        ? fail(failure('path.bore', 'boreM', { field: 'boreM', value: 0, low: 0.001, high: 5 }))
        : ok(lineOf(air, bore, length));
    }
    case 'fan':
      return ok(OPEN_PLACE);
  }
};

const stateElement = (clean: Element, state: StageState): Element => {
  if (state.removed) return OPEN_PLACE;
  const blocked = state.blockFactor === 1 ? clean : scaleElement(clean, state.blockFactor);
  if (state.loadPaSM3 === 0) return blocked;
  // Dust in a stage is a resistance of its own, in series with the clean one: the K2 w of the drag model.
  const load: Element = { kind: 'resistance', r1PaSM3: state.loadPaSM3, r2PaS2M6: 0 };
  return { kind: 'series', parts: [blocked, load] };
};

const stageElement = (
  model: MachineModel,
  position: number,
  context: { parameters: PathParameters; state: PathState },
): Result<Element> => {
  const stage = model.stages[position];
  if (!stage) return fail(failure('path.node', '', { node: position, most: model.stages.length - 1 }));
  if (stage.kind === 'fan') {
    const curve = FAN_OF(stage);
    return curve
      ? ok({ kind: 'fan', curve: fanWith(curve, context.parameters) })
      : fail(failure('path.fan', 'curve', { value: 0 }));
  }
  const state = context.state.stages[position] ?? CLEAN;
  if (stage.missing) return ok(OPEN_PLACE);
  const element = elementOf(stage.spec.air, model, context.state.hose);
  return element.ok ? ok(stateElement(scaleElement(element.value, context.parameters.pathScale), state)) : element;
};

/** Where the ways join: the position of the Y; 0 without one, when everything is trunk. Definition: the lay-out of a Y. Total. */
export const trunkStart = (model: MachineModel): number =>
  Math.max(
    0,
    model.stages.findIndex((s) => s.kind === 'wye'),
  );

/** The node where a seal in good order still leaks: before the last filter on the suction side, else before the fan. Choice: a Moorwind default, a modelling choice. Total. */
export const sealNode = (model: MachineModel): number => {
  const fan = model.stages.findIndex((s) => s.kind === 'fan');
  const media = model.stages.slice(0, Math.max(fan, 0)).findLastIndex((s) => s.spec.air.form === 'medium');
  return Math.max(media, 0) || Math.max(fan, 0);
};

const leaksOf = (model: MachineModel, parameters: PathParameters, state: PathState): readonly number[] => {
  const seal = sealNode(model);
  return Array.from(
    { length: model.stages.length + 1 },
    (_, node) => (node === seal ? parameters.leakM2 : 0) + (state.leaksM2[node] ?? 0),
  );
};

const waysOf = (model: MachineModel): number => {
  const air = model.stages.find((s) => s.kind === 'wye')?.spec.air;
  return air?.form === 'wye' ? air.ways : 2;
};

/** The second way of a Y with a hose of its own; null where it is like the first. */
const secondWay = (
  model: MachineModel,
  from: number,
  { parameters, state }: { readonly parameters: PathParameters; readonly state: PathState },
): readonly Element[] | null => {
  if (state.secondHose === undefined) return null;
  const context = { parameters, state: { ...state, hose: state.secondHose } };
  return Array.from({ length: from }, (_, i) => stageElement(model, i, context)).flatMap((e) =>
    e.ok ? [e.value] : [],
  );
};

/**
 * The air path of a machine: its stages with their defaults, scaled as calibrated, in the state asked for. Everything
 * before a Y is one way and is there as many times as the Y has ways. Returns what is wrong by name and stage.
 */
export const airPathOf = (model: MachineModel, parameters: PathParameters, state: PathState): Result<AirPath> => {
  if (model.stages.length === 0) return fail(failure('path.empty'));
  const elements = model.stages.map((_, i) => at(`stages.${i}`, stageElement(model, i, { parameters, state })));
  const failures = elements.flatMap((e) => (e.ok ? [] : e.failures));
  if (failures.length > 0) return fail(...failures);
  const all = elements.flatMap((e) => (e.ok ? [e.value] : []));
  const leaks = leaksOf(model, parameters, state);
  const from = trunkStart(model);
  const wayOf = (wayElements: readonly Element[]): Chain => ({
    elements: wayElements,
    leaksM2: leaks.slice(0, from + 1).map((a, i) => (i === from ? 0 : a)),
  });
  const way = wayOf(all.slice(0, from));
  const second = secondWay(model, from, { parameters, state });
  return ok({
    mouths:
      from === 0 ? [] : Array.from({ length: waysOf(model) }, (_, i) => (i === 1 && second ? wayOf(second) : way)),
    trunk: { elements: all.slice(from), leaksM2: leaks.slice(from) },
    drive: state.drive,
    air: state.air,
  });
};
