import Fuse from 'fuse.js';
import type { Dust } from './dust';
import { couldName, isHarmless, normalised, saysOld, spelledOut, stemsOf, wordsOf } from './text';

/** A dust that a text was found to name. */
export interface DustMatch {
  readonly key: string;
  /** The words of the text that led to it. */
  readonly words: string;
  /** 1 when these very words are in the register; below 1 when they only resemble one of its words. */
  readonly chance: number;
  readonly exact: boolean;
}

export interface TextMatch {
  readonly matches: readonly DustMatch[];
  /** Words that could name a dust and led nowhere. */
  readonly notUnderstood: readonly string[];
  /** Something of it is called old, or dated before 2000. */
  readonly aged: boolean;
}

interface Index {
  readonly phrases: ReadonlyMap<string, string>;
  readonly longest: number;
  /** Words alone, for typing slips. */
  readonly fuse: Fuse<{ readonly phrase: string; readonly key: string }>;
  /** The same, for words run together. */
  readonly single: readonly { readonly phrase: string; readonly key: string }[];
}

/** Furthest that a slip may be from a word of the register, 0 the same to 1 anything. A Moorwind default. */
const FURTHEST = 0.3;
/** A shorter word is too easily another one. */
const SHORTEST = 5;

const indexOf = (register: readonly Dust[]): Index => {
  const offered = register.filter((d) => !d.retired);
  const phrases = new Map(offered.flatMap((d) => [d.name, ...d.synonyms].map((s) => [normalised(s), d.key] as const)));
  const list = [...phrases].filter(([p]) => p.length >= SHORTEST).map(([phrase, key]) => ({ phrase, key }));
  const fuse = new Fuse(list, {
    keys: ['phrase'],
    includeScore: true,
    threshold: FURTHEST,
    location: 0,
    distance: 12,
    minMatchCharLength: 3,
  });
  return {
    phrases,
    fuse,
    single: list.filter(({ phrase }) => !phrase.includes(' ')),
    longest: Math.max(1, ...[...phrases.keys()].map((p) => p.split(' ').length)),
  };
};

/** A register's index is made once for as long as that register is used: it depends on nothing else. */
const HELD = new WeakMap<readonly Dust[], Index>();
const held = (register: readonly Dust[]): Index => {
  const known = HELD.get(register);
  if (known) return known;
  const made = indexOf(register);
  HELD.set(register, made);
  return made;
};

/** Words anywhere in a text that together name a dust. */
const TOGETHER: readonly { readonly key: string; readonly all: readonly (readonly string[])[] }[] = [
  {
    key: 'stainlessFume',
    all: [
      ['stainless', '316', '304', 'inox', 'edelstahl', 'rvs'],
      ['weld', 'welding', 'welded', 'fume', 'fumes', 'tig', 'mig', 'mma', 'schweissrauch', 'rauch', 'smoke'],
    ],
  },
];

const singular = (phrase: string): readonly string[] => [
  phrase,
  ...(phrase.endsWith('ies') ? [`${phrase.slice(0, -3)}y`] : []),
  ...(phrase.endsWith('es') ? [phrase.slice(0, -2)] : []),
  ...(phrase.endsWith('s') ? [phrase.slice(0, -1)] : []),
];

/** A slip is about as long as the word it was meant to be. */
const alike = (a: string, b: string): boolean => Math.abs(a.length - b.length) <= Math.max(1, Math.floor(b.length / 4));

/** A word that begins or ends with a word of the register, such as "Asbestschnur": returns the matching share. */
const compound = (word: string, phrase: string): number =>
  !phrase.includes(' ') && word.length > phrase.length && (word.startsWith(phrase) || word.endsWith(phrase))
    ? phrase.length / word.length
    : 0;

const slips = (index: Index, word: string): readonly DustMatch[] => {
  if (word.length < SHORTEST) return [];
  const likely = [
    ...index.fuse
      .search(word)
      .filter((r) => alike(word, r.item.phrase))
      .map((r) => ({ key: r.item.key, chance: 1 - (r.score ?? 1) })),
    ...index.single.map(({ phrase, key }) => ({ key, chance: compound(word, phrase) })).filter((r) => r.chance > 0),
  ];
  const byKey = new Map<string, DustMatch>();
  for (const r of likely) {
    const chance = Math.round(100 * r.chance) / 100;
    if (chance > (byKey.get(r.key)?.chance ?? 0)) byKey.set(r.key, { key: r.key, words: word, chance, exact: false });
  }
  return [...byKey.values()].sort((a, b) => b.chance - a.chance).slice(0, 3);
};

/**
 * What dusts a text names, by the register's own words: the longest phrase first, so that "aluminium oxide paper" is no
 * aluminium, and what is left over by its likeness to a word (fuse.js), as a question to the technician, never as an answer.
 * Source: common practice, no published source. Returns nothing for an empty text.
 */
export const matchDusts = (register: readonly Dust[], text: string): TextMatch => {
  const index = held(register);
  const words = wordsOf(spelledOut(text));
  const matches: DustMatch[] = TOGETHER.filter(
    ({ key, all }) => all.every((some) => some.some((w) => words.includes(w))) && register.some((d) => d.key === key),
  ).map(({ key, all }) => ({
    key,
    words: words.filter((w) => all.flat().includes(w)).join(' '),
    chance: 1,
    exact: true,
  }));
  const notUnderstood: string[] = [];
  let aged = false;
  for (let i = 0; i < words.length;) {
    let taken = 0;
    for (let n = Math.min(Math.max(index.longest, 3), words.length - i); n > 0 && taken === 0; n -= 1) {
      const phrase = words.slice(i, i + n).join(' ');
      if (n > 1 && isHarmless(phrase)) {
        taken = n;
        continue;
      }
      const key = [...singular(phrase), ...(n === 1 ? stemsOf(phrase) : [])]
        .map((p) => index.phrases.get(p))
        .find((k) => k !== undefined);
      if (key === undefined) continue;
      taken = n;
      if (!matches.some((m) => m.key === key && m.exact)) matches.push({ key, words: phrase, chance: 1, exact: true });
    }
    if (taken === 0) {
      const word = words[i] ?? '';
      aged ||= saysOld(word);
      if (couldName(word)) {
        const like = slips(index, word).filter((m) => !matches.some((x) => x.key === m.key));
        if (like.length > 0) matches.push(...like);
        else notUnderstood.push(word);
      }
      taken = 1;
    }
    i += taken;
  }
  return { matches, notUnderstood, aged };
};
