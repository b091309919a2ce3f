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

export interface MachineKindFacts {
  /** Without a class word: the class is the tested appliance's, and a missing stage withdraws it. */
  readonly label: string;
  /** Typical free flow, m3/s, low and high end. */
  readonly flowM3s: readonly [number, number];
  /** Typical sealed suction, Pa, low and high end. */
  readonly suctionPa: readonly [number, number];
  /** Bore of the hose or duct a new record begins with, m. */
  readonly hoseM: number;
  /** The air velocity in the fitted hose must stay above the class limit (M and H machines). */
  readonly hoseVelocityLimit: boolean;
}

const L = 1e-3;
const K = 1e3;
const facts = (
  label: string,
  flow: readonly [number, number],
  suction: readonly [number, number],
): Omit<MachineKindFacts, 'hoseVelocityLimit' | 'hoseM'> => ({
  label,
  flowM3s: [flow[0] * L, flow[1] * L],
  suctionPa: [suction[0] * K, suction[1] * K],
});

/** Typical figures in L/s, kPa and m. Source: Moorwind defaults for a new record, a modelling choice, editable; bores common practice, no published source. */
export const MACHINE_KINDS: Record<MachineKind, MachineKindFacts> = {
  shopVacuum: { ...facts('shop vacuum', [40, 95], [12, 22]), hoseM: 0.036, hoseVelocityLimit: false },
  mExtractor: { ...facts('extractor', [45, 75], [20, 26]), hoseM: 0.036, hoseVelocityLimit: true },
  hExtractor: { ...facts('extractor', [45, 65], [20, 26]), hoseM: 0.036, hoseVelocityLimit: true },
  hepaTank: { ...facts('tank vacuum', [40, 55], [20, 24]), hoseM: 0.036, hoseVelocityLimit: false },
  grinderExtractor: { ...facts('grinder extractor', [90, 140], [20, 24]), hoseM: 0.05, hoseVelocityLimit: false },
  pneumaticHepa: { ...facts('pneumatic vacuum', [50, 90], [15, 25]), hoseM: 0.036, hoseVelocityLimit: false },
  singleStageCollector: {
    ...facts('single-stage dust collector', [200, 600], [1.5, 3]),
    hoseM: 0.125,
    hoseVelocityLimit: false,
  },
  cycloneCollector: { ...facts('two-stage collector', [250, 800], [2, 4]), hoseM: 0.15, hoseVelocityLimit: false },
  fumeExtractor: { ...facts('bench fume extractor', [25, 100], [1, 5]), hoseM: 0.05, hoseVelocityLimit: false },
  floorCleaner: { ...facts('floor cleaner', [25, 55], [16, 25]), hoseM: 0.032, hoseVelocityLimit: false },
  centralUnit: { ...facts('central unit', [45, 65], [25, 35]), hoseM: 0.05, hoseVelocityLimit: false },
};
