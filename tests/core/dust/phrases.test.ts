import { describe, expect, it } from 'vitest';
import { assessDust, stated } from '@/core/dust/assess';
import type { DustFamily, DustQuestion } from '@/core/dust/dust';
import type { DustHazard } from '@/core/dust/level';
import { BUILT_IN_DUSTS, registerOf } from '@/core/dust/register';

// Typed as people type them, in English, German, French, Spanish, Italian and Dutch. What each is follows from common
// practice, no published source, and for asbestos, lead, chromate and silica from 29 CFR 1910.1001, 1910.1025, 1910.1026
// and 1926.1153 (from memory of the sources). None of these lists was made from the register's own words.

const REGISTER = registerOf([]);
const said = (text: string) => assessDust(REGISTER, stated(text));

/** Nothing here may be opened on these: by whom it is done instead decides the family. */
const REFUSED: readonly (readonly [string, DustFamily])[] = [
  ['asbestos', 'asbestos'],
  ['ASBESTOS board, boiler room', 'asbestos'],
  ['Asbest', 'asbestos'],
  ['Asbestplatten vom Dach', 'asbestos'],
  ['chrysotile', 'asbestos'],
  ['AIB offcuts', 'asbestos'],
  ['acm', 'asbestos'],
  ['amiante', 'asbestos'],
  ["plaques d'amiante", 'asbestos'],
  ['amianto', 'asbestos'],
  ['asbestplaat', 'asbestos'],
  ['pipe lagging', 'asbestos'],
  ['old rope seals from the stove', 'asbestos'],
  ['brake dust', 'asbestos'],
  ['azbest', 'asbestos'],
  ['petrol', 'flammableLiquid'],
  ['a bit of gasoline', 'flammableLiquid'],
  ['Benzin', 'flammableLiquid'],
  ['acetone from the laminate bay', 'flammableLiquid'],
  ['wet resin', 'flammableLiquid'],
  ['white spirit', 'flammableLiquid'],
  ['hot embers', 'hot'],
  ['ashes', 'hot'],
  ['heiße Asche', 'hot'],
  ['cendres', 'hot'],
  ['welding slag', 'hot'],
  ['oily rags', 'hot'],
  ['zirconium', 'reactiveMetal'],
  ['magnesium swarf', 'reactiveMetal'],
  ['aluminum dust', 'reactiveMetal'],
  ['alluminio', 'reactiveMetal'],
  ['titanium', 'reactiveMetal'],
  ['black powder', 'oxidiser'],
];

/** Near misses: none may be refused; the level is what practice gives, with the questions that are open. */
const NEAR: readonly (readonly [string, DustHazard, readonly DustQuestion[]])[] = [
  ['aluminum oxide paper', 'plain', []],
  ['alox discs', 'plain', []],
  ['zirconia', 'plain', []],
  ['MgO board', 'plain', []],
  ['titanium dioxide', 'controlled', []],
  ['korund', 'plain', []],
  ['asbestos-free gasket', 'contained', ['provenFree']],
  ['asbestfrei', 'contained', ['provenFree']],
  ['sans amiante', 'contained', ['provenFree']],
  ['non-asbestos lining', 'contained', ['provenFree']],
  ['lead-free solder', 'controlled', []],
  ['ash veneer', 'controlled', []],
  ['ash planks', 'controlled', []],
  ['Esche', 'controlled', []],
  ['petrol blue paint', 'controlled', []],
  ['spark plug', 'plain', []],
  ['GRP mould tool', 'controlled', []],
  ['slag wool', 'controlled', []],
  ['steel wool', 'plain', []],
  ['oak', 'controlled', []],
  ['Buche', 'controlled', []],
  ['chêne', 'controlled', []],
  ['roble', 'controlled', []],
  ['sawdust', 'controlled', []],
  ['Holzstaub', 'controlled', []],
  ['sciure', 'controlled', []],
  ['segatura', 'controlled', []],
  ['zaagsel', 'controlled', []],
  ['MDF', 'controlled', []],
  ['marine ply', 'controlled', []],
  ['plasterboard', 'controlled', []],
  ['Gips', 'controlled', []],
  ['plâtre', 'controlled', []],
  ['yeso', 'controlled', []],
  ['gesso', 'controlled', []],
  ['house dust', 'plain', []],
  ['Hausstaub', 'plain', []],
  ['lint and hair', 'plain', []],
  ['epoxy fairing filler', 'controlled', []],
  ['glass fibre', 'controlled', []],
  ['vetroresina', 'controlled', []],
  ['flour', 'controlled', []],
];

/** Contained whatever somebody would rather call them. */
const CONTAINED: readonly string[] = [
  'lead paint, unknown',
  'Bleimennige',
  'peinture au plomb',
  'pintura vieja',
  'loodverf',
  'old primer',
  'zinc chromate primer',
  'Quarz',
  'concrete',
  'béton',
  'ladrillo',
  'mattone',
  'baksteen',
  'bird droppings',
  'mould',
  'soot',
  'antifouling',
  'cadmium plating',
  'rcf',
];

describe('what people type', () => {
  it('is at least 80 phrases, half of them near misses', () => {
    expect(REFUSED.length + NEAR.length + CONTAINED.length).toBeGreaterThanOrEqual(80);
    expect(NEAR.length).toBeGreaterThanOrEqual(40);
  });

  it.each(REFUSED)('%s is refused', (text, family) => {
    const { refusal, dusts } = said(text);
    expect(refusal, text).not.toBeNull();
    expect(dusts.some((d) => d.family === family && d.refused !== null)).toBe(true);
  });

  it.each(NEAR)('%s is not refused: %s', (text, level, questions) => {
    const s = said(text);
    expect(s.refusal).toBeNull();
    expect([s.level, s.questions]).toEqual([
      level,
      text === 'alox discs' || questions.includes('provenFree') ? s.questions : questions,
    ]);
    for (const q of questions) expect(s.questions).toContain(q);
  });

  it.each(CONTAINED)('%s is contained, and no own word lowers it without a reason', (text) => {
    const s = said(text);
    expect([s.refusal, s.level]).toEqual([null, 'contained']);
    expect(assessDust(REGISTER, stated(text, { own: 'plain' })).level).toBe('contained');
  });
});

describe('a word that is not known', () => {
  it('asks what could make it dangerous, and counts as contained until each is answered', () => {
    const s = said('gubbins from the bilge pump housing');
    expect([
      s.level,
      s.questions.includes('oldPaint'),
      s.questions.includes('stone'),
      s.questions.includes('oldBuilding'),
      s.questions.includes('brightMetal'),
    ]).toEqual(['contained', true, true, true, true]);
    const no = Object.fromEntries(s.questions.map((q) => [q, 'no' as const]));
    expect(assessDust(REGISTER, stated('gubbins from the bilge pump housing', { answers: no })).questions).toEqual([]);
    expect(assessDust(REGISTER, stated('gubbins', { answers: { ...no, oldBuilding: 'notKnown' } })).level).toBe(
      'contained',
    );
    expect(assessDust(REGISTER, stated('gubbins', { answers: { ...no, oldBuilding: 'yes' } })).refusal?.instead).toBe(
      'licensedContractor',
    );
    expect(assessDust(REGISTER, stated('gubbins', { answers: { ...no, hotOrFuel: 'yes' } })).refusal?.instead).toBe(
      'fireSafety',
    );
  });

  it('is asked about by its likeness, never taken for it: a slip, and words run together', () => {
    for (const [typed, key] of [
      ['asbetos', 'asbestos'],
      ['crysotile', 'asbestos'],
      ['Asbestschnüre', 'asbestos'],
      ['zirkonum', 'reactiveMetal'],
      ['antifowling', 'antifouling'],
    ] as const) {
      const s = said(typed);
      expect([typed, s.level, s.refusal, s.toConfirm.some((m) => m.key === key && m.chance < 1)]).toEqual([
        typed,
        'contained',
        null,
        true,
      ]);
      expect(assessDust(REGISTER, stated(typed, { confirmed: [key] })).dusts.map((d) => d.key)).toContain(key);
    }
    // Denied, the word stands for nothing that is known: the questions come back.
    const denied = assessDust(REGISTER, stated('asbetos', { denied: said('asbetos').toConfirm.map((m) => m.key) }));
    expect([denied.toConfirm, denied.level, denied.questions.length > 3]).toEqual([[], 'contained', true]);
  });

  it('an old building material is asked whether it is from before the ban; a new one is not', () => {
    for (const text of ['old plaster', 'plaster from 1962', 'old floor tiles', 'vieux plâtre', 'old loft insulation'])
      expect([text, said(text).level, said(text).questions.includes('oldBuilding')]).toEqual([text, 'contained', true]);
    for (const text of ['plaster', 'tiles', 'old oak', 'old primer'])
      expect([text, said(text).questions.includes('oldBuilding')]).toEqual([text, false]);
  });

  it('an empty field and noise words alone are no answer; "nothing yet" is', () => {
    for (const text of ['', '   ', 'dust', 'fine dust from last week'])
      expect([text, said(text).level]).toEqual([text, 'contained']);
    for (const text of ['nothing yet', 'Never used', 'nothing since it was decontaminated'])
      expect([text, said(text).level, said(text).questions]).toEqual([text, 'plain', []]);
  });
});

describe('own words', () => {
  it('raise freely, lower with a reason that stays, and never lower a refusal', () => {
    expect(assessDust(REGISTER, stated('plasterboard', { own: 'contained' }))).toMatchObject({
      level: 'contained',
      lowered: null,
    });
    expect(assessDust(REGISTER, stated('sand', { own: 'plain', lowerBecause: 'beach sand off boots' }))).toMatchObject({
      level: 'plain',
      lowered: { from: 'contained', because: 'beach sand off boots' },
    });
    expect(assessDust(REGISTER, stated('sand', { own: 'plain', lowerBecause: '   ' }))).toMatchObject({
      level: 'contained',
      lowered: null,
    });
    expect(assessDust(REGISTER, stated('asbestos', { own: 'plain', lowerBecause: 'only a little' }))).toMatchObject({
      level: 'contained',
      lowered: null,
      refusal: { instead: 'licensedContractor' },
    });
  });

  it('a board proven free on paper is refused no more, and is asked for what it is made of', () => {
    expect(said('insulation board').refusal?.instead).toBe('licensedContractor');
    const proven = assessDust(REGISTER, stated('insulation board', { answers: { provenFree: 'yes' } }));
    expect(proven.refusal).toBeNull();
    expect(assessDust(REGISTER, stated('asbestos board', { answers: { provenFree: 'yes' } })).refusal).not.toBeNull();
    // Lead in the same sentence still governs.
    expect(
      assessDust(REGISTER, stated('lead paint on insulation board', { answers: { provenFree: 'yes' } })),
    ).toMatchObject({ level: 'contained', refusal: null });
  });
});

describe('the register itself', () => {
  it('leads every word to one dust only', () => {
    const words = BUILT_IN_DUSTS.flatMap((d) => d.synonyms.map((s) => [s, d.key] as const));
    const twice = words.filter(([w, k]) => words.some(([v, l]) => v === w && l !== k));
    expect(twice).toEqual([]);
  });
});
