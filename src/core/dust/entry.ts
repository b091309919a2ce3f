import type { Dust, DustFamily, DustLimit } from './dust';

const OSHA = '29 CFR 1910/1926, from memory of the source';
const EU = 'Directive 2004/37/EC as amended, from memory of the source';
const EH40 = 'EH40, from memory of the source';

export const osha = (mgM3: number, of: string, source = OSHA): DustLimit => ({ authority: 'OSHA', mgM3, of, source });
export const eu = (mgM3: number, of: string, source = EU): DustLimit => ({ authority: 'EU', mgM3, of, source });
export const uk = (mgM3: number, of: string): DustLimit => ({ authority: 'UK', mgM3, of, source: EH40 });

type Given = Pick<Dust, 'key' | 'name' | 'waste' | 'synonyms'> & Partial<Omit<Dust, 'family'>>;

const FAMILY: Record<DustFamily, Pick<Dust, 'level' | 'neededClass' | 'properties' | 'cleanedBy' | 'refused'>> = {
  asbestos: {
    level: 'contained',
    neededClass: { eu_uk: 'H', us: 'HEPA' },
    properties: ['carcinogen'],
    cleanedBy: [],
    refused: 'licensedContractor',
  },
  toxicMetal: {
    level: 'contained',
    neededClass: { eu_uk: 'H', us: 'HEPA' },
    properties: ['toxicMetal'],
    cleanedBy: [],
    refused: null,
  },
  // EU and UK practice says M, the US limit and its task table say HEPA: the level follows the stricter.
  silica: {
    level: 'contained',
    neededClass: { eu_uk: 'M', us: 'HEPA' },
    properties: ['silica', 'carcinogen'],
    cleanedBy: ['machinePulse', 'wash'],
    refused: null,
  },
  wood: {
    level: 'controlled',
    neededClass: { eu_uk: 'M', us: 'M' },
    properties: ['combustible'],
    cleanedBy: ['machinePulse', 'vacuum'],
    refused: null,
  },
  sensitiser: {
    level: 'controlled',
    neededClass: { eu_uk: 'M', us: 'M' },
    properties: ['sensitiser'],
    cleanedBy: ['machinePulse', 'vacuum'],
    refused: null,
  },
  nuisance: {
    level: 'plain',
    neededClass: { eu_uk: 'L', us: 'L' },
    properties: [],
    cleanedBy: ['shake', 'machinePulse', 'vacuum', 'wash'],
    refused: null,
  },
  reactiveMetal: {
    level: 'contained',
    neededClass: { eu_uk: 'H', us: 'HEPA' },
    properties: ['reactiveMetal', 'combustible'],
    cleanedBy: [],
    refused: 'machineBuiltForIt',
  },
  hot: {
    level: 'contained',
    neededClass: { eu_uk: 'M', us: 'M' },
    properties: ['hot', 'combustible'],
    cleanedBy: [],
    refused: 'fireSafety',
  },
  flammableLiquid: {
    level: 'contained',
    neededClass: { eu_uk: 'M', us: 'M' },
    properties: ['combustible', 'wet'],
    cleanedBy: [],
    refused: 'flammableWaste',
  },
  biological: {
    level: 'contained',
    neededClass: { eu_uk: 'H', us: 'HEPA' },
    properties: ['biological'],
    cleanedBy: [],
    refused: null,
  },
  wet: {
    level: 'controlled',
    neededClass: { eu_uk: 'M', us: 'M' },
    properties: ['wet'],
    cleanedBy: ['wash'],
    refused: null,
  },
  oxidiser: {
    level: 'contained',
    neededClass: { eu_uk: 'H', us: 'HEPA' },
    properties: ['oxidiser'],
    cleanedBy: [],
    refused: 'whoIsResponsible',
  },
  plastic: {
    level: 'controlled',
    neededClass: { eu_uk: 'M', us: 'M' },
    properties: ['combustible'],
    cleanedBy: ['machinePulse', 'vacuum'],
    refused: null,
  },
  fume: {
    level: 'controlled',
    neededClass: { eu_uk: 'M', us: 'M' },
    properties: ['sensitiser'],
    cleanedBy: [],
    refused: null,
  },
};

/** An entry of a family: what follows from the family, unless the dust's own record says otherwise. */
export const entryOf = (family: DustFamily, given: Given): Dust => ({
  limits: [],
  asks: [],
  note: '',
  retired: false,
  ...FAMILY[family],
  ...given,
  family,
});
