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

export interface StageKindFacts {
  readonly label: string;
  /** Holds dust back and is changed or cleaned. */
  readonly filters: boolean;
  /** Can be taken from stock and fitted. */
  readonly changeable: boolean;
}

const plain = (label: string): StageKindFacts => ({ label, filters: false, changeable: false });
const filter = (label: string): StageKindFacts => ({ label, filters: true, changeable: true });

/** A muffler looks like a filter and is none. Source: common practice, no published source. */
export const STAGE_KINDS: Record<StageKind, StageKindFacts> = {
  nozzle: plain('nozzle'),
  shroud: plain('tool shroud'),
  hood: plain('hood'),
  hose: { label: 'hose', filters: false, changeable: true },
  duct: plain('duct'),
  wye: plain('Y'),
  inlet: plain('inlet'),
  ring: plain('ring'),
  cyclone: { label: 'cyclone', filters: true, changeable: false },
  dropChamber: { label: 'drop chamber', filters: true, changeable: true },
  bag: filter('bag'),
  foam: filter('foam'),
  cloth: filter('cloth filter'),
  prefilter: filter('pre-filter'),
  mainFilter: filter('main filter'),
  canister: filter('canister'),
  hepa: filter('HEPA'),
  gas: filter('gas stage'),
  fan: plain('fan'),
  exhaustFilter: filter('exhaust filter'),
  muffler: plain('muffler'),
  exhaust: plain('exhaust'),
};
