import { calibrate } from '@/core/calibrate/calibrate';
import type { Observation } from '@/core/calibrate/observation';
import type { MachineKind } from '@/core/machine/kinds';
import { type Place } from '@/core/measure/place';
import { gapOfPlace } from '@/core/path/path-places';
import {
  CLEAN,
  fanCurveOf,
  type MachineModel,
  type PathParameters,
  type PathState,
  sealNode,
} from '@/core/path/machine-path';
import type { FanCurve } from '@/core/path/model/fan';
import { type Entry, pressureProfile, templateParameters } from '@/core/path/pressure-profile';
import type { Random } from '../../../demo/random';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

/** A made-up machine as it really is. Its ranges, its fan and its noise are its own: the engine sees baselines only. */
export interface TrueMachine {
  readonly kind: MachineKind;
  readonly model: MachineModel;
  readonly state: PathState;
  readonly parameters: PathParameters;
  /** What the engine is given. */
  readonly known: {
    readonly model: MachineModel;
    readonly parameters: PathParameters;
    readonly calibrated: boolean;
    readonly baselines: Readonly<Record<string, number>>;
  };
}

export type Spot = Exclude<Place, 'outlet'>;

const spread = (random: Random, share: number): number => Math.exp(share * random.normal());
export const between = (random: Random, low: number, high: number): number => low + (high - low) * random.uniform();
export const chance = (random: Random, p: number): boolean => random.uniform() < p;
export const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.min(list.length - 1, Math.floor(random.uniform() * list.length))] as T;

/** A fan of another shape than the engine's: lift = p0 - b Q - c Q^2 with its own bend. */
const ownFan = (random: Random, curve: FanCurve): FanCurve => {
  if (curve.kind === 'points') return curve;
  const p0Pa = curve.p0Pa * spread(random, 0.1);
  const qMax = curve.qMaxM3s * spread(random, 0.12);
  const straight =
    curve.kind === 'universal' || curve.kind === 'pneumatic' ? between(random, 0.6, 0.98) : between(random, 0.02, 0.25);
  return {
    kind: 'points',
    p0Pa,
    bPaSM3: (p0Pa * straight) / qMax,
    cPaS2M6: (p0Pa * (1 - straight)) / qMax ** 2,
    rangeM3s: [0, qMax],
  };
};

const ownModel = (random: Random, model: MachineModel): MachineModel => ({
  ...model,
  stages: model.stages.map((s) => {
    const { air } = s.spec;
    if (air.form === 'fan') return { ...s, spec: { ...s.spec, air: { ...air, curve: ownFan(random, air.curve) } } };
    if (air.form === 'medium')
      return { ...s, spec: { ...s.spec, air: { ...air, areaM2: air.areaM2 * spread(random, 0.2) } } };
    if (air.form === 'nozzle')
      return { ...s, spec: { ...s.spec, air: { ...air, areaM2: air.areaM2 * spread(random, 0.12) } } };
    return s;
  }),
});

export const entryAt = (model: MachineModel, spot: Spot, sealed: boolean): Entry => {
  const node = gapOfPlace(
    model.stages.map((s) => s.kind),
    spot,
  );
  if (sealed) return { at: 'node', opening: { node, state: 'drawn', flowM3s: 0 } };
  return spot === 'toolEnd' ? { at: 'use' } : { at: 'node', opening: { node, state: 'open' } };
};

export interface Standing {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly state: PathState;
}

export const trueFlow = (m: Standing, spot: Spot): number => {
  const s = pressureProfile({ ...m, entry: entryAt(m.model, spot, false) });
  return s.ok ? s.value.flowPerToolM3s : 0;
};
export const trueSealed = (m: Standing, spot: Spot): number => {
  const s = pressureProfile({ ...m, entry: entryAt(m.model, spot, true) });
  return s.ok
    ? -(
        s.value.nodesPa[
          gapOfPlace(
            m.model.stages.map((x) => x.kind),
            spot,
          )
        ] ?? 0
      )
    : 0;
};

const baseline = (random: Random, m: Standing): readonly Observation[] => {
  const common = { testId: null, state: CLEAN_STATE } as const;
  const flowAt = (spot: Spot): Observation => {
    const value = trueFlow(m, spot) * (1 + 0.02 * random.normal());
    return {
      ...common,
      label: spot,
      what: 'flow',
      entry: entryAt(m.model, spot, false),
      at: 'in',
      value,
      standardUncertainty: 0.025 * value,
      expanded: 0.05 * value,
    };
  };
  const suction = trueSealed(m, 'inlet') * (1 + 0.01 * random.normal());
  const node = gapOfPlace(
    m.model.stages.map((s) => s.kind),
    'inlet',
  );
  return [
    flowAt('inlet'),
    flowAt('toolEnd'),
    {
      ...common,
      label: 'sealed',
      what: 'suction',
      node,
      drawnM3s: 0,
      drawnUncertaintyM3s: 0,
      value: suction,
      standardUncertainty: 0.015 * suction,
      expanded: 0.03 * suction,
    },
  ];
};

/** What a stage's own dust of every day adds: nothing wrong with it. */
const everyday = (random: Random, model: MachineModel): PathState => {
  const stages = Object.fromEntries(
    model.stages.flatMap((s, i) => {
      if (s.spec.air.form !== 'medium') return [];
      const clean = 1500 / (s.spec.air.areaM2 * s.spec.air.inParallel);
      return [[i, { ...CLEAN, loadPaSM3: clean * between(random, 0, 0.35) }]];
    }),
  );
  return { ...CLEAN_STATE, stages };
};

const BORES: Partial<Record<MachineKind, number>> = {
  singleStageCollector: 0.125,
  cycloneCollector: 0.15,
  grinderExtractor: 0.05,
  centralUnit: 0.05,
  fumeExtractor: 0.08,
  shopVacuum: 0.04,
};

/** Makes a machine of a kind; null when its own baselines cannot be fitted (it is drawn again). */
export const trueMachine = (random: Random, kind: MachineKind): TrueMachine | null => {
  const machine = templateMachine(kind, { hoseLengthM: between(random, 2, 6), hoseBoreM: BORES[kind] ?? 0.036 });
  const gauged = {
    ...machine,
    stages: machine.stages.map((s) =>
      s.kind === 'hepa' && kind !== 'hepaTank'
        ? {
            ...s,
            spec: {
              ...s.spec,
              fit: { ...s.spec.fit, gaugePa: { amberPa: 1200, redPa: 2500, spans: 'unknown' as const } },
            },
          }
        : s,
    ),
  };
  const known = modelOf(gauged);
  const model = ownModel(random, known);
  const curve = fanCurveOf(model);
  if (!curve) return null;
  const parameters = templateParameters(model, between(random, 3e-6, 18e-6));
  const whole: Standing = { model, parameters, state: CLEAN_STATE };
  const read = baseline(random, whole);
  const fitted = calibrate(known, read);
  const [inlet, toolEnd, sealed] = read.map((o) => o.value);
  // A machine nobody measured yet, or whose baselines contradict: the engine works on typical figures.
  return {
    kind,
    model,
    parameters,
    state: everyday(random, model),
    known: {
      model: known,
      parameters: fitted.ok ? fitted.value.parameters : templateParameters(known, 12e-6),
      calibrated: fitted.ok,
      baselines: { 'flow inlet': inlet ?? 0, 'flow toolEnd': toolEnd ?? 0, 'sealed inlet': sealed ?? 0 },
    },
  };
};

export const sealAt = sealNode;
