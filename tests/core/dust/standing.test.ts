import { describe, expect, it } from 'vitest';
import { DUST_QUESTIONS } from '@/core/dust/dust';
import { assessDust, type DustStatement, stated } from '@/core/dust/assess';
import {
  type CollectedEntry,
  type Decontamination,
  type DustHistory,
  lastStatement,
  machineDust,
  withStatement,
} from '@/core/dust/history';
import { DUST_HAZARDS, isBelow, worst } from '@/core/dust/level';
import { BUILT_IN_DUSTS, registerOf } from '@/core/dust/register';

const REGISTER = registerOf([]);
const of = (text: string, over: Partial<DustStatement> = {}) => assessDust(BUILT_IN_DUSTS, stated(text, over));

describe('levels', () => {
  it('the worst of some governs; of none it is plain', () => {
    expect(worst([])).toBe('plain');
    expect(worst(['plain', 'contained', 'controlled'])).toBe('contained');
    expect(worst(['controlled', 'plain'])).toBe('controlled');
    for (const a of DUST_HAZARDS)
      for (const b of DUST_HAZARDS) expect(isBelow(a, b)).toBe(DUST_HAZARDS.indexOf(a) < DUST_HAZARDS.indexOf(b));
  });
});

describe('what somebody says a machine has collected', () => {
  it.each(['nothing', 'Nothing yet', 'none', 'unused', 'new', 'never used', 'not used yet'])(
    '"%s" is nothing: plain, no questions, the least class',
    (text) => {
      expect(of(text)).toMatchObject({
        dusts: [],
        questions: [],
        level: 'plain',
        byRegister: 'plain',
        refusal: null,
        neededClass: { eu_uk: 'L', us: 'L' },
      });
      expect(of(text, { own: 'controlled' }).level).toBe('controlled');
    },
  );

  it('nothing, but a dust chosen from the register, is that dust', () => {
    expect(of('nothing', { confirmed: ['lead'] })).toMatchObject({ level: 'contained', refusal: null });
    expect(of('nothing', { confirmed: ['lead'] }).dusts.map((d) => d.key)).toEqual(['lead']);
  });

  it('what nobody understands is contained until somebody names it: no to every question does not', () => {
    const unknown = of('zqwxyk');
    expect(unknown).toMatchObject({ dusts: [], level: 'contained', notUnderstood: ['zqwxyk'] });
    expect(unknown.questions).toEqual([
      'oldPaint',
      'stone',
      'oldBuilding',
      'brightMetal',
      'hotOrFuel',
      'biological',
      'otherToxicMetal',
      'poison',
      'oxidiser',
    ]);
    const answers = Object.fromEntries(unknown.questions.map((q) => [q, 'no' as const]));
    const said = of('zqwxyk', { answers });
    expect([said.questions, said.level, said.neededClass]).toEqual([[], 'contained', { eu_uk: 'H', us: 'HEPA' }]);
    expect(of('zqwxyk', { answers, own: 'plain' }).level).toBe('contained');
    expect(of('zqwxyk', { answers, own: 'plain', lowerBecause: 'it is chalk, MK has the sheet' })).toMatchObject({
      level: 'plain',
      lowered: { from: 'contained' },
    });
    const open = of('zqwxyk', { answers: { ...answers, stone: 'notKnown' } });
    expect([open.questions, open.level]).toEqual([['stone'], 'contained']);
    expect(of('zqwxyk', { answers: { ...answers, stone: 'yes' } }).dusts.map((d) => d.key)).toEqual(['silica']);
  });

  it.each([
    ['oldPaint', 'oldPaint', 'contained', false],
    ['stone', 'silica', 'contained', false],
    ['oldBuilding', 'asbestos', 'contained', true],
    ['brightMetal', 'reactiveMetal', 'contained', true],
    ['hotOrFuel', 'hot', 'contained', true],
    ['biological', 'biological', 'contained', false],
    ['otherToxicMetal', 'otherToxicMetal', 'contained', false],
    ['poison', 'poison', 'contained', false],
    ['oxidiser', 'oxidiser', 'contained', true],
  ] as const)('a yes to "%s" makes it %s', (question, key, level, refused) => {
    const s = of('zqwxyk', { answers: { [question]: 'yes' } });
    expect(s.dusts.map((d) => d.key)).toContain(key);
    expect(s.level).toBe(level);
    expect(s.refusal !== null).toBe(refused);
  });

  it('an old board is asked for its paper, and with it is no longer one that may hold asbestos', () => {
    const board = of('old insulating board');
    expect(board.refusal).not.toBeNull();
    expect(board.questions).toContain('provenFree');
    const free = of('old insulating board', { answers: { provenFree: 'yes' } });
    expect(free.refusal).toBeNull();
    expect(free.questions).not.toContain('provenFree');
    expect(free.dusts.some((d) => d.key === 'mayHoldAsbestos')).toBe(false);
    const no = of('old insulating board', { answers: { provenFree: 'no' } });
    expect(no.refusal).not.toBeNull();
    // The paper speaks for the board, not for lead beside it.
    expect(of('old insulating board and lead paint', { answers: { provenFree: 'yes' } }).level).toBe('contained');
  });

  it('an own word raises freely, lowers only with a reason, and never a refusal', () => {
    expect(of('softwood', { own: 'contained' })).toMatchObject({ level: 'contained', lowered: null });
    expect(of('lead', { own: 'plain' })).toMatchObject({ level: 'contained', lowered: null });
    expect(of('lead', { own: 'plain', lowerBecause: '   ' }).level).toBe('contained');
    expect(of('lead', { own: 'controlled', lowerBecause: ' sampled, under the limit ' })).toMatchObject({
      level: 'controlled',
      byRegister: 'contained',
      lowered: { from: 'contained', because: 'sampled, under the limit' },
    });
    expect(of('asbestos', { own: 'plain', lowerBecause: 'I say so' })).toMatchObject({
      level: 'contained',
      lowered: null,
    });
    expect(of('lead', { own: 'contained', lowerBecause: 'same' }).lowered).toBeNull();
  });

  it('a likeness is a question, not an answer: contained until it is confirmed or denied', () => {
    const slip = of('concreet');
    expect(slip.level).toBe('contained');
    expect(slip.toConfirm.length + slip.questions.length).toBeGreaterThan(0);
    const [first] = slip.toConfirm;
    if (!first) throw new Error('no likeness');
    const confirmed = of('concreet', { confirmed: [first.key] });
    expect(confirmed.dusts.map((d) => d.key)).toContain(first.key);
    expect(confirmed.toConfirm.some((m) => m.key === first.key)).toBe(false);
    const denied = of('concreet', { denied: slip.toConfirm.map((m) => m.key) });
    expect(denied.toConfirm).toEqual([]);
    // Denied, the words lead nowhere: it is unknown, and asked about.
    expect(denied.level).toBe('contained');
    expect(denied.questions.length).toBeGreaterThan(0);
  });

  it('a dust that is gone from the register leaves it contained; the strictest class of several is needed', () => {
    expect(of('house dust', { confirmed: ['goneFromTheRegister'] }).level).toBe('contained');
    const both = of('softwood and lead');
    expect(both.level).toBe('contained');
    expect(both.neededClass.eu_uk).toBe('H');
  });
});

describe('the history of a machine', () => {
  const entry = (id: number, text: string, at: string, over: Partial<CollectedEntry> = {}): CollectedEntry => ({
    ...stated(text),
    id,
    since: at.slice(0, 10),
    at,
    by: 'MK',
    ...over,
  });
  const cleared = (at: string): Decontamination => ({
    id: 1,
    at,
    on: at.slice(0, 10),
    by: 'MK',
    how: 'job',
    paper: '',
    jobId: 1,
  });
  const dust = (over: Partial<DustHistory>) =>
    machineDust(REGISTER, { entries: [], hours: [], decontaminations: [], ...over });

  it('what was said in the same breath as a decontamination is cleared with it, what came later is not', () => {
    const at = '2026-03-01T10:00:00.000Z';
    const before = entry(1, 'lead', at);
    expect(dust({ entries: [before], decontaminations: [cleared(at)] }).collected).toEqual([]);
    const later = entry(2, 'lead', '2026-03-01T10:00:00.001Z');
    expect(dust({ entries: [later], decontaminations: [cleared(at)] }).standing.level).toBe('contained');
  });

  it('hours of the day of a decontamination count, of the day before not; a dust of spaces is none', () => {
    const decontaminations = [cleared('2026-03-01T10:00:00.000Z')];
    const on = (day: string, text = 'lead') => dust({ hours: [{ day, dust: text }], decontaminations }).standing.level;
    expect([on('2026-02-28'), on('2026-03-01'), on('2026-03-02')]).toEqual(['plain', 'contained', 'contained']);
    expect(on('2026-03-02', '   ')).toBe('plain');
    expect(dust({ hours: [{ day: '2026-03-02', dust: ' ' }] }).collected).toEqual([]);
  });

  it('the same dust in other letters is one line, from its first day to its last', () => {
    const { collected } = dust({
      entries: [
        entry(1, 'Lead paint', '2026-02-01T10:00:00.000Z'),
        entry(2, 'lead  PAINT', '2026-01-05T10:00:00.000Z'),
      ],
      hours: [
        { day: '2026-03-09', dust: 'lead paint' },
        { day: '2026-03-04', dust: 'softwood' },
      ],
    });
    expect(collected.map((c) => [c.from, c.to])).toContainEqual(['2026-01-05', '2026-03-09']);
    expect(collected).toHaveLength(2);
    expect(collected.find((c) => c.text === 'softwood')).toMatchObject({
      said: null,
      from: '2026-03-04',
      to: '2026-03-04',
    });
  });

  it('what was answered of the same words before a decontamination is remembered', () => {
    const answered = entry(1, 'zqwxyk', '2026-01-05T10:00:00.000Z', {
      answers: Object.fromEntries(DUST_QUESTIONS.map((q) => [q, 'no' as const])),
    });
    const after = dust({
      entries: [answered],
      hours: [{ day: '2026-04-01', dust: 'zqwxyk' }],
      decontaminations: [cleared('2026-03-01T10:00:00.000Z')],
    });
    expect(after.collected[0]?.said?.id).toBe(1);
    expect(after.standing.questions).toEqual([]);
    expect(dust({ hours: [{ day: '2026-04-01', dust: 'zqwxyk' }] }).standing.questions.length).toBe(9);
  });

  it('only the newest decontamination counts, and what was said without a date has none', () => {
    const two = dust({
      entries: [entry(1, 'lead', '2026-02-01T10:00:00.000Z', { since: null })],
      decontaminations: [cleared('2026-03-01T10:00:00.000Z'), cleared('2026-01-01T10:00:00.000Z')],
    });
    expect(two.last?.at).toBe('2026-01-01T10:00:00.000Z');
    expect(two.collected[0]).toMatchObject({ from: null, to: null });
    expect(dust({}).last).toBeNull();
  });

  it('the newest is first, and is what is said again with its answers', () => {
    const known = dust({
      entries: [
        entry(1, 'softwood', '2026-01-01T10:00:00.000Z'),
        entry(2, 'lead', '2026-02-01T10:00:00.000Z', { own: 'contained', lowerBecause: 'x', denied: ['silica'] }),
      ],
    });
    expect(known.collected.map((c) => c.text)).toEqual(['lead', 'softwood']);
    expect(lastStatement(known, 'other')).toEqual({
      text: 'lead',
      confirmed: [],
      denied: ['silica'],
      answers: {},
      own: 'contained',
      lowerBecause: 'x',
    });
    expect(lastStatement(dust({}), 'other')).toEqual(stated('other'));
    expect(lastStatement(dust({ hours: [{ day: '2026-04-01', dust: 'filler' }] }), 'other').text).toBe('filler');
  });

  it('while a statement is typed it takes the place of the same words, and nothing else', () => {
    const known = dust({
      entries: [entry(1, 'lead', '2026-01-01T10:00:00.000Z'), entry(2, 'filler', '2026-02-01T10:00:00.000Z')],
    });
    const typed = withStatement(REGISTER, known, stated('LEAD'));
    expect(typed.collected.map((c) => c.text)).toEqual(['LEAD', 'filler']);
    expect(withStatement(REGISTER, known, stated('softwood')).standing.level).toBe('contained');
  });
});
