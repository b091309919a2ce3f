import { CORRUGATED_FRICTION, DUCT_ROUGHNESS, ENTRY_K, EXIT_K } from '../constants/path';
import type { Medium } from '../constants/media';
import type { FilterRating } from '../filter/rating';
import { MACHINE_KINDS, type MachineKind } from './kinds';
import type { FanCurve } from '../path/model/fan';
import type { StageKind } from '../path/stage-kinds';
import type { StageAir, StageFit, StageSpec } from '../path/stage-spec';

// Every figure here is a Moorwind default for a new record, a modelling choice, editable in the machine editor.

const NO_RATING: FilterRating = { scale: 'none' };
const fit = (over: Partial<StageFit> = {}): StageFit => ({
  orientation: 'unmarked',
  seals: 0,
  bypass: 0,
  rating: NO_RATING,
  foreign: false,
  gaugePa: null,
  ...over,
});

const medium = (name: Medium, areaM2: number, over: Partial<StageFit> = {}): StageSpec => ({
  air: { form: 'medium', medium: name, areaM2, k1PaSM: null, inParallel: 1 },
  fit: fit({ seals: 1, bypass: 0.005, ...over }),
});

const passage = (air: StageAir): StageSpec => ({ air, fit: fit() });
const fitting = (lossK: number, boreM: number): StageSpec => passage({ form: 'fitting', lossK, boreM });

const hose = passage({
  form: 'line',
  boreM: null,
  lengthM: null,
  friction: { by: 'factor', factor: CORRUGATED_FRICTION.value },
  entryK: ENTRY_K.value,
  exitK: EXIT_K.value,
});
const duct = passage({
  form: 'line',
  boreM: null,
  lengthM: null,
  friction: { by: 'roughness', roughnessM: DUCT_ROUGHNESS.value },
  entryK: ENTRY_K.value,
  exitK: EXIT_K.value,
});

/** H13 holds 99.97 % at 0.3 um with something to spare for the seat. */
const HEPA_USUAL: FilterRating = { scale: 'en1822', grade: 'H13' };

/** Above the typical free flow through hose and filters, the bare fan moves about this much more. */
const FAN_OVER_MACHINE = 1.25;
const UNIVERSAL_A = 0.85;
const NOMINAL_SUPPLY_PA = 6.2e5;

/** The fan of a new record: its lift in the middle of the kind's typical suction, its flow above the typical free flow. */
export const fanTemplate = (kind: MachineKind): FanCurve => {
  const { flowM3s, suctionPa, fan } = MACHINE_KINDS[kind];
  const p0Pa = (suctionPa[0] + suctionPa[1]) / 2;
  const qMaxM3s = (FAN_OVER_MACHINE * (flowM3s[0] + flowM3s[1])) / 2;
  switch (fan) {
    case 'pneumatic':
      return { kind: 'pneumatic', p0Pa, qMaxM3s, nominalSupplyPa: NOMINAL_SUPPLY_PA };
    case 'centrifugal':
      return { kind: 'centrifugal', p0Pa, qMaxM3s };
    case 'universal':
      return { kind: 'universal', p0Pa, qMaxM3s, a: UNIVERSAL_A };
  }
};

const hMain = medium('hepaGlass', 0.9, {
  orientation: 'withFlow',
  seals: 1,
  bypass: 1e-6,
  rating: { scale: 'en1822', grade: 'H14' },
});

/** How a stage of a kind sits on a machine that has nothing special there. */
export const GENERAL_STAGE: Record<StageKind, StageSpec> = {
  nozzle: passage({ form: 'nozzle', areaM2: 9e-4, coefficient: 0.75 }),
  shroud: passage({ form: 'nozzle', areaM2: 7e-4, coefficient: 0.75 }),
  hood: passage({ form: 'nozzle', areaM2: 0.02, coefficient: 0.8 }),
  wye: passage({ form: 'wye', ways: 2, lossK: 0.6, boreM: 0.05 }),
  hose,
  duct,
  inlet: fitting(0.5, 0.04),
  ring: fitting(0.5, 0.1),
  cyclone: passage({ form: 'cyclone', lossK: 6, inletAreaM2: 0.00126 }),
  dropChamber: fitting(1, 0.05),
  bag: medium('fleeceBag', 0.25, { bypass: 0.01 }),
  foam: medium('foam', 0.1, { bypass: 0.01 }),
  cloth: medium('clothBag', 0.2, { bypass: 0.005 }),
  prefilter: medium('fineDustFleece', 0.2, { bypass: 0.01 }),
  mainFilter: medium('pleatedPolyester', 0.5, { orientation: 'unmarked', bypass: 0.0005 }),
  canister: medium('pleatedPolyester', 4, { bypass: 0.002 }),
  hepa: medium('hepaGlass', 0.9, { orientation: 'withFlow', bypass: 0.00005, rating: HEPA_USUAL }),
  gas: medium('carbonBed', 0.1, { orientation: 'withFlow', bypass: 0.01 }),
  fan: passage({ form: 'none' }),
  exhaustFilter: medium('foam', 0.05, { bypass: 0.05 }),
  muffler: fitting(1.5, 0.05),
  exhaust: fitting(1, 0.05),
};

type StageSpecs = Readonly<Record<StageKind, StageSpec>>;

const WITH_DUCTS: StageSpecs = {
  ...GENERAL_STAGE,
  inlet: fitting(0.3, 0.125),
  ring: fitting(0.5, 0.125),
  bag: { air: { form: 'none' }, fit: fit({ seals: 1 }) },
  cloth: medium('clothBag', 2, { bypass: 0.002 }),
  canister: medium('pleatedPolyester', 8, { bypass: 0.002 }),
  exhaust: fitting(1, 0.2),
  cyclone: passage({ form: 'cyclone', lossK: 6, inletAreaM2: 0.0123 }),
};

/** Where the stages of a kind differ from those of a machine that has nothing special there. */
const STAGES_OF: Readonly<Record<MachineKind, StageSpecs>> = {
  shopVacuum: { ...GENERAL_STAGE, bag: medium('paperBag', 0.25, { bypass: 0.02 }) },
  mExtractor: {
    ...GENERAL_STAGE,
    mainFilter: medium('pleatedPolyester', 0.5, {
      bypass: 0.0002,
      rating: { scale: 'point', efficiency: 0.9998, sizeUm: 0.3 },
    }),
  },
  hExtractor: {
    ...GENERAL_STAGE,
    bag: medium('fleeceBag', 0.25, { seals: 2, bypass: 0.002, rating: { scale: 'merv', merv: 13 } }),
    mainFilter: hMain,
  },
  hepaTank: GENERAL_STAGE,
  grinderExtractor: GENERAL_STAGE,
  pneumaticHepa: GENERAL_STAGE,
  singleStageCollector: WITH_DUCTS,
  cycloneCollector: WITH_DUCTS,
  fumeExtractor: {
    ...GENERAL_STAGE,
    prefilter: medium('pleatedPolyester', 0.4, { rating: { scale: 'merv', merv: 11 } }),
    hepa: medium('hepaGlass', 1.2, { orientation: 'withFlow', bypass: 0.0001, rating: HEPA_USUAL }),
  },
  floorCleaner: { ...GENERAL_STAGE, bag: medium('fleeceBag', 0.18, { bypass: 0.02 }) },
  centralUnit: GENERAL_STAGE,
};

/** How a stage of a kind resists the air, sits and is rated on a new record of a machine kind. */
export const stageTemplate = (kind: StageKind, machine: MachineKind): StageSpec =>
  kind === 'fan' ? passage({ form: 'fan', curve: fanTemplate(machine) }) : STAGES_OF[machine][kind];
