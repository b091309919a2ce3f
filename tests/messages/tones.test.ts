import { describe, expect, it } from 'vitest';
import { remainingMark } from '@/core/interval/remaining';
import { chanceWord } from '@/core/numeric/chance-word';
import { fallsShort, wouldBearMore } from '@/core/filter/label-against-train';
import type { Deserved } from '@/core/filter/deserved-class';
import { isTooEarly } from '@/core/measure/indicator-wait';
import { likelyWord } from '@/messages/find';
import { sayMass, sayOther } from '@/messages/outcomes';
import { sayPastInAWeek } from '@/messages/outlook';
import { sayBaseline } from '@/messages/verdicts';
import { sayProbability } from '@/messages/format';

const verdict = (outcome: 'fine' | 'warn' | 'act' | 'more' | 'cannotTell') =>
  sayBaseline({ outcome, lossFraction: 0.3, expanded: 0.02, straddles: null, warnsAt: 0.15 }, 'flow');

describe('the tone says how urgent it is', () => {
  it('act stops, warn warns, fine is good, what cannot be told is open', () => {
    expect((['fine', 'warn', 'act', 'more', 'cannotTell'] as const).map((o) => verdict(o).tone)).toEqual([
      'good',
      'watch',
      'stop',
      'watch',
      'open',
    ]);
  });

  it('a filter is loaded from one and a half times a new one, blocked from three times; neither below', () => {
    const at = (kg: number) => sayMass(kg, 1);
    expect([1.49, 1.5, 1.8, 2.99, 3].map((kg) => at(kg).mark)).toEqual([
      'Near new',
      'Loaded',
      'Loaded',
      'Loaded',
      'Blocked',
    ]);
    expect([1, 2, 4].map((kg) => at(kg).tone)).toEqual(['good', 'watch', 'stop']);
  });

  it('a light looked at too soon proves nothing either way', () => {
    const light = (afterS: number, state: 'off' | 'steady') =>
      sayOther({ form: 'word', detail: { kind: 'light', name: '', light: state, afterS } }, 'metric', 'hose');
    expect(isTooEarly(Number.NaN)).toBe(true);
    expect(light(2, 'steady').tone).toBe('open');
    expect(light(2, 'off').sentence).toMatch(/too soon/);
    expect(light(15, 'steady').tone).toBe('stop');
    expect(light(15, 'off').tone).toBe('open');
  });

  it('remaining life is marked before it is due, and at it', () => {
    expect([0.5, 0.15, 0.149, 0.001, 0, -2].map(remainingMark)).toEqual([
      'fine',
      'fine',
      'comingUp',
      'comingUp',
      'due',
      'due',
    ]);
  });
});

describe('chances are said without false certainty', () => {
  it('never 0 or 100 %, and the figure where it is neither', () => {
    expect([0, 0.0099, 0.01, 0.5, 0.99, 0.991, 1].map(sayProbability)).toEqual([
      'under 1 %',
      'under 1 %',
      '1 %',
      '50 %',
      '99 %',
      'over 99 %',
      'over 99 %',
    ]);
  });

  it('each word keeps its band', () => {
    expect([0.9, 0.89, 0.65, 0.64, 0.35, 0.34, 0.1, 0.09].map(likelyWord)).toEqual([
      'almost certain',
      'likely',
      'likely',
      'about even',
      'about even',
      'possible',
      'possible',
      'unlikely',
    ]);
  });

  it('a week ahead: will, may with its figure, unlikely', () => {
    expect([1, 0.99, 0.98, 0.02, 0.01, 0].map(chanceWord)).toEqual([
      'surely',
      'surely',
      'figure',
      'figure',
      'hardly',
      'hardly',
    ]);
    expect(sayPastInAWeek(0.42)).toBe('42 % chance of being overdue within a week.');
    expect(sayPastInAWeek(0.999)).not.toMatch(/%/);
  });
});

describe('the plate against the filters', () => {
  const deserved = (over: Partial<Deserved>): Deserved => ({
    dustClass: 'M',
    usHepa: false,
    essential: 'main',
    sizeUm: 0.2,
    penetration: 0.0005,
    penetrationAt03: 0.0005,
    reason: { kind: 'unrated' },
    ...over,
  });

  it('falls short when the train is of a lower class, or of none; HEPA by its own limit', () => {
    expect(fallsShort('M', deserved({}))).toBe(false);
    expect(fallsShort('L', deserved({}))).toBe(false);
    expect(fallsShort('H', deserved({}))).toBe(true);
    expect(fallsShort('L', deserved({ dustClass: null }))).toBe(true);
    expect(fallsShort('HEPA', deserved({ dustClass: 'H' }))).toBe(true);
    expect(fallsShort('HEPA', deserved({ dustClass: null, usHepa: true }))).toBe(false);
  });

  it('better filters never raise the class by themselves: said as what may not be said', () => {
    expect(wouldBearMore('L', deserved({}))).toBe(true);
    expect(wouldBearMore(null, deserved({}))).toBe(true);
    expect(wouldBearMore('M', deserved({}))).toBe(false);
    expect(wouldBearMore('HEPA', deserved({ dustClass: 'H' }))).toBe(false);
    expect(wouldBearMore(null, deserved({ dustClass: null }))).toBe(false);
  });
});
