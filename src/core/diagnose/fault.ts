import type { MachineClass } from '../filter/machine-class';
import type { MachineModel, ModelStage } from '../path/machine-path';
import { sealNode } from '../path/machine-path';
import { gapOfPlace } from '../path/path-places';

/** Kinds of fault. Source: common practice, no published source. */
export const FAULT_KINDS = [
  'blocked',
  'missing',
  'torn',
  'misseated',
  'reversed',
  'leakingSeal',
  'hoseHoled',
  'weakFan',
  'bearings',
  'lowVoltage',
  'lowSupply',
  'wrongSetting',
  'wrongSelector',
  'brushJammed',
  'indicatorOut',
  'spentGas',
] as const;
export type FaultKind = (typeof FAULT_KINDS)[number];

/** One fault at its stage, this severe. */
export interface Fault {
  readonly kind: FaultKind;
  /** Stage it sits at; of the whole machine it is the fan's. */
  readonly position: number;
  /** Severity, 0 to 1: the share of the tool's flow it takes; for a dust leak, its size. */
  readonly severity: number;
  /** Where a leak lies, as a node of the path, when it is not the stage's own. */
  readonly node?: number;
}

/** A fault at a stage with the severities it is thought in and how common it is against the others. */
export interface FaultPlace {
  readonly kind: FaultKind;
  readonly position: number;
  readonly severities: readonly number[];
  /** Nodes where a leak may lie; one fault to the technician. null: the form without a leak, a speed turned down. */
  readonly nodes?: readonly (number | null)[];
  /** Relative frequency before anything is known. A Moorwind default, a modelling choice. */
  readonly weight: number;
}

/** Facts of a machine besides its path. */
export interface MachineTraits {
  readonly hasLamp: boolean;
  readonly hasBrush: boolean;
  readonly selectorM: number | null;
  /** What its maker tested it as; null for none. */
  readonly machineClass: MachineClass | null;
}

/** Share of the flow a fault costs by itself: as fine for pairs as for single faults, since a coarse grid starves what lies between. */
const LOSSES = [0.12, 0.25, 0.39, 0.53, 0.67, 0.8, 0.9, 0.97] as const;
const SUPPLY_LOSSES = [0.12, 0.25, 0.38, 0.5, 0.62] as const;
const VOLTAGE_LOSSES = [0.07, 0.14, 0.22] as const;
/** An induction motor keeps its speed on low voltage until it stalls: it slips a little more, and runs hot. */
const SLIP_LOSSES = [0.02, 0.05] as const;
const HALFWAY = [0.3, 0.8] as const;
const ONCE = [1] as const;

/** How often a fault is the cause, against a setting that is wrong. Moorwind defaults, after the order the trade looks in. */
const WEIGHTS = {
  blockedBag: 4,
  blockedFilter: 2.5,
  blockedHose: 2.5,
  blockedMouth: 1.8,
  lowSupply: 1.5,
  blockedHepa: 1.2,
  wrongSetting: 1,
  misseatedBag: 1,
  leakingSeal: 0.9,
  hoseHoled: 0.8,
  leakingRing: 0.8,
  weakFan: 0.8,
  misseatedFilter: 0.6,
  tornBag: 0.6,
  spentGas: 0.6,
  blockedInlet: 0.5,
  wrongSelector: 0.5,
  lowVoltage: 0.4,
  tornFilter: 0.35,
  blockedGas: 0.3,
  bearings: 0.3,
  missing: 0.25,
  reversed: 0.1,
} as const;

const ofMedium = (stage: ModelStage, position: number): readonly FaultPlace[] => {
  if (stage.kind === 'gas')
    return [
      { kind: 'spentGas', position, severities: ONCE, weight: WEIGHTS.spentGas },
      { kind: 'blocked', position, severities: LOSSES, weight: WEIGHTS.blockedGas },
    ];
  const bag = stage.kind === 'bag';
  return [
    {
      kind: 'blocked',
      position,
      severities: LOSSES,
      weight: bag ? WEIGHTS.blockedBag : stage.kind === 'hepa' ? WEIGHTS.blockedHepa : WEIGHTS.blockedFilter,
    },
    { kind: 'missing', position, severities: ONCE, weight: WEIGHTS.missing },
    { kind: 'torn', position, severities: HALFWAY, weight: bag ? WEIGHTS.tornBag : WEIGHTS.tornFilter },
    { kind: 'misseated', position, severities: HALFWAY, weight: bag ? WEIGHTS.misseatedBag : WEIGHTS.misseatedFilter },
    ...(stage.spec.fit.orientation === 'unmarked'
      ? []
      : [{ kind: 'reversed' as const, position, severities: ONCE, weight: WEIGHTS.reversed }]),
  ];
};

const ofStage = (stage: ModelStage, position: number): readonly FaultPlace[] => {
  if (stage.missing) return [];
  if (stage.spec.air.form === 'medium') return ofMedium(stage, position);
  if (stage.kind === 'hose' || stage.kind === 'duct') {
    return [
      { kind: 'blocked', position, severities: LOSSES, weight: WEIGHTS.blockedHose },
      {
        kind: 'hoseHoled',
        position,
        severities: LOSSES,
        nodes: position === 0 ? [1] : [position + 1, position],
        weight: WEIGHTS.hoseHoled,
      },
    ];
  }
  if (stage.kind === 'ring')
    return [{ kind: 'leakingSeal', position, severities: HALFWAY, weight: WEIGHTS.leakingRing }];
  const mouth = stage.kind === 'nozzle' || stage.kind === 'shroud' || stage.kind === 'hood';
  return mouth || stage.kind === 'inlet' || stage.kind === 'cyclone' || stage.kind === 'dropChamber'
    ? [{ kind: 'blocked', position, severities: LOSSES, weight: mouth ? WEIGHTS.blockedMouth : WEIGHTS.blockedInlet }]
    : [];
};

const ofFan = (model: MachineModel, position: number): readonly FaultPlace[] => {
  const curve = model.stages[position]?.spec.air;
  const kind = curve?.form === 'fan' ? curve.curve.kind : 'universal';
  return [
    { kind: 'weakFan', position, severities: LOSSES, weight: WEIGHTS.weakFan },
    { kind: 'bearings', position, severities: ONCE, weight: WEIGHTS.bearings },
    // A speed turned down, or a bleed left open behind the hose: air of the room instead of the tool's.
    {
      kind: 'wrongSetting',
      position,
      severities: LOSSES,
      nodes: [
        null,
        gapOfPlace(
          model.stages.map((s) => s.kind),
          'inlet',
        ),
      ],
      weight: WEIGHTS.wrongSetting,
    },
    ...(kind === 'universal'
      ? [{ kind: 'lowVoltage' as const, position, severities: VOLTAGE_LOSSES, weight: WEIGHTS.lowVoltage }]
      : []),
    ...(kind === 'centrifugal'
      ? [{ kind: 'lowVoltage' as const, position, severities: SLIP_LOSSES, weight: WEIGHTS.lowVoltage }]
      : []),
    ...(kind === 'pneumatic'
      ? [{ kind: 'lowSupply' as const, position, severities: SUPPLY_LOSSES, weight: WEIGHTS.lowSupply }]
      : []),
  ];
};

/** Every fault a machine's own path can have. Source: common practice, no published source; weights are Moorwind defaults. */
export const faultPlaces = (model: MachineModel, traits: MachineTraits): readonly FaultPlace[] => {
  const fan = model.stages.findIndex((s) => s.kind === 'fan');
  const seal = sealNode(model);
  const gauged = model.stages.some((s) => s.spec.fit.gaugePa !== null);
  return [
    ...model.stages.flatMap(ofStage),
    {
      kind: 'leakingSeal',
      position: seal,
      severities: LOSSES,
      nodes: seal > 1 ? [seal, seal - 1] : [seal],
      weight: WEIGHTS.leakingSeal,
    },
    ...ofFan(model, fan),
    ...(traits.selectorM === null
      ? []
      : [{ kind: 'wrongSelector' as const, position: fan, severities: ONCE, weight: WEIGHTS.wrongSelector }]),
    ...(traits.hasLamp || gauged
      ? [{ kind: 'indicatorOut' as const, position: fan, severities: ONCE, weight: WEIGHTS.wrongSelector }]
      : []),
    ...(traits.hasBrush ? [{ kind: 'brushJammed' as const, position: 0, severities: ONCE, weight: 1 }] : []),
  ];
};

/** Behind the fan and in front of the filter a leak blows dust out. */
export const blowsOut = ({ stages }: MachineModel, position: number): boolean =>
  position > stages.findIndex((s) => s.kind === 'fan');

const SILENT: ReadonlySet<FaultKind> = new Set<FaultKind>(['torn', 'misseated', 'missing', 'spentGas', 'reversed']);

/** Faults that let dust past, or blow it out behind the fan: silent to every reading of flow. */
export const isSilent = ({ kind, position }: Pick<Fault, 'kind' | 'position'>, model: MachineModel): boolean =>
  SILENT.has(kind) || (kind === 'leakingSeal' && blowsOut(model, position));

/** Faults a machine lives with: they change no flow at the tool and let no dust past. */
export const isHarmless = ({ kind }: Pick<Fault, 'kind'>): boolean =>
  kind === 'bearings' || kind === 'indicatorOut' || kind === 'wrongSelector';
