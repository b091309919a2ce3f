import { quantileSorted } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { type Ahead, aheadOf, daysUntil, FURTHEST_DAYS } from '@/core/forecast/ahead';
import type { Mark, PastInterval, StageHistory } from '@/core/forecast/history';
import { believeLife } from '@/core/forecast/life';
import { leftOf, leftQuantile } from '@/core/forecast/left';
import { LIFE_TUNING, type LifeTuning } from '@/core/forecast/life-tuning';
import { withBreaks } from '@/core/forecast/breaks';
import { drawCount, drawWear, firstOf } from '@/core/forecast/reach';
import type { Used } from '@/core/forecast/used';
import { seeded } from '../../../demo/random';

// What a forecast may be asked: facts of a trial of bags and filters (common practice, no published source), and textbook
// results where there are some.

const interval = (load: number, over: Partial<PastInterval> = {}): PastInterval => ({
  load,
  days: load,
  marks: [],
  unsure: 0,
  end: 'limit',
  beforeRegime: false,
  ...over,
});
/** At 2 a day, looked at every few days, every change written down. */
const history = (
  over: Partial<Omit<StageHistory, 'running'>> & { readonly load?: number; readonly marks?: readonly Mark[] } = {},
): StageHistory => ({
  template: { load: 40, spread: 0.7 },
  counts: 'hours',
  past: [],
  daysSince: (load) => load / 2,
  actDays: 0.01,
  ignored: 0.1,
  unwritten: 0,
  ...over,
  running: { load: over.load ?? 0, days: 10, marks: over.marks ?? [], unsure: 0 },
});
const share = (load: number, of: number, deviation = 0.1): Mark => ({ kind: 'share', load, share: of, deviation });
const life = (h: StageHistory, p = 0.5, tuning?: LifeTuning) =>
  h.running.load + leftQuantile(leftOf(believeLife(h, tuning)), p);
const width = (h: StageHistory) => Math.log(life(h, 0.9) / life(h, 0.1));

describe('the life of a stage', () => {
  it('is the normal mean with a normal prior, where nothing else is in the way (Gelman and others, Bayesian Data Analysis, 2.5)', () => {
    const plain: LifeTuning = { ...LIFE_TUNING, spreads: [[0.3, 1]], drift: 0, odd: 0, lateSpread: 0.01 };
    const past = [60, 66, 63].map((load) => interval(load));
    const [prior, data] = [1 / 0.7 ** 2, 3 / (0.3 ** 2 + 0.01 ** 2)];
    const mean = past.reduce((sum, i) => sum + Math.log(i.load), 0) / 3;
    const middle = (prior * Math.log(40) + data * mean) / (prior + data);
    const next = Math.sqrt(1 / (prior + data) + 0.3 ** 2);
    const h = history({ past });
    expect(Math.log(life(h, 0.5, plain))).toBeCloseTo(middle, 1.5);
    expect(Math.log(life(h, 0.9, plain) / life(h, 0.1, plain))).toBeCloseTo(2 * 1.2816 * next, 1);
  });

  it('falls back to its kind without a record, is shrunk to it by few intervals, and learns how steady it is', () => {
    expect(life(history())).toBeCloseTo(40, 0);
    const one = life(history({ past: [interval(90)] }));
    const nine = life(history({ past: Array.from({ length: 9 }, () => interval(90)) }));
    expect(one).toBeLessThan(nine);
    expect(nine).toBeGreaterThan(80);
    const even = history({ past: [50, 51, 49, 50, 52, 50].map((l) => interval(l)) });
    const wild = history({ past: [50, 90, 28, 75, 31, 60].map((l) => interval(l)) });
    expect(width(wild)).toBeGreaterThan(1.7 * width(even));
  });

  it('a change is not a limit: an early one lies near it, a date only before it, damage says nothing, a late one past it', () => {
    const two = (over: Partial<PastInterval>) => life(history({ past: [interval(30, over), interval(30, over)] }));
    const full = two({});
    const early = two({ end: 'early' });
    expect(early / full).toBeGreaterThan(1.1);
    expect(early / full).toBeLessThan(1.5);
    expect(two({ end: 'bound' })).toBeGreaterThan(40);
    expect(two({ end: 'other' })).toBeCloseTo(40, 0);
    const late = (days: number) =>
      life(history({ actDays: 6, past: [interval(30, { days }), interval(30, { days })], load: 0 }));
    expect(late(10)).toBeLessThan(late(300));
  });

  it('what was found scales an interval, and one coarse look at this one is worth more than an interval', () => {
    const found = (load: number, of: number) => interval(load, { end: 'early', marks: [share(load, of)] });
    const [half, whole] = [
      [found(20, 0.5), found(20, 0.5)],
      [found(40, 1), found(40, 1)],
    ].map((past) => life(history({ past })));
    expect(half ?? 0).toBeGreaterThan(0.83 * (whole ?? 0));
    expect(half ?? 0).toBeLessThan(1.1 * (whole ?? 0));
    const looked = history({ past: [interval(40)], load: 30, marks: [share(30, 0.5)] });
    expect(life(looked)).toBeGreaterThan(46);
    expect(life(looked)).toBeLessThan(66);
    expect(width(looked)).toBeLessThan(width(history({ past: [interval(40)] })));
    // Two looks that do not lie on a straight line through nought are both fitted.
    const bent = life(history({ load: 30, marks: [share(10, 0.12), share(30, 0.6)] }));
    expect(bent).toBeGreaterThan(36);
    expect(bent).toBeLessThan(56);
  });

  it('green, amber and red are three things', () => {
    const zone = (above: number | null, below: number | null) =>
      life(history({ load: 30, marks: [{ kind: 'zone', load: 30, above, below }] }));
    const [green, amber, red] = [zone(null, 0.6), zone(0.6, 1), zone(1, null)];
    expect(red).toBeLessThan(32);
    expect(amber).toBeGreaterThan(32);
    expect(amber).toBeLessThan(50);
    expect(green).toBeGreaterThan(50);
  });

  it('"not changed yet" says much where it is looked at every few days, and nothing where nobody looks', () => {
    const old = (actDays: number) => life(history({ past: [interval(40), interval(40)], load: 60, actDays }));
    expect(old(5)).toBeGreaterThan(1.3 * old(10_000));
    expect(old(10_000)).toBeLessThan(48);
  });

  it('an age well past a life is a change that nobody wrote down, a look that has fallen shows where', () => {
    const past = Array.from({ length: 8 }, () => interval(40));
    const left = (h: StageHistory) => leftQuantile(leftOf(believeLife(h)), 0.5);
    const silent = history({ past, load: 62, actDays: 1, unwritten: 0.1 });
    expect(left(silent)).toBeGreaterThan(left({ ...silent, unwritten: 0.001 }) + 10);
    const fallen = { ...silent, running: { ...silent.running, load: 55, marks: [share(34, 0.85), share(50, 0.3)] } };
    expect(left(fallen)).toBeGreaterThan(12);
    expect(left(fallen)).toBeLessThan(40);
    expect(left({ ...silent, actDays: 10_000, unwritten: 0 })).toBeLessThan(-15);
  });

  it('does not average across a change of regime, recorded or not', () => {
    const past = [80, 82, 78, 81, 30, 31].map((load) => interval(load));
    expect(withBreaks(history({ past })).map((i) => i.beforeRegime)).toEqual([true, true, true, true, false, false]);
    const wandering = [80, 70, 90, 75, 85, 72].map((load) => interval(load));
    expect(withBreaks(history({ past: wandering })).some((i) => i.beforeRegime)).toBe(false);
    const known = life(history({ past: past.map((i, k) => ({ ...i, beforeRegime: k < 4 })) }));
    expect(known).toBeLessThan(44);
    expect(life(history({ past }))).toBeCloseTo(known, 6);
  });

  it('an interval whose dates are not sure counts less', () => {
    const [sure, unsure] = [interval(90), interval(90, { unsure: 0.8 })];
    expect(life(history({ past: [unsure] }))).toBeLessThan(life(history({ past: [sure] })) - 5);
  });
});

const DAYS = 364;
/** Two hours on each of five days; day 0 is today, a Sunday. */
const used = (hoursOf: (day: number) => number, days = DAYS): Used => ({
  first: 1 - days,
  today: 0,
  counts: 'hours',
  load: Float64Array.from({ length: days }, (_, i) => hoursOf(i - days + 1)),
  filled: new Float64Array(days),
  dust: new Uint8Array(days),
  dusts: ['oak'],
});
const weekday = (day: number): boolean => ((day % 7) + 7) % 7 >= 1 && ((day % 7) + 7) % 7 <= 5;
const ahead = (
  of: Used,
  {
    works = weekday,
    worked = weekday,
    unsure = 0,
  }: {
    readonly works?: (day: number) => boolean;
    readonly worked?: (day: number) => boolean;
    readonly unsure?: number;
  } = {},
): Ahead => aheadOf({ used: of, weights: [1], unsure, works, worked, chance: seeded(4) });
const middleDay = (a: Ahead, load: number): number =>
  quantileSorted(
    [...a.paths.map((p) => daysUntil(a, p, load))].sort((x, y) => x - y),
    0.5,
  );
const steady = used((day) => (weekday(day) ? 2 : 0));

describe('from load to days', () => {
  it('names the day of work on which it is used up; closed days stand still and are counted once', () => {
    const a = ahead(steady);
    expect(middleDay(a, 2)).toBe(1);
    expect(middleDay(a, 10)).toBe(5);
    expect(middleDay(a, 11)).toBe(8);
    expect(daysUntil(a, a.paths[0] ?? new Float64Array(1), 0)).toBe(0);
    const shut = (day: number) => weekday(day) && !(day >= 8 && day <= 19);
    expect(middleDay(ahead(steady, { works: shut }), 22)).toBe(22 + 7);
    // Two weeks that the yard was shut last month are no slow weeks.
    const rest = (day: number) => day <= -21 && day > -35;
    const after = used((day) => (weekday(day) && !rest(day) ? 2 : 0));
    expect(middleDay(ahead(after, { worked: (day) => weekday(day) && !rest(day) }), 40)).toBe(middleDay(a, 40));
    expect(middleDay(ahead(used(() => 0)), 5)).toBe(FURTHEST_DAYS);
  });

  it('a busy month goes on for a while and returns to the long run', () => {
    const busy = used((day) => (weekday(day) ? (day > -28 ? 6 : 2) : 0));
    const [soon, far] = [
      middleDay(ahead(busy), 20) / middleDay(ahead(steady), 20),
      middleDay(ahead(busy), 700) / middleDay(ahead(steady), 700),
    ];
    expect(soon).toBeLessThan(0.6);
    expect(far).toBeGreaterThan(0.68);
    // And a machine that stood for the last month is used again.
    const idle = used((day) => (weekday(day) && day < -28 ? 2 : 0));
    expect(middleDay(ahead(idle), 60)).toBeLessThan(3 * middleDay(ahead(steady), 60));
  });

  it('bursts and an unsure level widen the days, the middle stays', () => {
    const past = Array.from({ length: 8 }, () => interval(40, { days: 300 }));
    const q = (a: Ahead) =>
      firstOf([{ rule: 1, ...drawWear(history({ past }), { ahead: a, chance: seeded(4) }) }])?.reached ?? [
        0, 0, 0, 0, 0,
      ];
    const bursts = used((day) => (weekday(day) && Math.floor(day / 7) % 2 === 0 ? 4 : 0));
    const [plain, wild, unsure] = [q(ahead(steady)), q(ahead(bursts)), q(ahead(steady, { unsure: 0.5 }))];
    expect(wild[3] - wild[1]).toBeGreaterThan(1.05 * (plain[3] - plain[1]));
    expect(unsure[3] - unsure[1]).toBeGreaterThan(1.3 * (plain[3] - plain[1]));
    expect(Math.abs(unsure[2] - plain[2])).toBeLessThan(0.15 * plain[2]);
  });

  it('a stage past its limit is overdue by days of real use, and its quantiles are those of its draws (simple-statistics)', () => {
    const old = history({
      past: Array.from({ length: 6 }, () => interval(40, { days: 300 })),
      load: 70,
      actDays: 10_000,
    });
    const drawn = drawWear(old, { ahead: ahead(steady), chance: seeded(9) });
    const { draws } = drawn;
    const f = firstOf([{ rule: 3, ...drawn }]);
    expect(f?.overdue).toBeGreaterThan(0.8);
    const sorted = [...draws].sort((a, b) => a - b);
    expect(f?.reached[2]).toBeCloseTo(quantileSorted(sorted, 0.5), 6);
    expect(Math.abs((f?.reached[1] ?? 0) - quantileSorted(sorted, 0.1))).toBeLessThan(1.5);
    expect(f?.middles).toEqual([{ rule: 3, middle: f?.reached[2] }]);
  });

  it('two wear rules of one stage share the use to come and not the luck of their lives', () => {
    const past = Array.from({ length: 6 }, () => interval(40, { days: 300 }));
    const draw = (seed: number) => drawWear(history({ past }), { ahead: ahead(steady), chance: seeded(seed) });
    const first = firstOf([
      { rule: 1, ...draw(1) },
      { rule: 2, ...draw(2) },
    ]);
    // The first of two lives comes sooner than either; tied, they would come on one day.
    expect(first?.reached[2]).toBeLessThan((firstOf([{ rule: 1, ...draw(1) }])?.reached[2] ?? 0) - 1);
    expect(first?.binding.every((b) => b.chance > 0.3)).toBe(true);
  });
});

describe('counts and the first of several', () => {
  it('a count inherits the spread and the habits of what it counts', () => {
    const a = ahead(steady);
    const of = (gaps: readonly number[], done: number) =>
      firstOf([
        {
          rule: 1,
          ...drawCount({ count: 3, done }, { gaps, since: 4, template: 20 }, { ahead: a, chance: seeded(6) }),
        },
      ])?.reached ?? [0, 0, 0, 0, 0];
    // 20 h each at 10 h a week, 4 h behind: three of them in five and a half weeks.
    const even = of([20, 20, 20, 20, 20, 20], 0);
    const wild = of([7, 43, 10, 40, 9, 44], 0);
    expect(even[2]).toBeGreaterThan(33);
    expect(even[2]).toBeLessThan(46);
    expect(wild[3] - wild[1]).toBeGreaterThan(1.5 * (even[3] - even[1]));
    expect(of([20, 20], 3)).toEqual([0, 0, 0, 0, 0]);
  });

  it('takes the first, draw by draw, and says how often each rule is it', () => {
    const f = firstOf([
      { rule: 1, draws: Float64Array.from([5, 9, 9, 9]), whole: Float64Array.from([20, 20, 20, 20]), seenPast: null },
      { rule: 2, draws: Float64Array.from([7, 7, 7, 7]), whole: Float64Array.from([30, 30, 10, 30]), seenPast: null },
    ]);
    expect(f?.binding).toEqual([
      { rule: 2, chance: 0.75 },
      { rule: 1, chance: 0.25 },
    ]);
    expect(f?.reached[2]).toBe(7);
    expect(f?.whole).toEqual([10, 13, 20, 20, 20]);
    expect(firstOf([])).toBeNull();
  });
});
