import { describe, expect, it } from 'vitest';
import { addDays } from '@/core/calendar/calendar-date';
import { worksOn } from '@/core/calendar/working-days';
import { dueOfMachine } from '@/core/forecast/due';
import { historyOfStage } from '@/core/forecast/stage-history';
import { laterBy, outlookOf, outlooksOf } from '@/core/forecast/from-record';
import { machineFacts, type MachineRecord } from '@/core/forecast/machine-facts';
import type { Rule } from '@/core/interval/rules';
import type { Machine } from '@/core/machine/machine';
import type { ChangeReason, ChangeRecord, TestRecord } from '@/core/record/records';
import { changeRecord, machineOf, stageOf } from '../../support/machines';

const TODAY = '2026-11-24';
const ago = (days: number) => addDays(TODAY, -days);
const change = (days: number, reason: ChangeReason = 'fill', stageId = 1): ChangeRecord => ({
  ...changeRecord({ id: days, performedOn: ago(days), reason }),
  stageId,
});
const HALF: Rule = { kind: 'fill', share: 0.5 };
const ruled = (rule: Rule, id = 1, stageId = 1) => ({ id, stageId, rule, school: '' });
const bag = stageOf(1, { kind: 'bag', name: 'bag', firstUsedOn: ago(120), rules: [ruled(HALF)] });
type Hours = Machine['hours'];
/** Two hours every day for so long, of one dust or, until some days ago, of another. */
const hoursOf = (from: number, dustUntil = 0, hours = 2): Hours =>
  Array.from({ length: from + 1 }, (_, i) => ({
    day: ago(from - i),
    hours,
    dust: from - i > dustUntil && dustUntil > 0 ? 'softwood' : 'filler',
  }));
const zoneTest = (days: number, zone: 'green' | 'amber' | 'red', stageId = 1) =>
  ({
    id: days,
    performedAt: `${ago(days)}T09:00:00.000Z`,
    supersededById: null,
    voided: false,
    isBaseline: false,
    test: {
      method: 'gaugeZone',
      place: 'toolEnd',
      detail: { kind: 'zone', stageId, zone },
      failedPreconditions: [],
      readingsSi: [],
    },
  }) as unknown as TestRecord;

const record = (over: Partial<MachineRecord> = {}, stages = [bag], hours: Hours = []): MachineRecord => ({
  machine: machineOf(stages, { hours }),
  changes: [change(90), change(60), change(30)],
  tests: [],
  today: TODAY,
  works: () => true,
  seed: 3,
  ...over,
});
const historyOf = (r: MachineRecord, rule: Rule = HALF, stage = r.machine.stages[0] ?? bag) =>
  historyOfStage(machineFacts(r), stage, rule);
const middleOf = (r: MachineRecord, stage = r.machine.stages[0] ?? bag): number =>
  outlookOf(machineFacts(r), stage).forecast?.reached[2] ?? Number.NaN;

describe('what a stage has behind it, from the record', () => {
  it('intervals with why they ended and what was found; days of work where no hours are on record', () => {
    const looked = {
      ...bag,
      looks: [
        { day: ago(60), share: 0.4 },
        { day: ago(10), share: 0.2 },
      ],
    };
    const h = historyOf(record({ changes: [change(90, 'precaution'), change(60), change(30, 'damage')] }, [looked]));
    expect(h.counts).toBe('days');
    expect(h.past.map((i) => [i.load, i.end, i.marks.map((m) => m.kind === 'share' && m.share)])).toEqual([
      [30, 'early', []],
      [30, 'limit', [0.8]],
      [30, 'other', []],
    ]);
    // From the middle of the day of its change to the end of today.
    expect(h.running).toMatchObject({ load: 30.5, marks: [{ kind: 'share', load: 20, share: 0.4 }] });
    const weekdays = { ...record(), works: worksOn({ weekdays: [1, 2, 3, 4, 5], closed: [] }, TODAY) };
    expect(historyOf(weekdays).past[1]?.load).toBeCloseTo((30 * 5) / 7, -0.5);
  });

  it.each([
    ['gauge', 'limit'],
    ['fill', 'limit'],
    ['test', 'limit'],
    ['date', 'bound'],
    ['count', 'bound'],
    ['precaution', 'early'],
    ['damage', 'other'],
  ] as const)('a change because of %s ended its interval %s', (reason, end) => {
    expect(historyOf(record({ changes: [change(30, reason)] })).past.map((i) => i.end)).toEqual([end]);
  });

  it('a look that has fallen is of another bag, and starts an interval of its own', () => {
    const looks = [
      { day: ago(50), share: 0.4 },
      { day: ago(44), share: 0.75 },
      { day: ago(40), share: 0.1 },
      { day: ago(20), share: 0.5 },
    ];
    const h = historyOf(record({ changes: [change(90), change(60)] }, [{ ...bag, looks }]));
    expect(h.past.map((i) => i.load)).toEqual([30, 30, 18]);
    expect(h.running.load).toBeCloseTo(42.5, 9);
    // Where between the two looks it was is not known.
    expect(h.past[2]?.unsure ?? 0).toBeGreaterThan(h.past[0]?.unsure ?? 1);
    // The fall is asked about until a change between the looks, or after them, is on record.
    const asked = (changes: readonly ChangeRecord[]) =>
      outlookOf(machineFacts(record({ changes }, [{ ...bag, looks }])), { ...bag, looks }).basis.fallen;
    expect(asked([change(90), change(60)])).toEqual({ before: looks[1], after: looks[2] });
    expect(asked([change(90), change(60), change(42)])).toBeNull();
    expect(asked([])).toEqual({ before: looks[1], after: looks[2] });
  });

  it('counts run hours where they are on record: of a day, of a week in one, of a meter that is read now and then', () => {
    expect(historyOf(record({}, [bag], hoursOf(100))).past.map((i) => Math.round(i.load))).toEqual([60, 60, 60]);
    const weekly = hoursOf(100)
      .filter((_, i) => i % 7 === 6)
      .map((h) => ({ ...h, hours: 14 }));
    const meter = hoursOf(100)
      .filter((_, i) => i % 10 === 9)
      .map((h) => ({ ...h, hours: 20 }));
    for (const hours of [weekly, meter]) {
      const h = historyOf(record({}, [bag], hours));
      expect(h.counts).toBe('hours');
      for (const i of h.past.slice(1)) expect(Math.abs(i.load - 60)).toBeLessThan(5);
      // The days since the last entry were run too.
      expect(h.running.load).toBeGreaterThan(55);
    }
  });

  it('a hole of a diary in which something was recorded was worked; one in which nothing was counts by its chance', () => {
    const holed = hoursOf(119).filter((h) => h.day < ago(58) || h.day > ago(32));
    const silent = historyOf(record({ changes: [change(60), change(30)] }, [bag], holed)).past.at(-1);
    const busy = historyOf(record({ changes: [change(60), change(45), change(30)] }, [bag], holed)).past.slice(1);
    const whole = historyOf(record({ changes: [change(60), change(30)] }, [bag], hoursOf(119))).past.at(-1)?.load ?? 0;
    const worked = busy.reduce((sum, i) => sum + i.load, 0);
    expect(worked / whole).toBeGreaterThan(0.85);
    // A machine of which little else is recorded: idle or not written are about as likely. Its load is unsure.
    expect((silent?.load ?? 0) / worked).toBeGreaterThan(0.3);
    expect((silent?.load ?? 0) / worked).toBeLessThan(0.6);
    expect(silent?.unsure ?? 0).toBeGreaterThan(0.15);
    // A machine that is looked at each day when it works was idle while nobody looked.
    const looked = { ...bag, looks: holed.map((h) => ({ day: h.day, share: 0.1 })) };
    const idle = historyOf(record({ changes: [change(60), change(30)] }, [looked], holed)).past.at(-1);
    expect((idle?.load ?? 0) / worked).toBeLessThan(0.2);
  });

  it('starts from what its kind lasts, shorter for a smaller fill, in hours where hours are counted', () => {
    const bare = (over: Partial<Parameters<typeof stageOf>[1]> = {}) =>
      stageOf(1, { firstUsedOn: ago(10), rules: [], ...over });
    const template = (stage: ReturnType<typeof stageOf>, rule: Rule, hours: Hours = []) =>
      historyOf(record({ changes: [] }, [stage], hours), rule, stage).template.load;
    const loss: Rule = { kind: 'flowLost', share: 0.2 };
    const worked = (days: number) => (days * 5) / 7;
    expect(template(bare(), loss)).toBeCloseTo(worked(30), 9);
    expect(template(bare({ kind: 'hepa' }), loss)).toBeCloseTo(worked(400), 9);
    expect(template(bare({ kind: 'ring' }), loss)).toBeCloseTo(worked(180), 9);
    // A bag that is changed half full lasts half as long; never less than three tenths of a whole one.
    expect(template(bare(), HALF)).toBeCloseTo(worked(15), 9);
    expect(template(bare(), { kind: 'fill', share: 0.1 })).toBeCloseTo(worked(9), 9);
    // 1.8 run hours are a usual day.
    expect(template(bare(), loss, hoursOf(40))).toBeCloseTo(54, 9);
    // The school's own calendar knows this stage better than its kind does.
    expect(template(bare({ rules: [ruled({ kind: 'calendarDays', days: 21 })] }), HALF)).toBeCloseTo(worked(21), 9);
  });

  it('a gauge is between two shares of its limit, on its own stage alone', () => {
    const tests = [zoneTest(20, 'green'), zoneTest(12, 'amber'), zoneTest(5, 'red'), zoneTest(4, 'red', 9)];
    const marks = (zone: 'amber' | 'red') =>
      historyOf(record({ tests }), { kind: 'gaugeZone', zone }).running.marks.map((m) =>
        m.kind === 'zone' ? [m.above, m.below].map((x) => x !== null && Math.sign(Math.round(10 * (x - 1)))) : [],
      );
    expect(marks('red')).toEqual([
      [false, -1],
      [-1, 0],
      [0, false],
    ]);
    expect(marks('amber')).toEqual([
      [false, 0],
      [0, 1],
      [1, false],
    ]);
  });

  it('marks what lies before a new path, not what was another dust', () => {
    const dust = historyOf(record({}, [bag], hoursOf(119, 45)));
    expect(dust.past.every((i) => !i.beforeRegime)).toBe(true);
    const path = { ...record(), machine: machineOf([bag], { reshapedAt: `${ago(75)}T08:00:00.000Z` }) };
    expect(historyOf(path).past.map((i) => i.beforeRegime)).toEqual([true, true, false]);
  });
});

describe('forecasts from the record', () => {
  it('dust weighs: what filled a bag in a third of the hours fills the next one as fast', () => {
    // Softwood until 60 days ago: 30 days a bag. Filler since: 10 days a bag. The bag that runs began with softwood.
    const changes = [
      change(150),
      change(120),
      change(90),
      change(60),
      change(50),
      change(40),
      change(30),
      change(20),
      change(10),
    ];
    const first = { ...bag, firstUsedOn: ago(180) };
    const mixed = record({ changes }, [first], hoursOf(179, 60));
    const facts = machineFacts(mixed);
    const [soft, hard] = ['softwood', 'filler'].map(
      (d) =>
        facts.clock.at(facts.today - (d === 'filler' ? 20 : 100)) -
        facts.clock.at(facts.today - (d === 'filler' ? 21 : 101)),
    );
    expect((hard ?? 0) / (soft ?? 1)).toBeGreaterThan(1.7);
    expect((hard ?? 0) / (soft ?? 1)).toBeLessThan(3.5);
    expect(middleOf(mixed, first)).toBeLessThan(6);
  });

  it('a count is as old as what it counts: the longer the bag is in, the sooner the next one', () => {
    const wrap = stageOf(2, {
      kind: 'prefilter',
      name: 'wrap',
      firstUsedOn: ago(120),
      rules: [ruled({ kind: 'countOfChanges', countedStageId: 1, countedStageName: 'bag', count: 4 }, 2, 2)],
    });
    const at = (days: number) =>
      middleOf(record({ changes: [change(days + 60), change(days + 30), change(days)] }, [bag, wrap]), wrap);
    expect(at(28)).toBeLessThan(at(1) - 10);
    expect(at(28)).toBeGreaterThan(0);
    // Full, it was reached on the day of its last bag, and is past by the days since.
    const full = record({ changes: [change(90), change(60), change(30), change(6)] }, [bag, wrap]);
    expect(outlookOf(machineFacts(full), wrap).forecast).toMatchObject({ overdue: 1, reached: [-6, -6, -6, -6, -6] });
  });

  it('run hours come when so many more are run; without any on record, by the days the last ones took', () => {
    const by: Rule = { kind: 'runHours', hours: 80 };
    const stage = { ...bag, rules: [ruled(by)] };
    const logged = record(
      { changes: [change(100, 'date'), change(60, 'date'), change(20, 'date')] },
      [stage],
      hoursOf(119),
    );
    expect(Math.abs(middleOf(logged, stage) - 20)).toBeLessThan(4);
    expect(outlookOf(machineFacts(record({ changes: [change(20, 'date')] }, [stage])), stage).forecast).toBeNull();
    const told = record({ changes: [change(100, 'date'), change(60, 'date'), change(20, 'date')] }, [stage]);
    expect(Math.abs(middleOf(told, stage) - 20)).toBeLessThan(12);
  });

  it('the board names the middle of the forecast, a fixed day where that comes first, and today where it may well be past', () => {
    const stage = { ...bag, rules: [ruled(HALF), ruled({ kind: 'calendarDays', days: 365 }, 2)] };
    const due = (r: MachineRecord) => dueOfMachine({ ...r, outlooks: outlooksOf(r) })[0];
    const soon = record({ changes: [change(100), change(70), change(40), change(10)] }, [stage]);
    expect(due(soon)?.daysLeft).toBe(Math.round(middleOf(soon, stage)));
    expect(due(soon)?.binding).toMatchObject({ rule: HALF, dateIs: 'expected' });
    const monthly = { ...bag, rules: [ruled(HALF), ruled({ kind: 'calendarDays', days: 14 }, 2)] };
    expect(due(record({ changes: [change(100), change(70), change(40), change(10)] }, [monthly]))).toMatchObject({
      daysLeft: 4,
      binding: { rule: { kind: 'calendarDays' }, dateIs: 'fixed' },
    });
    const nearly = { ...stage, looks: [{ day: ago(1), share: 0.55 }] };
    expect(due(record({ changes: [change(120), change(90), change(60), change(29)] }, [nearly]))?.daysLeft).toBe(0);
    const full = { ...stage, looks: [{ day: TODAY, share: 1 }] };
    expect(
      due(record({ changes: [change(120), change(90), change(60), change(31)] }, [full]))?.daysLeft,
    ).toBeLessThanOrEqual(0);
  });

  it('a fixed day to come does not hide a bag that may well be full today', () => {
    const outlook = {
      stageId: 1,
      basis: {
        intervals: 3,
        inspections: 1,
        counts: 'hours' as const,
        regimeSince: null,
        fallen: null,
        uncounted: null,
        unknown: [],
      },
      forecast: {
        reached: [-9, -4, 2, 2, 2] as const,
        whole: [20, 25, 30, 32, 32] as const,
        binding: [
          { rule: 2, chance: 0.6 },
          { rule: 1, chance: 0.4 },
        ],
        middles: [
          { rule: 1, middle: 3 },
          { rule: 2, middle: 2 },
        ],
        overdue: 0.42,
        seenPast: null,
      },
    };
    const changes = [change(120), change(90), change(60), change(30)];
    const soon = record({ changes }, [{ ...bag, rules: [ruled(HALF), ruled({ kind: 'calendarDays', days: 32 }, 2)] }]);
    const due = (r: MachineRecord, outlooks = outlooksOf(r)) => dueOfMachine({ ...r, outlooks })[0];
    expect(due(soon, [outlook])).toMatchObject({ daysLeft: 0, binding: { rule: HALF } });
    const sure = { ...outlook, forecast: { ...outlook.forecast, reached: [1, 2, 2, 2, 2] as const, overdue: 0.05 } };
    expect(due(soon, [sure])).toMatchObject({ daysLeft: 2, binding: { rule: { kind: 'calendarDays' } } });
    const past = { ...bag, rules: [ruled(HALF), ruled({ kind: 'calendarDays', days: 25 }, 2)] };
    expect(due(record({ changes }, [past]))).toMatchObject({
      daysLeft: -5,
      binding: { rule: { kind: 'calendarDays' } },
    });
  });

  it('is overdue only since a day on which somebody saw its limit reached, whatever the odds', () => {
    const left = [change(115), change(100), change(85), change(70)];
    const due = (looks: (typeof bag)['looks'], today = TODAY) => {
      const r = record({ changes: left, today }, [{ ...bag, looks }]);
      return dueOfMachine({ ...r, outlooks: outlooksOf(r) })[0]?.daysLeft;
    };
    // Four lives and more without a change: a look is due, and nothing is proven.
    expect(due([])).toBe(0);
    const full = { day: ago(3), share: 0.9 };
    expect(due([full])).toBe(-3);
    expect(due([full, { day: ago(1), share: 0.95 }])).toBe(-3);
    expect(due([{ day: ago(0), share: 0.9 }])).toBe(0);
    // The newest look shows another bag.
    expect(due([full, { day: ago(1), share: 0.1 }])).toBeGreaterThan(0);
  });

  it('a stretch of several lives was several bags: the middle of the forecast is not far in the past', () => {
    const bags = Array.from({ length: 6 }, (_, i) => change(170 - 15 * i));
    const long = (since: number) =>
      middleOf(record({ changes: [...bags, change(since)] }, [{ ...bag, firstUsedOn: ago(185) }]));
    expect(long(13)).toBeGreaterThan(-1);
    expect(long(70)).toBeGreaterThan(-20);
  });

  it('a gauge that is red today is due today, not tomorrow', () => {
    const red: Rule = { kind: 'gaugeZone', zone: 'red' };
    const filter = stageOf(1, { kind: 'mainFilter', name: 'filter', firstUsedOn: ago(120), rules: [ruled(red)] });
    const tests = [zoneTest(20, 'green'), zoneTest(9, 'amber'), zoneTest(0, 'red')];
    const seen = record({ tests, changes: [] }, [filter]);
    expect(dueOfMachine({ ...seen, outlooks: outlooksOf(seen) })[0]?.daysLeft).toBeLessThanOrEqual(0);
  });

  it('a gauge across two filters is red for the second one only while the first one is fresh; green holds for both', () => {
    const gaugeOf = (
      spans: 'own' | 'withBefore' | 'unknown',
      preChanged: number,
      {
        zone = 'red',
        hour = '10',
        own = [],
      }: { zone?: 'red' | 'green'; hour?: string; own?: readonly ChangeRecord[] } = {},
    ) => {
      const red: Rule = { kind: 'gaugeZone', zone: 'red' };
      const pre = stageOf(1, { kind: 'prefilter', name: 'pre-filter', firstUsedOn: ago(300) });
      const plain = stageOf(2, { kind: 'hepa', firstUsedOn: ago(300), rules: [ruled(red, 2, 2)] });
      const gaugePa = { amberPa: 1200, redPa: 2500, spans };
      const hepa = { ...plain, spec: { ...plain.spec, fit: { ...plain.spec.fit, gaugePa } } };
      const r = record(
        {
          tests: [zoneTest(200, zone, 2)],
          changes: [{ ...change(preChanged), performedAt: `${ago(preChanged)}T${hour}:00:00.000Z` }, ...own],
        },
        [pre, hepa],
      );
      const due = dueOfMachine({ ...r, outlooks: outlooksOf(r) }).find((d) => d.stageId === 2)?.daysLeft ?? Number.NaN;
      const facts = machineFacts(r);
      return {
        due,
        marks: historyOfStage(facts, hepa, red).running.marks,
        said: outlookOf(facts, hepa).basis.uncounted,
      };
    };
    // Two hundred days red by its own gauge is overdue; by a gauge across an old pre-filter it is nothing.
    expect(gaugeOf('own', 280).due).toBe(-200);
    for (const spans of ['withBefore', 'unknown'] as const) {
      const old = gaugeOf(spans, 280);
      expect(old.due).toBeGreaterThanOrEqual(0);
      expect(old.marks).toEqual([]);
      expect(old.said).toEqual({ day: ago(200), zone: 'red', before: 'pre-filter' });
      const fresh = gaugeOf(spans, 203);
      expect(fresh.due).toBe(-200);
      expect(fresh.said).toBeNull();
    }
    // On the day of the reading, at 9: a pre-filter changed at 10 was the old one when the gauge was read.
    expect(gaugeOf('withBefore', 200, { hour: '10' }).marks).toEqual([]);
    expect(gaugeOf('withBefore', 200, { hour: '08' }).due).toBe(-200);
    // The filter that the reading was of is out: nothing is left to ask.
    expect(gaugeOf('withBefore', 280, { own: [change(100, 'gauge', 2)] }).said).toBeNull();
    expect(gaugeOf('withBefore', 280, { zone: 'green' }).marks).toEqual(gaugeOf('own', 280, { zone: 'green' }).marks);
  });

  it('some days later, with nothing recorded, it is so much nearer', () => {
    const r = record();
    const now = outlookOf(machineFacts(r), bag);
    const later = laterBy(now, 5);
    expect((later.forecast?.reached[2] ?? 0) - (now.forecast?.reached[2] ?? 0)).toBe(-5);
    expect(later.forecast?.overdue ?? 0).toBeGreaterThanOrEqual(now.forecast?.overdue ?? 1);
    expect(laterBy({ ...now, forecast: null }, 5).forecast).toBeNull();
  });

  it.each([
    ['of one record', [change(30)]],
    ['out of order', [change(30), change(90), change(60)]],
    ['twice on one day', [change(30), change(30), change(60)]],
    ['in the future', [change(-3), change(40)]],
  ] as const)('a history %s gives days that are days', (_what, changes) => {
    const told = outlookOf(machineFacts(record({ changes })), bag).forecast;
    expect(told?.reached.every(Number.isFinite)).toBe(true);
    expect([...(told?.reached ?? [])].sort((a, b) => a - b)).toEqual(told?.reached);
  });

  it('ten years, a rule that never binds, and a yard that never works are answered too', () => {
    const old = { ...bag, firstUsedOn: ago(3650), rules: [ruled(HALF), ruled({ kind: 'runHours', hours: 90_000 }, 2)] };
    const changes = Array.from({ length: 120 }, (_, i) => change(30 * (120 - i)));
    expect(Math.abs(middleOf(record({ changes }, [old], hoursOf(3649)), old))).toBeLessThan(30);
    const never = record({ works: () => false });
    expect(outlookOf(machineFacts(never), bag).forecast?.reached.every(Number.isFinite)).toBe(true);
  });
});
