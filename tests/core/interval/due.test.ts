import { TZDate } from '@date-fns/tz';
import { differenceInCalendarDays, format } from 'date-fns';
import fc from 'fast-check';
import { isChangeUnknown } from '@/core/interval/stage-due-word';
import { describe, expect, it } from 'vitest';
import { addDays, addMonths, dayAt, daysBetween, isCalendarDate } from '@/core/calendar/calendar-date';
import { type DueInput, NO_WEAR, stageDue } from '@/core/interval/due';
import { RULE_TEMPLATES } from '@/core/interval/rule-templates';
import { usualRules } from '@/core/machine/usual-rules';
import { circularAfter, type Rule, type RuleRecord } from '@/core/interval/rules';

const BAG = 1;
const WRAP = 2;
const record = (rule: Rule, id = 1): RuleRecord => ({ id, stageId: WRAP, rule, school: 'test' });
const days = (n: number) => record({ kind: 'calendarDays', days: n });
const bags = (count: number) =>
  record({ kind: 'countOfChanges', countedStageId: BAG, countedStageName: 'bag', count }, 2);

const due = (over: Partial<DueInput>) =>
  stageDue({
    stageId: WRAP,
    rules: [days(30)],
    changedOn: '2026-01-01',
    changeRecorded: true,
    changesOf: () => [],
    today: '2026-01-11',
    wear: NO_WEAR,
    ...over,
  });

describe('several rules', () => {
  it('leave the least remaining share of all, also of a rule without a date', () => {
    // 10 of 30 days are gone; one of two bags: the count has no date yet, and is nearer to its end.
    const both = due({ rules: [days(30), bags(2)], changesOf: () => ['2026-01-05'] });
    expect(both?.binding.rule.kind).toBe('calendarDays');
    expect(both?.binding.remaining).toBeCloseTo(2 / 3, 12);
    expect(both?.remaining).toBeCloseTo(1 / 2, 12);
  });
});

describe('calendar days', () => {
  it('count from the change, over month ends and daylight saving', () => {
    expect(addDays('2026-01-31', 1)).toBe('2026-02-01');
    expect(addDays('2028-02-28', 1)).toBe('2028-02-29');
    // The clocks change on 29 March and 25 October 2026 in Europe.
    expect(daysBetween({ from: '2026-03-28', to: '2026-03-30' })).toBe(2);
    expect(daysBetween({ from: '2026-10-24', to: '2026-10-26' })).toBe(2);
  });

  it('a day of the site is what a calendar library of its own says, round the world and through every change of the clock', () => {
    const zones = [
      'Europe/London',
      'America/New_York',
      'Pacific/Kiritimati',
      'Asia/Kolkata',
      'UTC',
      'America/St_Johns',
    ];
    for (const zone of zones)
      for (let hour = 0; hour < 2 * 8766; hour += 7) {
        const moment = new Date(Date.UTC(2025, 0, 1, hour, 29)).toISOString();
        expect(dayAt(moment, zone)).toBe(format(new TZDate(moment, zone), 'yyyy-MM-dd'));
      }
    for (let days = -400; days < 800; days += 1) {
      const to = addDays('2026-01-31', days);
      expect(daysBetween({ from: '2026-01-31', to })).toBe(days);
      expect(daysBetween({ from: '2026-01-31', to })).toBe(
        differenceInCalendarDays(new Date(to), new Date('2026-01-31')),
      );
    }
    expect(() => dayAt('yesterday', 'UTC')).toThrow('"yesterday" is not a moment');
  });

  it('a date further off than a hundred years is cut there and stays a date; one that is no number is a fault', () => {
    expect(addDays('2026-11-24', 1e12)).toBe('2126-11-25');
    expect(addDays('2026-11-24', Number.POSITIVE_INFINITY)).toBe('2126-11-25');
    expect(addDays('2026-11-24', -1e12)).toBe('1926-11-24');
    expect(addMonths('2026-11-24', 1e9)).toBe('2126-11-24');
    expect(() => addDays('2026-11-24', Number.NaN)).toThrow(RangeError);
  });

  it('a moment has the day of the site, not of the server', () => {
    expect(dayAt('2026-11-24T23:30:00Z', 'Europe/Helsinki')).toBe('2026-11-25');
    expect(dayAt('2026-11-24T23:30:00Z', 'Europe/London')).toBe('2026-11-24');
    expect(dayAt('2026-07-01T23:30:00Z', 'Europe/London')).toBe('2026-07-02');
  });

  it('knows which days exist', () => {
    expect(['2026-02-28', '2026-02-29', '2026-13-01', '26-01-01', ''].map(isCalendarDate)).toEqual([
      true,
      false,
      false,
      false,
      false,
    ]);
  });

  it('adding and counting are inverse', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20_000 }), fc.integer({ min: -3000, max: 3000 }), (start, n) => {
        const from = addDays('2000-01-01', start);
        expect(daysBetween({ from, to: addDays(from, n) })).toBe(n);
      }),
    );
  });
});

describe('when a stage is due', () => {
  it('by its date, with its remaining life', () => {
    expect(due({})).toMatchObject({ dueOn: '2026-01-31', daysLeft: 20, binding: { dateIs: 'fixed' } });
    expect(due({})?.remaining).toBeCloseTo(2 / 3, 12);
    expect(due({ today: '2026-02-03' })).toMatchObject({ daysLeft: -3 });
  });

  it('whichever rule comes first binds, and the others are shown (common practice, no published source)', () => {
    const changes = ['2026-01-03', '2026-01-06', '2026-01-09'];
    const result = due({ rules: [days(30), bags(5)], changesOf: () => changes });
    // Three bags in three-day steps: two more are expected by 15 January, before the date of 31 January.
    expect(result).toMatchObject({
      dueOn: '2026-01-15',
      binding: { rule: { kind: 'countOfChanges' }, counted: 3, dateIs: 'expected' },
    });
    expect(result?.others).toHaveLength(1);
    expect(due({ rules: [days(7), bags(5)], changesOf: () => changes })?.binding.rule.kind).toBe('calendarDays');
  });

  it('a count is reached with its last change, to the day', () => {
    const changesOf = () => ['2026-01-02', '2026-01-04', '2026-01-06', '2026-01-08', '2026-01-10'];
    expect(due({ rules: [bags(5)], changesOf })).toMatchObject({
      dueOn: '2026-01-10',
      daysLeft: -1,
      remaining: 0,
      binding: { dateIs: 'fixed' },
    });
  });

  it('a change of the counted stage on the day of the renewal does not count', () => {
    const changesOf = () => ['2025-12-20', '2026-01-01', '2026-01-08'];
    expect(due({ rules: [bags(5)], changesOf })?.binding.counted).toBe(1);
  });

  it('a count with too few changes on record has no date, and says so', () => {
    expect(due({ rules: [bags(5)], changesOf: () => ['2026-01-05'] })).toMatchObject({
      dueOn: null,
      daysLeft: null,
      binding: { dateIs: 'unknown', counted: 1 },
    });
  });

  it('an expected day that went by is not overdue: the change itself is awaited', () => {
    const changesOf = () => ['2025-12-01', '2025-12-05', '2026-01-02'];
    expect(due({ rules: [bags(2)], changesOf, today: '2026-06-01' })?.daysLeft).toBe(1);
  });

  it('a stage without a rule is never due', () => {
    expect(due({ rules: [] })).toBeNull();
  });

  it('a later change never makes it due earlier', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 1, max: 100 }), (day, later) => {
        const first = due({ changedOn: addDays('2026-01-01', day) })?.dueOn ?? '';
        const second = due({ changedOn: addDays('2026-01-01', day + later) })?.dueOn ?? '';
        expect(second > first).toBe(true);
      }),
    );
  });
});

describe('rules that wear, sight and company reach', () => {
  const ofRule = (rule: Rule, over: Partial<DueInput> = {}) => due({ rules: [record(rule)], ...over })?.binding;

  it('run hours run by what is logged since the change, and by the use of four weeks', () => {
    const hours = Array.from({ length: 20 }, (_, i) => ({ day: addDays('2025-12-23', i), hours: 2.8 }));
    // 11 days of 2.8 h since the change; 56 h in 28 days is 2 h a day; 40 - 30.8 are left.
    expect(ofRule({ kind: 'runHours', hours: 40 }, { wear: { hours, looks: [] } })).toMatchObject({
      dueOn: '2026-01-15',
      dateIs: 'expected',
    });
    expect(ofRule({ kind: 'runHours', hours: 40 })).toMatchObject({
      dueOn: null,
      dateIs: 'unknown',
      because: 'noHours',
    });
  });

  it('a fill by its last look since the change, by the observed rate without one, and by nothing at all it says so', () => {
    const look = {
      hours: [],
      looks: [
        { day: '2025-12-20', share: 0.9 },
        { day: '2026-01-06', share: 0.25 },
      ],
    };
    expect(ofRule({ kind: 'fill', share: 0.5 }, { wear: look })?.dueOn).toBe('2026-01-12');
    expect(ofRule({ kind: 'fill', share: 0.5 }, { changesOf: () => ['2025-12-12', '2026-01-01'] })?.dueOn).toBe(
      '2026-01-21',
    );
    expect(ofRule({ kind: 'fill', share: 0.5 })).toMatchObject({ dueOn: null, because: 'noLook' });
  });

  it('what only a test, an eye or another stage can tell has no date, says why, and never hides one that has', () => {
    expect(ofRule({ kind: 'flowLost', share: 0.25 })?.because).toBe('byTest');
    expect(ofRule({ kind: 'sight', what: 'a torn pleat' })?.because).toBe('bySight');
    const both = due({
      rules: [record({ kind: 'together', stageId: 1, stageName: 'bag', how: 'rightAfter' }, 5), days(30)],
    });
    expect(both?.binding.rule.kind).toBe('calendarDays');
    expect(both?.others.map((o) => o.because)).toEqual(['withAnother']);
  });

  it('finds a ring of "only after"', () => {
    const after = (stageId: number, other: number): RuleRecord => ({
      id: stageId,
      stageId,
      school: '',
      rule: { kind: 'together', stageId: other, stageName: '', how: 'rightAfter' },
    });
    expect(circularAfter([after(1, 2), after(2, 3), after(3, 1)])).toEqual([1, 2, 3]);
    expect(circularAfter([after(1, 2), after(3, 2)])).toBeNull();
    // Two that go with each other are one opening, and no ring.
    const company = (stageId: number, other: number): RuleRecord => ({
      ...after(stageId, other),
      rule: { kind: 'together', stageId: other, stageName: '', how: 'onlyWith' },
    });
    expect(circularAfter([company(1, 2), company(2, 1)])).toBeNull();
  });
});

describe('the rules proposed for a new machine', () => {
  const of = { kind: 'mExtractor', machineClass: null, ruleSet: 'eu_uk', hasGauge: false } as const;
  const said = (...args: Parameters<typeof usualRules>) => usualRules(...args).map(({ rule }) => rule);

  it('ask for the examination the law asks for: 14 months, UK COSHH Regulations 2002, regulation 9', () => {
    expect(said('fan', of)).toEqual([{ kind: 'examination', months: 14 }]);
    expect(said('fan', { ...of, ruleSet: 'us' })).toEqual([]);
    // A vacuum for the floor is no exhaust ventilation.
    expect(said('fan', { ...of, kind: 'shopVacuum' })).toEqual([]);
  });

  it('ask for the yearly inspection of M and H machines besides, after EN 60335-2-69 Annex AA', () => {
    const months = (ruleSet: 'eu_uk' | 'us') =>
      said('fan', { ...of, machineClass: 'H', ruleSet }).map((r) => (r.kind === 'examination' ? r.months : 0));
    expect([months('eu_uk'), months('us')]).toEqual([[14, 12], [12]]);
  });

  it('go by a gauge where there is one, and never by a light that nobody said is there', () => {
    expect(said('prefilter', of)).toEqual([{ kind: 'calendarDays', days: 90 }]);
    expect(said('prefilter', { ...of, hasGauge: true })[0]).toEqual({ kind: 'gaugeZone', zone: 'red' });
    expect(said('hose', of)).toEqual([]);
  });

  it('replace a canister after two years even where its flow holds (common practice, no published source)', () => {
    expect(said('canister', of).map((r) => r.kind)).toEqual(['flowLost', 'calendarDays']);
  });

  it('offer each rule once in every kind of stage', () => {
    for (const [stage, templates] of Object.entries(RULE_TEMPLATES)) {
      const offered = templates.map((t) => JSON.stringify(t));
      expect(offered, stage).toEqual([...new Set(offered)]);
    }
  });
});

describe('a stage whose last change is not on record', () => {
  const unknown = (over: Partial<DueInput>) => {
    const of = due({ changeRecorded: false, ...over });
    return of && isChangeUnknown(of);
  };

  it('is unknown after two of its intervals; before, it is due as any other; an examination stays due', () => {
    // 30 days from 1 January: due on 31 January, and twice that on 2 March.
    expect(unknown({ today: '2026-01-31' })).toBe(false);
    expect(unknown({ today: '2026-03-02' })).toBe(false);
    expect(unknown({ today: '2026-03-03' })).toBe(true);
    expect(unknown({ today: '2026-03-03', changeRecorded: true })).toBe(false);
    expect(unknown({ today: '2030-01-01', rules: [record({ kind: 'examination', months: 14 })] })).toBe(false);
    expect(unknown({ today: '2030-01-01', rules: [record({ kind: 'sight', what: 'a tear' })] })).toBe(false);
  });
});
