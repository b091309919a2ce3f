import type { NoCare } from '@/core/dust/care';
import type { CollectedDust, Decontamination } from '@/core/dust/history';
import type { DustStanding } from '@/core/dust/assess';
import type {
  DustAnswer,
  DustFamily,
  DustLimit,
  DustProperty,
  DustQuestion,
  NeededClass,
  Referral,
  RuleSet,
  CleaningWay,
} from '@/core/dust/dust';
import { type Equipment, EQUIPMENT_OF } from '@/core/dust/equipment';
import type { DustHazard } from '@/core/dust/level';
import { capital } from './words';

export const FAMILY_WORDS: Record<DustFamily, string> = {
  asbestos: 'asbestos',
  toxicMetal: 'lead and other toxic metals',
  silica: 'crystalline silica',
  wood: 'wood',
  sensitiser: 'sensitisers',
  nuisance: 'nuisance dust',
  reactiveMetal: 'metal that burns',
  hot: 'hot matter',
  flammableLiquid: 'flammable liquid',
  biological: 'biological',
  wet: 'wet',
  fume: 'fume',
  oxidiser: 'oxidisers, explosives, what reacts with water',
  plastic: 'plastics',
};

export const PROPERTY_WORDS: Record<DustProperty, string> = {
  carcinogen: 'carcinogen',
  sensitiser: 'sensitiser',
  toxicMetal: 'toxic metal',
  silica: 'respirable crystalline silica',
  biological: 'biological',
  combustible: 'burns',
  reactiveMetal: 'reacts: no water, no sparks',
  wet: 'wet',
  oily: 'oily',
  hot: 'hot',
  sparking: 'throws sparks when ground or welded',
  conductive: 'conducts electricity',
  evaporates: 'evaporates in the air stream',
  oxidiser: 'lights what it meets, or reacts with water',
  food: 'food',
};

export const REFERRAL_WORDS: Record<Referral, string> = {
  licensedContractor: 'A licensed contractor does it. Leave the machine closed, leave the area and keep others out.',
  machineBuiltForIt:
    'Only a machine built for it may take this. Leave it closed, keep sparks away and ask the person responsible for fire safety.',
  fireSafety:
    'Nothing hot goes near it. Outdoors and off, let it go cold in a metal container and watch it. Ask the person responsible for fire safety.',
  flammableWaste: 'Do not switch anything on. Keep it outdoors and away from flames. It goes as flammable waste.',
  spillKit: 'Use a spill kit, never a vacuum. Open the windows, leave the room, and ask a firm that clears it.',
  whoIsResponsible:
    'Do not vacuum it, do not wet it, keep flames and oil away. Ask the person who is responsible for this substance.',
};

export const QUESTION_WORDS: Record<DustQuestion, string> = {
  oldPaint: 'Is there old paint in it, from before 1992 (US: 1978) or of unknown age?',
  stone: 'Stone, concrete, brick, tile, sand or fibre cement?',
  oldBuilding: 'Boards, lagging, seals or floor tiles from before the asbestos ban (UK 1999, EU 2005; US: any age)?',
  brightMetal: 'Aluminium, magnesium, titanium or zirconium?',
  hotOrFuel: 'Anything hot, or any fuel or solvent?',
  biological: 'Mould, droppings, sewage, drugs?',
  provenFree: 'Is there a document that it is free of asbestos: a sample result, or a build date after the ban?',
  fuelInWater: 'Fuel or oil in the water?',
  otherToxicMetal: 'Lead, cadmium, chromium, nickel, beryllium, arsenic or another toxic metal?',
  poison: 'A poison, a pesticide, a drug?',
  oxidiser: 'An oxidiser, a peroxide, an explosive, or a powder that reacts with water?',
};

export const ANSWER_WORDS: Record<DustAnswer, string> = { yes: 'Yes', no: 'No', notKnown: 'Not known' };

export const RULE_SET_WORDS: Record<RuleSet, string> = { eu_uk: 'EU/UK', us: 'US' };

export const NEEDED_WORDS: Record<NeededClass, string> = { L: 'L class', M: 'M class', H: 'H class', HEPA: 'HEPA' };

export const EQUIPMENT_WORDS: Record<Equipment, string> = {
  eyes: 'eye protection where dust flies',
  halfMask: 'FFP2 or FFP3 (N95 or P100) half mask, face-fit tested',
  p3: 'P3 or P100 respirator, face-fit tested',
  gloves: 'disposable gloves',
  coverall: 'disposable coverall, type 5/6',
  tapedGloves: 'gloves taped over the cuffs',
  overshoes: 'overshoes',
};

export const CLEANING_WORDS: Record<CleaningWay, string> = {
  shake: 'shaken',
  machinePulse: "the machine's own pulses",
  wash: 'washed',
  vacuum: 'vacuumed from the dirty side',
};

export const NO_CARE_WORDS: Record<NoCare, string> = {
  medium: 'is never cleaned: fit a new one',
  dust: 'is not cleaned after this dust: fit a new one',
  class: 'carries the class of this machine: fit a new one, do not clean it',
};

export const LEVEL_MEANS: Record<DustHazard, string> = {
  plain: 'nuisance dust: open with care',
  controlled: 'mask and gloves, bag the part and tie it off, wipe damp',
  contained: 'close the area, respirator and coverall, plug the inlet first, bag twice, label',
};

/** The dust in a sentence: its names, or the open questions. */
export const sayDusts = ({ dusts, toConfirm, questions, notUnderstood, level }: DustStanding): string => {
  const named = dusts.map((d) => d.name).join('; ');
  const open = toConfirm.length > 0 || questions.length > 0;
  if (named === '' && !open && level === 'plain') return 'Nothing collected yet.';
  if (named === '')
    return notUnderstood.length > 0
      ? `"${notUnderstood.join(' ')}" is not in the register.${open ? '' : ' No to every question does not name it.'}`
      : 'Not clear yet what it is.';
  const unnamed = notUnderstood.length > 0 ? ` "${notUnderstood.join(' ')}" is not in the register.` : '';
  return `${capital(named)}${open ? ', and a question still open' : ''}.${unnamed}`;
};

/** How it is opened, and why. */
export const sayLevel = (standing: DustStanding): string => {
  const { level, lowered, questions, toConfirm } = standing;
  const open = questions.length > 0 || toConfirm.length > 0;
  if (lowered) return `${capital(level)}, lowered from ${lowered.from}: ${lowered.because}.`;
  const until = open
    ? ' until the questions are answered'
    : standing.dusts.length === 0 || standing.notUnderstood.length > 0
      ? ' until somebody names it, or lowers it with a reason'
      : '';
  return `${capital(level)}${level === 'contained' ? until : ''}: ${LEVEL_MEANS[level]}.`;
};

/** The class it asks for, by both rule sets where they differ; the stricter is taken. */
export const sayNeededClass = ({ neededClass: { eu_uk: eu, us } }: Pick<DustStanding, 'neededClass'>): string => {
  const same = eu === us || (eu === 'H' && us === 'HEPA');
  if (same) return eu === 'H' ? 'Needs H class (US: HEPA).' : `Needs ${NEEDED_WORDS[eu]}.`;
  return `EU/UK: ${NEEDED_WORDS[eu]}. US: ${NEEDED_WORDS[us]}. They differ: take the stricter.`;
};

export const sayEquipment = (level: DustHazard): string =>
  `${capital(EQUIPMENT_OF[level].map((e) => EQUIPMENT_WORDS[e]).join(', '))}.`;

export const sayRefusal = ({ dust, instead }: { readonly dust: string; readonly instead: Referral }): string =>
  `It has collected ${dust}: Moorwind guides no test, no run and no opening on it. ${REFERRAL_WORDS[instead]}`;

export const sayLimit = ({ authority, mgM3, of }: DustLimit): string =>
  of.startsWith('fibres') ? `${authority} ${mgM3} ${of}` : `${authority} ${mgM3} mg/m³ (${of})`;

/** When it was collected, as far as anybody knows. */
export const sayWhen = ({ from, to }: Pick<CollectedDust, 'from' | 'to'>): string =>
  from === null && to === null
    ? 'date not known'
    : from === to || from === null
      ? (to ?? '')
      : `${from} to ${to ?? 'now'}`;

export const sayDecontamination = (d: Decontamination | null): string =>
  d === null
    ? 'Never decontaminated on record.'
    : `Last decontaminated ${d.on}, ${d.how === 'job' ? `by ${d.by}, step by step` : `by a contractor: ${d.paper}`}.`;

/** The dust of a machine for its header: short. */
export const sayHeader = (standing: DustStanding, words: string): string =>
  standing.refusal
    ? `has collected ${standing.refusal.dust}`
    : standing.dusts.length === 0 && standing.level === 'plain'
      ? words
      : `${
          standing.dusts.length > 0
            ? standing.dusts
                .map((d) => d.name)
                .slice(0, 2)
                .join('; ')
            : words
        }${standing.dusts.length > 2 ? ` and ${standing.dusts.length - 2} more` : ''}`;
