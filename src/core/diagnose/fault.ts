import type { MachineModel, ModelStage } from '../path/machine-path';
import { sealNode } from '../path/machine-path';

/** What can be wrong. Source: common practice, no published source. */
export type FaultKind =
  | 'blocked'
  | 'missing'
  | 'torn'
  | 'misseated'
  | 'reversed'
  | 'leakingSeal'
  | 'hoseHoled'
  | 'weakFan'
  | 'bearings'
  | 'lowVoltage'
  | 'lowSupply'
  | 'wrongSetting'
  | 'wrongSelector'
  | 'brushJammed'
  | 'indicatorOut'
  | 'spentGas';

/** One fault at its stage, this severe. */
export interface Fault {
  readonly kind: FaultKind;
  /** Stage it sits at; of the whole machine it is the fan's. */
  readonly position: number;
  /** 0 to 1, in the fault's own scale. */
  readonly severity: number;
}

/** A fault at a stage with the severities it is thought in and how common it is against the others. */
export interface FaultPlace {
  readonly kind: FaultKind;
  readonly position: number;
  readonly severities: readonly number[];
  /** Relative frequency before anything is known. A Moorwind default, a modelling choice. */
  readonly weight: number;
}

/** What a machine has besides its path. */
export interface MachineTraits {
  readonly hasLamp: boolean;
  readonly hasBrush: boolean;
  readonly selectorM: number | null;
}

/** As fine for pairs as for single faults, and finer where the flow falls faster: a coarse grid starves what lies between. */
const FINE = [0.2, 0.4, 0.54, 0.65, 0.74, 0.82, 0.89, 0.95] as const;
const ONCE = [1] as const;

const ofMedium = (stage: ModelStage, position: number): readonly FaultPlace[] => {
  if (stage.kind === 'gas') return [{ kind: 'spentGas', position, severities: ONCE, weight: 0.6 }, { kind: 'blocked', position, severities: FINE, weight: 0.3 }];
  const bag = stage.kind === 'bag';
  return [
    { kind: 'blocked', position, severities: FINE, weight: bag ? 4 : stage.kind === 'hepa' ? 1.2 : 2.5 },
    { kind: 'missing', position, severities: ONCE, weight: 0.25 },
    { kind: 'torn', position, severities: [0.3, 0.8], weight: bag ? 0.6 : 0.35 },
    { kind: 'misseated', position, severities: [0.3, 0.8], weight: bag ? 1 : 0.6 },
    ...(stage.spec.fit.orientation === 'unmarked' ? [] : [{ kind: 'reversed' as const, position, severities: ONCE, weight: 0.1 }]),
  ];
};

const ofStage = (stage: ModelStage, position: number): readonly FaultPlace[] => {
  if (stage.missing) return [];
  if (stage.spec.air.form === 'medium') return ofMedium(stage, position);
  if (stage.kind === 'hose' || stage.kind === 'duct') {
    return [
      { kind: 'blocked', position, severities: FINE, weight: 2.5 },
      { kind: 'hoseHoled', position, severities: FINE, weight: 0.8 },
    ];
  }
  const mouth = stage.kind === 'nozzle' || stage.kind === 'shroud' || stage.kind === 'hood';
  return mouth || stage.kind === 'inlet' || stage.kind === 'cyclone' ? [{ kind: 'blocked', position, severities: FINE, weight: mouth ? 1.8 : 0.5 }] : [];
};

const ofFan = (model: MachineModel, position: number): readonly FaultPlace[] => {
  const curve = model.stages[position]?.spec.air;
  const kind = curve?.form === 'fan' ? curve.curve.kind : 'universal';
  return [
    { kind: 'weakFan', position, severities: FINE, weight: 0.8 },
    { kind: 'bearings', position, severities: ONCE, weight: 0.3 },
    { kind: 'wrongSetting', position, severities: [0.3, 0.7], weight: 1 },
    ...(kind === 'universal' ? [{ kind: 'lowVoltage' as const, position, severities: [0.3, 0.6, 0.9], weight: 0.4 }] : []),
    ...(kind === 'pneumatic' ? [{ kind: 'lowSupply' as const, position, severities: FINE, weight: 1.5 }] : []),
  ];
};

/** Every fault a machine's own path can have. Source: common practice, no published source; weights are Moorwind defaults. */
export const faultPlaces = (model: MachineModel, traits: MachineTraits): readonly FaultPlace[] => {
  const fan = model.stages.findIndex((s) => s.kind === 'fan');
  const gauged = model.stages.some((s) => s.spec.fit.gaugePa !== null);
  return [
    ...model.stages.flatMap(ofStage),
    { kind: 'leakingSeal', position: sealNode(model), severities: FINE, weight: 0.9 },
    ...ofFan(model, fan),
    ...(traits.selectorM === null ? [] : [{ kind: 'wrongSelector' as const, position: fan, severities: ONCE, weight: 0.5 }]),
    ...(traits.hasLamp || gauged ? [{ kind: 'indicatorOut' as const, position: fan, severities: ONCE, weight: 0.5 }] : []),
    ...(traits.hasBrush ? [{ kind: 'brushJammed' as const, position: 0, severities: ONCE, weight: 1 }] : []),
  ];
};

/** Faults that let dust past: silent to every reading of flow. */
export const SILENT: ReadonlySet<FaultKind> = new Set<FaultKind>(['torn', 'misseated', 'missing', 'spentGas', 'reversed']);

