import type { DustHazard } from './level';

/** Countries whose limits and classes a site can use. */
export const RULE_SETS = ['eu_uk', 'us'] as const;
export type RuleSet = (typeof RULE_SETS)[number];

/** A family decides what follows; a word only leads to it. Source: handbook of the trade, section 18, from memory of HSE and OSHA guidance. */
export const DUST_FAMILIES = [
  'asbestos',
  'toxicMetal',
  'silica',
  'wood',
  'sensitiser',
  'nuisance',
  'reactiveMetal',
  'hot',
  'flammableLiquid',
  'biological',
  'wet',
  'fume',
  'oxidiser',
  'plastic',
] as const;
export type DustFamily = (typeof DUST_FAMILIES)[number];

export const DUST_PROPERTIES = [
  'carcinogen',
  'sensitiser',
  'toxicMetal',
  'silica',
  'biological',
  'combustible',
  'reactiveMetal',
  'wet',
  'oily',
  'hot',
  /** Throws sparks when it is ground, cut or welded. */
  'sparking',
  /** Conducts: gets into mains motors and switches. */
  'conductive',
  /** Evaporates in the air stream. */
  'evaporates',
  /** Sets fire to contacted material, or reacts with water. */
  'oxidiser',
  'food',
] as const;
export type DustProperty = (typeof DUST_PROPERTIES)[number];

/** Class of the machine a dust asks for: EN/IEC 60335-2-69 under EU/UK practice, HEPA in US usage. */
export const NEEDED_CLASSES = ['L', 'M', 'H', 'HEPA'] as const;
export type NeededClass = (typeof NEEDED_CLASSES)[number];

/** Who must do it instead. */
export const REFERRALS = [
  'licensedContractor',
  'machineBuiltForIt',
  'fireSafety',
  'flammableWaste',
  'spillKit',
  'whoIsResponsible',
] as const;
export type Referral = (typeof REFERRALS)[number];

/** Asked where a word does not settle it. */
export const DUST_QUESTIONS = [
  'oldPaint',
  'stone',
  'oldBuilding',
  'brightMetal',
  'hotOrFuel',
  'biological',
  'provenFree',
  'fuelInWater',
  'otherToxicMetal',
  'poison',
  'oxidiser',
] as const;
export type DustQuestion = (typeof DUST_QUESTIONS)[number];
export const DUST_ANSWERS = ['yes', 'no', 'notKnown'] as const;
export type DustAnswer = (typeof DUST_ANSWERS)[number];
export type DustAnswers = Readonly<Partial<Record<DustQuestion, DustAnswer>>>;

/** How a medium may be cleaned at all after this dust, indoors. */
export const CLEANING_WAYS = ['shake', 'machinePulse', 'wash', 'vacuum'] as const;
export type CleaningWay = (typeof CLEANING_WAYS)[number];

/** An exposure limit over 8 hours. Always shown with "check your local limit". */
export interface DustLimit {
  readonly authority: 'OSHA' | 'EU' | 'UK';
  /** mg/m3. */
  readonly mgM3: number;
  readonly of: string;
  readonly source: string;
}

/** One entry of the register. */
export interface Dust {
  readonly key: string;
  readonly name: string;
  readonly family: DustFamily;
  /** Words people type, in several languages; lower case, without accents. */
  readonly synonyms: readonly string[];
  readonly limits: readonly DustLimit[];
  readonly properties: readonly DustProperty[];
  readonly neededClass: Readonly<Record<RuleSet, NeededClass>>;
  readonly level: DustHazard;
  /** Nothing is opened, tested or run by this application's guidance; who does it instead. */
  readonly refused: Referral | null;
  /** Open questions that this word brings with it; contained until they are answered. */
  readonly asks: readonly DustQuestion[];
  /** Ways to clean a reusable medium after this dust; empty: none. */
  readonly cleanedBy: readonly CleaningWay[];
  /** Words for the waste label, beside machine and date. */
  readonly waste: string;
  /** A note, one line. */
  readonly note: string;
  /** No longer offered; machines that have it in their history keep what follows from it. */
  readonly retired: boolean;
}

/** Where the two rule sets ask for different classes. */
export const classesDiffer = ({ neededClass: { eu_uk: eu, us } }: Pick<Dust, 'neededClass'>): boolean =>
  !(eu === us || (eu === 'H' && us === 'HEPA'));
