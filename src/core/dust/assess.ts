import {
  classesDiffer,
  type Dust,
  type DustAnswers,
  type DustFamily,
  type DustQuestion,
  DUST_QUESTIONS,
  type NeededClass,
  type Referral,
  type RuleSet,
} from './dust';
import { type DustHazard, isBelow, worst } from './level';
import { type DustMatch, matchDusts } from './match';
import { wordsOf } from './text';

/** A statement of the dust a machine has collected. */
export interface DustStatement {
  readonly text: string;
  /** Dusts the technician said it is: a slip confirmed, or chosen from the register. */
  readonly confirmed: readonly string[];
  /** Likenesses the technician said it is not. */
  readonly denied: readonly string[];
  readonly answers: DustAnswers;
  /** The technician's own word for the level; null leaves it to the register. */
  readonly own: DustHazard | null;
  /** The reason for a level below the register's; '' when nothing is lowered. */
  readonly lowerBecause: string;
}

export const stated = (text: string, over: Partial<DustStatement> = {}): DustStatement => ({
  text,
  confirmed: [],
  denied: [],
  answers: {},
  own: null,
  lowerBecause: '',
  ...over,
});

export interface Refusal {
  readonly dust: string;
  readonly why: string;
  readonly instead: Referral;
}

/** What follows from a statement, or from a machine's whole history. */
export interface DustStanding {
  /** The dusts it was understood as. */
  readonly dusts: readonly Dust[];
  /** Likenesses still to be confirmed or denied. */
  readonly toConfirm: readonly DustMatch[];
  /** Questions still open. */
  readonly questions: readonly DustQuestion[];
  readonly notUnderstood: readonly string[];
  /** By the register, or contained while something is open. */
  readonly byRegister: DustHazard;
  /** What governs. */
  readonly level: DustHazard;
  /** Set where the level is below the register's, with the recorded reason. */
  readonly lowered: { readonly from: DustHazard; readonly because: string } | null;
  readonly refusal: Refusal | null;
  readonly neededClass: Readonly<Record<RuleSet, NeededClass>>;
}

/** Meaning of a yes to a question. */
const MEANS: Record<DustQuestion, string | null> = {
  oldPaint: 'oldPaint',
  stone: 'silica',
  oldBuilding: 'asbestos',
  brightMetal: 'reactiveMetal',
  hotOrFuel: 'hot',
  biological: 'biological',
  provenFree: null,
  fuelInWater: 'flammableLiquid',
  otherToxicMetal: 'otherToxicMetal',
  poison: 'poison',
  oxidiser: 'oxidiser',
};

/** Questions about a dust outside the register: properties that would make it dangerous. */
const OF_UNKNOWN: readonly DustQuestion[] = [
  'oldPaint',
  'stone',
  'oldBuilding',
  'brightMetal',
  'hotOrFuel',
  'biological',
  'otherToxicMetal',
  'poison',
  'oxidiser',
];

const NOTHING = new Set([
  'nothing',
  'nothing yet',
  'none',
  'unused',
  'new',
  'never used',
  'not used yet',
  'nothing since it was decontaminated',
]);
const isNothing = (text: string): boolean => NOTHING.has(wordsOf(text).join(' '));

const RANK: readonly NeededClass[] = ['L', 'M', 'H', 'HEPA'];
const strictest = (classes: readonly NeededClass[]): NeededClass =>
  RANK[Math.max(0, ...classes.map((c) => RANK.indexOf(c)))] ?? 'L';

const NOTHING_YET: DustStanding = {
  dusts: [],
  toConfirm: [],
  questions: [],
  notUnderstood: [],
  byRegister: 'plain',
  level: 'plain',
  lowered: null,
  refusal: null,
  neededClass: { eu_uk: 'L', us: 'L' },
};

interface Understood {
  readonly dusts: readonly Dust[];
  /** Keys that were confirmed once and are no longer in the register. */
  readonly lost: readonly string[];
}

const understood = (
  register: readonly Dust[],
  { confirmed, answers }: DustStatement,
  matches: readonly DustMatch[],
): Understood => {
  const answered = DUST_QUESTIONS.flatMap((q) => (answers[q] === 'yes' ? (MEANS[q] ?? []) : []));
  const keys = [...new Set([...matches.filter((m) => m.exact).map((m) => m.key), ...confirmed, ...answered])];
  return {
    dusts: keys.flatMap((k) => register.find((d) => d.key === k) ?? []),
    lost: keys.filter((k) => !register.some((d) => d.key === k)),
  };
};

/** Proven on paper to be free, an old board is no longer one that may hold it; a claim is no longer one. */
const free = ({ answers }: DustStatement): boolean => answers.provenFree === 'yes';
const ofFree = (d: Dust): boolean => d.key === 'mayHoldAsbestos' || d.key === 'claimedFree';

const refusalOf = (dusts: readonly Dust[]): Refusal | null => {
  const found = dusts.find((d) => d.refused !== null);
  return found?.refused ? { dust: found.name, why: found.note, instead: found.refused } : null;
};

/**
 * Old building materials may hold asbestos from before the ban: plaster, tiles, wool, jointing. Source: HSE guidance,
 * from memory.
 */
const IN_BUILDINGS: ReadonlySet<DustFamily> = new Set<DustFamily>(['nuisance', 'silica', 'sensitiser']);

/** A claim of "free" without its paper is not refused; a board that may hold it is, until the paper is seen. */
const openQuestions = (
  statement: DustStatement,
  { dusts }: Understood,
  { unknown, aged }: { readonly unknown: boolean; readonly aged: boolean },
): readonly DustQuestion[] => {
  const building: readonly DustQuestion[] =
    aged && dusts.some((d) => IN_BUILDINGS.has(d.family)) ? ['oldBuilding'] : [];
  const wanted = new Set([...dusts.flatMap((d) => d.asks), ...building, ...(unknown ? OF_UNKNOWN : [])]);
  return DUST_QUESTIONS.filter(
    (q) => wanted.has(q) && (statement.answers[q] === undefined || statement.answers[q] === 'notKnown'),
  );
};

/**
 * What follows from what somebody said: what it is, what is still to be asked, the level, and whether it is refused. A
 * dust that is not known, a likeness not yet confirmed, an open question: contained until answered. The own word may
 * raise the level freely; below the register's it stands only with a reason, and never over a refusal.
 * Source: handbook of the trade, sections 9, 11 and 18; HSE and OSHA practice, from memory.
 */
export const assessDust = (register: readonly Dust[], statement: DustStatement): DustStanding => {
  if (isNothing(statement.text) && statement.confirmed.length === 0)
    return { ...NOTHING_YET, level: statement.own ?? 'plain' };
  const { matches, notUnderstood, aged } = matchDusts(register, statement.text);
  const all = understood(register, statement, matches);
  const named = free(statement) ? { ...all, dusts: all.dusts.filter((d) => !ofFree(d)) } : all;
  const settled = new Set([...named.dusts.map((d) => d.key), ...statement.denied]);
  const toConfirm = matches.filter((m) => !m.exact && !settled.has(m.key));
  const denied = matches.filter((m) => !m.exact && statement.denied.includes(m.key)).map((m) => m.words);
  const confirmedWords = matches.filter((m) => !m.exact && statement.confirmed.includes(m.key)).map((m) => m.words);
  const left = [...new Set([...notUnderstood, ...denied.filter((w) => !confirmedWords.includes(w))])];
  // A dust chosen from the register replaces the words that were not understood.
  const chosen = statement.confirmed.some((k) => !matches.some((m) => m.key === k));
  const unknown = !chosen && (left.length > 0 || (all.dusts.length === 0 && toConfirm.length === 0));
  const refusal = refusalOf(named.dusts);
  // Nothing else is asked once it is refused: only a paper could lift that.
  const questions = openQuestions(statement, all, { unknown, aged }).filter(
    (q) => !(q === 'provenFree' && free(statement)) && (refusal === null || q === 'provenFree'),
  );
  // No to every question names nothing: it stays contained until it is named, or its level is lowered with a reason.
  const open = toConfirm.length > 0 || questions.length > 0 || named.lost.length > 0 || unknown;
  const byRegister = worst([...named.dusts.map((d) => d.level), ...(open ? (['contained'] as const) : [])]);
  const { own, lowerBecause } = statement;
  const because = lowerBecause.trim();
  const lowers = own !== null && isBelow(own, byRegister);
  const level = own === null || (lowers && (because === '' || refusal !== null)) ? byRegister : own;
  return {
    dusts: named.dusts,
    toConfirm,
    questions,
    notUnderstood: chosen ? [] : left,
    byRegister,
    level,
    lowered: isBelow(level, byRegister) ? { from: byRegister, because } : null,
    refusal,
    neededClass: classesOf(named.dusts, open || named.dusts.length === 0),
  };
};

const classesOf = (dusts: readonly Dust[], open: boolean): DustStanding['neededClass'] => ({
  eu_uk: strictest([...dusts.map((d) => d.neededClass.eu_uk), ...(open ? (['H'] as const) : [])]),
  us: strictest([...dusts.map((d) => d.neededClass.us), ...(open ? (['HEPA'] as const) : [])]),
});

/** Where the rule sets ask for different classes of a standing. */
export const differs = (standing: Pick<DustStanding, 'neededClass'>): boolean => classesDiffer(standing);

/** Combines several standings: every field takes the strictest value. */
export const together = (standings: readonly DustStanding[]): DustStanding => {
  const dusts = [...new Map(standings.flatMap((s) => s.dusts).map((d) => [d.key, d])).values()];
  const level = worst(standings.map((s) => s.level));
  const byRegister = worst(standings.map((s) => s.byRegister));
  // `lowered` is kept only when the combined level really is below the register's.
  const lowered = isBelow(level, byRegister)
    ? (standings.flatMap((s) => (s.lowered ? [s.lowered] : []))[0] ?? null)
    : null;
  return {
    dusts,
    toConfirm: standings.flatMap((s) => s.toConfirm),
    questions: DUST_QUESTIONS.filter((q) => standings.some((s) => s.questions.includes(q))),
    notUnderstood: [...new Set(standings.flatMap((s) => s.notUnderstood))],
    byRegister,
    level,
    lowered,
    refusal: standings.find((s) => s.refusal)?.refusal ?? null,
    neededClass: {
      eu_uk: strictest(standings.map((s) => s.neededClass.eu_uk)),
      us: strictest(standings.map((s) => s.neededClass.us)),
    },
  };
};
