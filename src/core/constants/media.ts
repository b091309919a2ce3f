import type { Constant } from './constant';

/** Filter media. */
export const MEDIUM_NAMES = [
  'mesh',
  'foam',
  'fleeceBag',
  'clothBag',
  'paperBag',
  'pleatedPolyester',
  'fineDustFleece',
  'nanofibre',
  'hepaGlass',
  'carbonBed',
] as const;
export type Medium = (typeof MEDIUM_NAMES)[number];

export interface MediumFacts {
  readonly label: string;
  /** Clean resistance. */
  readonly k1: Constant;
  /** Fibres for the shape of the penetration curve: diameter in um and solid fraction. */
  readonly fibreUm: number;
  readonly solidity: number;
  /** The assumed efficiency of an element without a printed rating, at a size. */
  readonly typical: { readonly efficiency: number; readonly sizeUm: number };
  /** Filters better, and flows less, once it carries some dust. */
  readonly seasons: boolean;
  /** Must not get wet. */
  readonly dryOnly: boolean;
  /** Face velocities, m/s: up to the first it has area to spare, above the second it is short of area. */
  readonly adviceMs: readonly [number, number];
}

const K1 = 'Moorwind default, a modelling choice: clean resistance of the medium, until calibrated';
const k1 = (value: number): Constant => ({ value, unit: 'Pa s/m', source: K1 });

/**
 * Media with their defaults. Face velocities: woven cloth and pleats of collectors after the gas-to-cloth ratios of
 * the EPA Air Pollution Control Cost Manual, section 6, ch. 1 (about 2 to 4 ft/min shaken cloth, 1 to 3 pleated
 * cartridges); those of vacuum cleaner bags, foams and meshes are Moorwind defaults. Fibres and typical
 * efficiencies are Moorwind defaults too.
 */
export const MEDIA: Record<Medium, MediumFacts> = {
  mesh: {
    label: 'mesh',
    k1: k1(20),
    fibreUm: 60,
    solidity: 0.2,
    typical: { efficiency: 0.05, sizeUm: 3 },
    seasons: false,
    dryOnly: false,
    adviceMs: [0.5, 2],
  },
  foam: {
    label: 'foam',
    k1: k1(200),
    fibreUm: 40,
    solidity: 0.05,
    typical: { efficiency: 0.2, sizeUm: 3 },
    seasons: false,
    dryOnly: false,
    adviceMs: [0.2, 1],
  },
  fleeceBag: {
    label: 'fleece bag',
    k1: k1(500),
    fibreUm: 6,
    solidity: 0.08,
    typical: { efficiency: 0.85, sizeUm: 1 },
    seasons: true,
    dryOnly: true,
    adviceMs: [0.1, 0.25],
  },
  clothBag: {
    label: 'cloth bag',
    k1: k1(800),
    fibreUm: 15,
    solidity: 0.15,
    typical: { efficiency: 0.5, sizeUm: 1 },
    seasons: true,
    dryOnly: false,
    adviceMs: [0.01, 0.02],
  },
  paperBag: {
    label: 'paper bag',
    k1: k1(1200),
    fibreUm: 12,
    solidity: 0.2,
    typical: { efficiency: 0.7, sizeUm: 1 },
    seasons: true,
    dryOnly: true,
    adviceMs: [0.1, 0.25],
  },
  pleatedPolyester: {
    label: 'pleated polyester',
    k1: k1(1300),
    fibreUm: 14,
    solidity: 0.12,
    typical: { efficiency: 0.9, sizeUm: 1 },
    seasons: true,
    dryOnly: false,
    adviceMs: [0.03, 0.1],
  },
  fineDustFleece: {
    label: 'fine-dust fleece',
    k1: k1(1500),
    fibreUm: 5,
    solidity: 0.1,
    typical: { efficiency: 0.95, sizeUm: 1 },
    seasons: true,
    dryOnly: true,
    adviceMs: [0.03, 0.1],
  },
  nanofibre: {
    label: 'nanofibre pleat',
    k1: k1(3000),
    fibreUm: 0.4,
    solidity: 0.06,
    typical: { efficiency: 0.95, sizeUm: 1 },
    seasons: true,
    dryOnly: true,
    adviceMs: [0.015, 0.03],
  },
  hepaGlass: {
    label: 'HEPA glass',
    k1: k1(6000),
    fibreUm: 1.2,
    solidity: 0.06,
    typical: { efficiency: 0.95, sizeUm: 0.3 },
    seasons: false,
    dryOnly: true,
    adviceMs: [0.02, 0.05],
  },
  carbonBed: {
    label: 'carbon bed',
    k1: k1(900),
    fibreUm: 1000,
    solidity: 0.5,
    typical: { efficiency: 0.1, sizeUm: 3 },
    seasons: false,
    dryOnly: true,
    adviceMs: [0.3, 0.6],
  },
};

/** Collector duty: pleats that run all day behind a fan of 2 to 4 kPa are given far more area than those of a vacuum. */
export const COLLECTOR_PLEAT_ADVICE_MS: readonly [number, number] = [0.005, 0.015];

export const DUST_K2: Constant = {
  value: 5e4,
  unit: 'Pa s m/kg',
  source:
    'Moorwind default, a modelling choice, inside the 1.2 to 30 inH2O/(ft/min)/(lb/ft2) of the EPA Cost Manual (one of these is 10 043 Pa s m/kg)',
};
