/** The stages an air path is made of. */
export const STAGE_KIND_NAMES = [
  'nozzle',
  'shroud',
  'hood',
  'hose',
  'wye',
  'duct',
  'inlet',
  'ring',
  'cyclone',
  'dropChamber',
  'bag',
  'foam',
  'cloth',
  'prefilter',
  'mainFilter',
  'canister',
  'hepa',
  'gas',
  'fan',
  'exhaustFilter',
  'muffler',
  'exhaust',
] as const;
export type StageKind = (typeof STAGE_KIND_NAMES)[number];

/**
 * Where dust is in a stage after use. `part`: in a part that comes out. `hose`: inside a hose, which comes off whole.
 * `inside`: on walls that are cleaned in their place. `cleanSide`: none, as long as the filters before it held.
 */
export const DUST_PLACES = ['part', 'hose', 'inside', 'cleanSide'] as const;
export type DustPlace = (typeof DUST_PLACES)[number];

/** Stages that hold a part which can come out and go in. */
export const PART_STAGES = [
  'bag',
  'cyclone',
  'dropChamber',
  'foam',
  'cloth',
  'prefilter',
  'mainFilter',
  'canister',
  'hepa',
  'gas',
  'exhaustFilter',
] as const satisfies readonly StageKind[];
export type PartStage = (typeof PART_STAGES)[number];

/** Every fact about a kind of stage. A new kind that leaves one out does not compile. */
export interface StageKindFacts {
  readonly label: string;
  /** Holds dust back and is changed or cleaned. */
  readonly filters: boolean;
  /** Can be taken from stock and fitted. */
  readonly changeable: boolean;
  readonly dust: DustPlace;
  /** Fills, is looked at, and is changed within days. */
  readonly fills: boolean;
  /** Its change sets the rhythm of a machine. */
  readonly setsRhythm: boolean;
  /** Order from coarse to fine; null for what does not filter. */
  readonly fineness: number | null;
  /** Carries the class of a machine that has one. */
  readonly carriesClass: boolean;
  /** Keeps the dust from the room when no finer filter follows it. */
  readonly guardsRoom: boolean;
  /** Has a clean side that tells whether it let dust past. */
  readonly cleanSide: boolean;
  /** Minutes to change it, without opening and closing its machine. */
  readonly minutes: number;
  /** The price of its part, as minutes' worth. */
  readonly partMinutes: number;
  /** Days it usually lasts before anything is on record. */
  readonly usualDays: number;
  /** The word for the thing that is changed there, where it is another than the stage. */
  readonly carries: string;
}

type Worth = Pick<StageKindFacts, 'minutes' | 'partMinutes' | 'usualDays'>;
/** Moorwind defaults for a kind nothing is known of, modelling choices. */
const OTHER_WORTH: Worth = { minutes: 8, partMinutes: 12, usualDays: 180 };

type Placed<D extends DustPlace> = StageKindFacts & { readonly dust: D };

const passage = <D extends DustPlace>(label: string, dust: D, changeable = false): Placed<D> => ({
  label,
  filters: false,
  changeable,
  dust,
  fills: false,
  setsRhythm: false,
  fineness: null,
  carriesClass: false,
  guardsRoom: false,
  cleanSide: false,
  carries: '',
  ...OTHER_WORTH,
});

interface FilterOf extends Worth {
  readonly fineness: number | null;
  readonly carriesClass: boolean;
  readonly guardsRoom: boolean;
  readonly cleanSide: boolean;
}
const filter = (label: string, of: FilterOf): Placed<'part'> => ({
  ...passage(label, 'part', true),
  ...of,
  filters: true,
});

interface FilledOf extends Worth {
  readonly fineness: number;
  readonly changeable: boolean;
  readonly setsRhythm: boolean;
  readonly carries: string;
}
const filled = (label: string, of: FilledOf): Placed<'part'> => ({
  ...passage(label, 'part'),
  ...of,
  filters: true,
  fills: true,
});

const COARSE = { carriesClass: false, guardsRoom: false, cleanSide: false } as const;
const FINE = { carriesClass: true, guardsRoom: true, cleanSide: true } as const;
const ON_RING = { carriesClass: false, guardsRoom: true, cleanSide: true } as const;

/**
 * Facts of each kind. A muffler looks like a filter and is none. Minutes, worth and days are Moorwind defaults, modelling
 * choices. Source: handbook of the trade, sections 2, 8 and 20; common practice, no published source.
 */
export const STAGE_KINDS: {
  readonly [K in StageKind]: Placed<K extends PartStage ? 'part' : Exclude<DustPlace, 'part'>>;
} = {
  nozzle: passage('nozzle', 'inside'),
  shroud: passage('tool shroud', 'inside'),
  hood: passage('hood', 'inside'),
  hose: passage('hose', 'hose', true),
  duct: passage('duct', 'inside'),
  wye: passage('Y', 'inside'),
  inlet: passage('inlet', 'inside'),
  ring: passage('ring', 'inside'),
  cyclone: filled('cyclone', {
    fineness: 1,
    changeable: false,
    setsRhythm: true,
    carries: 'bag',
    minutes: 8,
    partMinutes: 12,
    usualDays: 18,
  }),
  dropChamber: filled('drop chamber', {
    fineness: 1,
    changeable: true,
    setsRhythm: false,
    carries: 'liner',
    minutes: 10,
    partMinutes: 12,
    usualDays: 60,
  }),
  bag: filled('bag', {
    fineness: 2,
    changeable: true,
    setsRhythm: true,
    carries: '',
    minutes: 6,
    partMinutes: 6,
    usualDays: 30,
  }),
  foam: filter('foam', { ...COARSE, fineness: 2, minutes: 8, partMinutes: 12, usualDays: 90 }),
  cloth: filter('cloth filter', { ...ON_RING, fineness: 2, minutes: 8, partMinutes: 12, usualDays: 240 }),
  prefilter: filter('pre-filter', { ...COARSE, fineness: 3, minutes: 6, partMinutes: 12, usualDays: 120 }),
  mainFilter: filter('main filter', { ...FINE, fineness: 4, minutes: 12, partMinutes: 30, usualDays: 365 }),
  canister: filter('canister', { ...ON_RING, fineness: 4, minutes: 25, partMinutes: 45, usualDays: 730 }),
  hepa: filter('HEPA', { ...FINE, fineness: 5, minutes: 15, partMinutes: 60, usualDays: 400 }),
  gas: filter('gas stage', { ...COARSE, fineness: null, minutes: 8, partMinutes: 30, usualDays: 180 }),
  fan: passage('fan', 'cleanSide'),
  exhaustFilter: filter('exhaust filter', { ...COARSE, fineness: null, minutes: 4, partMinutes: 20, usualDays: 180 }),
  muffler: passage('muffler', 'cleanSide'),
  exhaust: passage('exhaust', 'cleanSide'),
};

const PARTED: ReadonlySet<StageKind> = new Set<StageKind>(PART_STAGES);
export const isPartStage = (kind: StageKind): kind is PartStage => PARTED.has(kind);
