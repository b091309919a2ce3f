import { isPartStage, type PartStage, type StageKind } from '../path/stage-kinds';
import type { PartWay } from './part-ways';

/** The machine kinds of the trade, with typical figures for a new record. */
export const MACHINE_KIND_NAMES = [
  'shopVacuum',
  'mExtractor',
  'hExtractor',
  'hepaTank',
  'grinderExtractor',
  'pneumaticHepa',
  'singleStageCollector',
  'cycloneCollector',
  'fumeExtractor',
  'floorCleaner',
  'centralUnit',
] as const;
export type MachineKind = (typeof MACHINE_KIND_NAMES)[number];

/** The feed of a machine; it is shut before hands go in. */
export const FEEDS = ['plug', 'breaker', 'air'] as const;
export type Feed = (typeof FEEDS)[number];

/** A light or sound of a machine, by what turns it on. */
export const LIGHTS = ['lowFlow', 'stack', 'clog'] as const;
export type Light = (typeof LIGHTS)[number];

/** Lights and gauges of a machine. */
export interface Shown {
  /** null: it has no light. */
  readonly light: Light | null;
  /** Stages whose state the light shows. */
  readonly lightOf: readonly PartStage[];
  /** Built with a gauge across its filters; another kind has one only where a stage's record says so. */
  readonly gauge: boolean;
}

/** The space where loose dust lies beside what the parts hold. */
export const VESSELS = [
  'drum',
  'container',
  'tank',
  'chamber',
  'cycloneBody',
  'ringBody',
  'stackBox',
  'body',
  'can',
] as const;
export type Vessel = (typeof VESSELS)[number];

/** The purpose of a machine. */
export const USES = ['dust', 'fume', 'floors'] as const;
export type MachineUse = (typeof USES)[number];

/** Every fact about a kind of machine. A new kind that leaves one out does not compile. */
export interface MachineKindFacts {
  /** Without a class word: the class is the tested appliance's, and a missing stage withdraws it. */
  /** Its name after its class: "M class extractor". */
  readonly label: string;
  /** Its name in a list to choose from, where no class is beside it. */
  readonly chosenAs: string;
  /** Typical free flow, m3/s, low and high end. */
  readonly flowM3s: readonly [number, number];
  /** Typical sealed suction, Pa, low and high end. */
  readonly suctionPa: readonly [number, number];
  /** Bore of the hose or duct a new record begins with, m. */
  readonly hoseM: number;
  /** The air velocity in the fitted hose must stay above the class limit (M and H machines). */
  readonly hoseVelocityLimit: boolean;
  readonly feed: Feed;
  /** What leads from the tool to the machine. */
  readonly line: 'hose' | 'duct';
  /** A collector blows or draws through ducts and carries no dust class. */
  readonly collector: boolean;
  readonly fan: 'universal' | 'centrifugal' | 'pneumatic';
  readonly use: MachineUse;
  readonly shows: Shown;
  readonly vessel: Vessel;
  /** Its hose has a selector that must match the bore. */
  readonly selector: boolean;
  /** Its inlets close by themselves when a tool comes off. */
  readonly inletsClose: boolean;
  /** Fine dust that burns collects here: embers are looked for before it is opened. */
  readonly emberLook: boolean;
  /** A brush roll that hair wraps round. */
  readonly brushRoll: boolean;
  /** Its own cleaning of a filter in its place, by stage; empty where it has none. */
  readonly pulses: readonly PartStage[];
  /** Local exhaust ventilation that a competent person examines. */
  readonly exhaustVentilation: boolean;
  /** The stages of a new machine, tool to room. */
  readonly path: readonly StageKind[];
  /** How each part that it could have sits in it. */
  readonly parts: Readonly<Record<PartStage, PartWay>>;
}

const L = 1e-3;
const K = 1e3;
const litres = (low: number, high: number): readonly [number, number] => [low * L, high * L];
const kilopascals = (low: number, high: number): readonly [number, number] => [low * K, high * K];

const NOTHING_SHOWN: Shown = { light: null, lightOf: [], gauge: false };

/** Parts of a small machine with a lid: an own bag and main filter come first. */
const underLid = (bag: PartWay, mainFilter: PartWay): MachineKindFacts['parts'] => ({
  bag,
  cyclone: 'bin',
  dropChamber: 'liner',
  foam: 'slide',
  cloth: 'slide',
  prefilter: 'slide',
  mainFilter,
  canister: 'cartridge',
  hepa: 'cartridge',
  gas: 'slide',
  exhaustFilter: 'slide',
});

const COLLECTOR_PARTS: MachineKindFacts['parts'] = {
  bag: 'lowerBag',
  cyclone: 'bin',
  dropChamber: 'liner',
  foam: 'slide',
  cloth: 'onRing',
  prefilter: 'slide',
  mainFilter: 'cartridge',
  canister: 'onRing',
  hepa: 'cartridge',
  gas: 'slide',
  exhaustFilter: 'slide',
};

/**
 * Typical figures in m3/s, Pa and m, and how each kind is built. Source: figures are Moorwind defaults for a new record, a
 * modelling choice, editable; how a kind is built: handbook of the trade, sections 2 and 20, common practice, no published
 * source.
 */
export const MACHINE_KINDS: Record<MachineKind, MachineKindFacts> = {
  shopVacuum: {
    label: 'shop vacuum',
    chosenAs: 'shop vacuum',
    flowM3s: litres(40, 95),
    suctionPa: kilopascals(12, 22),
    hoseM: 0.036,
    hoseVelocityLimit: false,
    feed: 'plug',
    line: 'hose',
    collector: false,
    fan: 'universal',
    use: 'dust',
    shows: NOTHING_SHOWN,
    vessel: 'drum',
    selector: false,
    inletsClose: false,
    emberLook: false,
    brushRoll: false,
    pulses: [],
    exhaustVentilation: false,
    path: ['nozzle', 'hose', 'inlet', 'bag', 'mainFilter', 'fan', 'exhaust'],
    parts: underLid('collarBag', 'cartridge'),
  },
  mExtractor: {
    label: 'extractor',
    chosenAs: 'M class extractor',
    flowM3s: litres(45, 75),
    suctionPa: kilopascals(20, 26),
    hoseM: 0.036,
    hoseVelocityLimit: true,
    feed: 'plug',
    line: 'hose',
    collector: false,
    fan: 'universal',
    use: 'dust',
    shows: { light: 'lowFlow', lightOf: ['bag', 'mainFilter'], gauge: false },
    vessel: 'drum',
    selector: true,
    inletsClose: false,
    emberLook: false,
    brushRoll: false,
    pulses: ['mainFilter'],
    exhaustVentilation: true,
    path: ['shroud', 'hose', 'inlet', 'bag', 'mainFilter', 'fan', 'exhaust'],
    parts: underLid('collarBag', 'framed'),
  },
  hExtractor: {
    label: 'extractor',
    chosenAs: 'H class extractor',
    flowM3s: litres(45, 65),
    suctionPa: kilopascals(20, 26),
    hoseM: 0.036,
    hoseVelocityLimit: true,
    feed: 'plug',
    line: 'hose',
    collector: false,
    fan: 'universal',
    use: 'dust',
    shows: { light: 'lowFlow', lightOf: ['bag', 'mainFilter'], gauge: false },
    vessel: 'container',
    selector: true,
    inletsClose: false,
    emberLook: false,
    brushRoll: false,
    pulses: [],
    exhaustVentilation: true,
    path: ['shroud', 'hose', 'inlet', 'bag', 'mainFilter', 'fan', 'exhaust'],
    parts: underLid('safetyBag', 'bolted'),
  },
  hepaTank: {
    label: 'tank vacuum',
    chosenAs: 'HEPA tank vacuum',
    flowM3s: litres(40, 55),
    suctionPa: kilopascals(20, 24),
    hoseM: 0.036,
    hoseVelocityLimit: false,
    feed: 'plug',
    line: 'hose',
    collector: false,
    fan: 'universal',
    use: 'dust',
    shows: NOTHING_SHOWN,
    vessel: 'tank',
    selector: false,
    inletsClose: false,
    emberLook: false,
    brushRoll: false,
    pulses: [],
    exhaustVentilation: true,
    path: ['nozzle', 'hose', 'inlet', 'bag', 'prefilter', 'hepa', 'fan', 'exhaust'],
    parts: { ...underLid('tankBag', 'cartridge'), prefilter: 'wrap', hepa: 'screwed' },
  },
  grinderExtractor: {
    label: 'grinder extractor',
    chosenAs: 'grinder extractor',
    flowM3s: litres(90, 140),
    suctionPa: kilopascals(20, 24),
    hoseM: 0.05,
    hoseVelocityLimit: false,
    feed: 'plug',
    line: 'hose',
    collector: false,
    fan: 'universal',
    use: 'dust',
    shows: { light: null, lightOf: [], gauge: true },
    vessel: 'chamber',
    selector: false,
    inletsClose: false,
    emberLook: false,
    brushRoll: false,
    pulses: ['prefilter'],
    exhaustVentilation: true,
    path: ['shroud', 'wye', 'hose', 'inlet', 'dropChamber', 'prefilter', 'hepa', 'fan', 'exhaust'],
    parts: { ...underLid('collarBag', 'cartridge'), prefilter: 'cone', hepa: 'stacked' },
  },
  pneumaticHepa: {
    label: 'pneumatic vacuum',
    chosenAs: 'pneumatic vacuum',
    flowM3s: litres(50, 90),
    suctionPa: kilopascals(15, 25),
    hoseM: 0.036,
    hoseVelocityLimit: false,
    feed: 'air',
    line: 'hose',
    collector: false,
    fan: 'pneumatic',
    use: 'dust',
    shows: { light: null, lightOf: [], gauge: true },
    vessel: 'cycloneBody',
    selector: false,
    inletsClose: true,
    emberLook: false,
    brushRoll: false,
    pulses: [],
    exhaustVentilation: true,
    path: ['shroud', 'hose', 'inlet', 'cyclone', 'bag', 'prefilter', 'hepa', 'fan', 'exhaust'],
    parts: { ...underLid('filterBag', 'cartridge'), cyclone: 'cycloneBag', prefilter: 'stacked', hepa: 'stacked' },
  },
  singleStageCollector: {
    label: 'single-stage dust collector',
    chosenAs: 'single-stage dust collector',
    flowM3s: litres(200, 600),
    suctionPa: kilopascals(1.5, 3),
    hoseM: 0.125,
    hoseVelocityLimit: false,
    feed: 'breaker',
    line: 'duct',
    collector: true,
    fan: 'centrifugal',
    use: 'dust',
    shows: NOTHING_SHOWN,
    vessel: 'ringBody',
    selector: false,
    inletsClose: false,
    emberLook: true,
    brushRoll: false,
    pulses: [],
    exhaustVentilation: true,
    path: ['hood', 'duct', 'fan', 'ring', 'bag', 'canister', 'exhaust'],
    parts: COLLECTOR_PARTS,
  },
  cycloneCollector: {
    label: 'two-stage collector',
    chosenAs: 'two-stage collector',
    flowM3s: litres(250, 800),
    suctionPa: kilopascals(2, 4),
    hoseM: 0.15,
    hoseVelocityLimit: false,
    feed: 'breaker',
    line: 'duct',
    collector: true,
    fan: 'centrifugal',
    use: 'dust',
    shows: NOTHING_SHOWN,
    vessel: 'cycloneBody',
    selector: false,
    inletsClose: false,
    emberLook: true,
    brushRoll: false,
    pulses: [],
    exhaustVentilation: true,
    path: ['hood', 'duct', 'cyclone', 'fan', 'canister', 'exhaust'],
    parts: COLLECTOR_PARTS,
  },
  fumeExtractor: {
    label: 'bench fume extractor',
    chosenAs: 'bench fume extractor',
    flowM3s: litres(25, 100),
    suctionPa: kilopascals(1, 5),
    hoseM: 0.05,
    hoseVelocityLimit: false,
    feed: 'plug',
    line: 'hose',
    collector: false,
    fan: 'centrifugal',
    use: 'fume',
    shows: { light: 'stack', lightOf: ['prefilter', 'hepa', 'gas'], gauge: false },
    vessel: 'stackBox',
    selector: false,
    inletsClose: false,
    emberLook: false,
    brushRoll: false,
    pulses: [],
    exhaustVentilation: true,
    path: ['hood', 'hose', 'prefilter', 'hepa', 'gas', 'fan', 'exhaust'],
    parts: { ...underLid('collarBag', 'stacked'), prefilter: 'stacked', hepa: 'stacked', gas: 'gasCell' },
  },
  floorCleaner: {
    label: 'floor cleaner',
    chosenAs: 'floor cleaner',
    flowM3s: litres(25, 55),
    suctionPa: kilopascals(16, 25),
    hoseM: 0.032,
    hoseVelocityLimit: false,
    feed: 'plug',
    line: 'hose',
    collector: false,
    fan: 'universal',
    use: 'floors',
    shows: { light: 'clog', lightOf: ['bag'], gauge: false },
    vessel: 'body',
    selector: false,
    inletsClose: false,
    emberLook: false,
    brushRoll: true,
    pulses: [],
    exhaustVentilation: false,
    path: ['nozzle', 'hose', 'bag', 'prefilter', 'fan', 'exhaustFilter', 'exhaust'],
    parts: underLid('collarBag', 'slide'),
  },
  centralUnit: {
    label: 'central unit',
    chosenAs: 'central unit',
    flowM3s: litres(45, 65),
    suctionPa: kilopascals(25, 35),
    hoseM: 0.05,
    hoseVelocityLimit: false,
    feed: 'breaker',
    line: 'hose',
    collector: false,
    fan: 'universal',
    use: 'dust',
    shows: NOTHING_SHOWN,
    vessel: 'can',
    selector: false,
    inletsClose: true,
    emberLook: false,
    brushRoll: false,
    pulses: [],
    exhaustVentilation: false,
    path: ['inlet', 'duct', 'bag', 'fan', 'muffler', 'exhaust'],
    parts: underLid('canBag', 'slide'),
  },
};

/** How the part of a stage sits in a machine; null for a stage that holds no part. Source: `MACHINE_KINDS`. */
export const wayOf = (machine: { readonly kind: MachineKind }, stage: { readonly kind: StageKind }): PartWay | null =>
  isPartStage(stage.kind) ? MACHINE_KINDS[machine.kind].parts[stage.kind] : null;
