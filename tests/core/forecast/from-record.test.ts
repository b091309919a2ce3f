import { describe, expect, it } from 'vitest';
import { historyOfStage, type MachineRecord, outlookOf } from '@/core/forecast/from-record';
import { addDays } from '@/core/calendar/calendar-date';
import type { Rule } from '@/core/interval/rules';
import type { ChangeReason, ChangeRecord } from '@/core/record/records';
import { changeRecord, machineOf, stageOf } from '../../support/machines';

const TODAY = '2026-11-24';
const ago = (days: number) => addDays(TODAY, -days);
const change = (days: number, reason: ChangeReason = 'fill'): ChangeRecord =>
  changeRecord({ id: days, performedOn: ago(days), reason });
const HALF: Rule = { kind: 'fill', share: 0.5 };
const bag = stageOf(1, {
  kind: 'bag',
  name: 'bag',
  firstUsedOn: ago(120),
  rules: [{ id: 1, stageId: 1, rule: HALF, school: 'half full' }],
});
const hoursOf = (from: number, dustUntil = 0) =>
  Array.from({ length: from + 1 }, (_, i) => ({
    day: ago(from - i),
    hours: 2,
    dust: from - i > dustUntil && dustUntil > 0 ? 'softwood' : 'filler',
  }));
const record = (
  over: Partial<MachineRecord> = {},
  stage = bag,
  hours: ReturnType<typeof hoursOf> = [],
): MachineRecord => ({
  machine: machineOf([stage], { hours }),
  changes: [change(90), change(60), change(30)],
  losses: [],
  zones: [],
  today: TODAY,
  works: () => true,
  seed: 3,
  ...over,
});

describe('what a stage has behind it, from the record', () => {
  it('intervals with why they ended and what was found as a share of the limit, in days where no hours are on record', () => {
    const looked = {
      ...bag,
      looks: [
        { day: ago(60), share: 0.4 },
        { day: ago(10), share: 0.2 },
      ],
    };
    const h = historyOfStage(
      record({ changes: [change(90, 'precaution'), change(60, 'fill'), change(30, 'damage')] }, looked),
      looked,
      HALF,
    );
    expect(h.counts).toBe('days');
    expect(h.past.map((i) => [i.load, i.end, i.found])).toEqual([
      [30, 'early', null],
      [30, 'limit', 0.8],
      [30, 'other', null],
    ]);
    expect(h.load).toBe(30);
    expect(h.inspections).toEqual([{ kind: 'share', load: 20, share: 0.4, deviation: expect.any(Number) }]);
  });

  it('counts in run hours where they reach back to the interval before, and marks what lies before a new dust or a new path', () => {
    const whole = historyOfStage(record({}, bag, hoursOf(100)), bag, HALF);
    expect(whole.counts).toBe('hours');
    // The one that began before hours were written down is left out.
    expect(whole.past.map((i) => i.load)).toEqual([60, 60]);
    expect(whole.past.every((i) => !i.beforeRegime)).toBe(true);
    // Another dust until 45 days ago: what began before that is of another regime.
    const dust = historyOfStage(record({}, bag, hoursOf(100, 45)), bag, HALF);
    expect(dust.past.map((i) => i.beforeRegime)).toEqual([true, true]);
    const path = {
      ...record({}, bag, hoursOf(100)),
      machine: machineOf([bag], { hours: hoursOf(100), reshapedAt: `${ago(75)}T08:00:00.000Z` }),
    };
    expect(historyOfStage(path, bag, HALF).past.map((i) => i.beforeRegime)).toEqual([true, false]);
  });

  it('a count is as old as what it counts: the longer the bag is in, the sooner the next one', () => {
    const wrap = stageOf(2, {
      kind: 'prefilter',
      name: 'wrap',
      firstUsedOn: ago(120),
      rules: [
        {
          id: 2,
          stageId: 2,
          rule: { kind: 'countOfChanges', countedStageId: 1, countedStageName: 'bag', count: 4 },
          school: '',
        },
      ],
    });
    const at = (days: number) => {
      const r = {
        ...record({ changes: [change(days + 60), change(days + 30), change(days)] }),
        machine: machineOf([bag, wrap]),
      };
      return outlookOf(r, wrap).forecast?.reached[2] ?? Number.NaN;
    };
    expect(at(28)).toBeLessThan(at(1) - 10);
    expect(at(28)).toBeGreaterThan(0);
    // Full, it was reached on the day of its last bag, and is past by the days since.
    const full = {
      ...record({ changes: [change(90), change(60), change(30), change(6)] }),
      machine: machineOf([bag, wrap]),
    };
    expect(outlookOf(full, wrap).forecast).toMatchObject({ overdue: 1, reached: [-6, -6, -6, -6, -6] });
  });

  it('starts from what its kind lasts, shorter for a smaller fill, in hours where hours are counted', () => {
    const bare = (over: Partial<Parameters<typeof stageOf>[1]> = {}) =>
      stageOf(1, { firstUsedOn: ago(10), rules: [], ...over });
    const template = (stage: ReturnType<typeof stageOf>, rule: Rule, hours: ReturnType<typeof hoursOf> = []) =>
      historyOfStage(record({ changes: [] }, stage, hours), stage, rule).template;
    const loss: Rule = { kind: 'flowLost', share: 0.2 };
    expect(template(bare(), loss)).toEqual({ load: 30, spread: 0.7 });
    expect(template(bare({ kind: 'hepa' }), loss).load).toBe(400);
    expect(template(bare({ kind: 'ring' }), loss).load).toBe(180);
    // A bag that is changed half full lasts half as long; never less than three tenths of a whole one.
    expect(template(bare(), HALF).load).toBe(15);
    expect(template(bare(), { kind: 'fill', share: 0.1 }).load).toBeCloseTo(9, 9);
    // 1.8 run hours are a usual day.
    expect(template(bare(), loss, hoursOf(40)).load).toBeCloseTo(54, 9);
    // The school's own calendar knows this stage better than its kind does.
    const month = bare({ rules: [{ id: 1, stageId: 1, rule: { kind: 'calendarDays', days: 21 }, school: '' }] });
    expect(template(month, HALF).load).toBe(21);
    const counted = bare({ rules: [{ id: 1, stageId: 1, rule: { kind: 'runHours', hours: 50 }, school: '' }] });
    expect(template(counted, loss).load).toBe(30);
  });

  it('counts the load since the last change, of this stage alone', () => {
    const other = { ...change(5), stageId: 9 };
    expect(historyOfStage(record({ changes: [change(40), other] }), bag, HALF).load).toBe(40);
    // Two hours a day, today and the day of the change among them.
    expect(historyOfStage(record({ changes: [change(40)] }, bag, hoursOf(120)), bag, HALF).load).toBe(82);
    expect(historyOfStage(record({ changes: [] }), bag, HALF).load).toBe(120);
    // Entered for tomorrow: nothing was run yet.
    const ahead = { ...bag, firstUsedOn: addDays(TODAY, 3) };
    expect(historyOfStage(record({ changes: [] }, ahead), ahead, HALF).load).toBe(0);
  });

  it('hears a flow test as a share of the limit, no surer than a tenth, and only since the last change', () => {
    const loss: Rule = { kind: 'flowLost', share: 0.2 };
    const seen = (deviation: number, days: number, stageId = 1) => ({
      stageId,
      day: ago(days),
      ofLimit: 0.5,
      deviation,
    });
    const h = historyOfStage(
      record({ losses: [seen(0.02, 10), seen(0.3, 5), seen(0.3, 45), seen(0.3, 30), seen(0.3, 8, 9)] }),
      bag,
      loss,
    );
    expect(h.inspections).toEqual([
      { kind: 'share', load: 20, share: 0.5, deviation: 0.1 },
      { kind: 'share', load: 25, share: 0.5, deviation: 0.3 },
    ]);
    expect(
      historyOfStage(record({ losses: [seen(0.3, 5)] }), bag, { kind: 'runHours', hours: 40 }).inspections,
    ).toEqual([]);
  });

  it('amber is the limit of an amber rule, and short of a red one', () => {
    const zones = (['green', 'amber', 'red'] as const).map((zone, i) => ({ stageId: 1, day: ago(20 - i), zone }));
    const above = (zone: 'amber' | 'red') =>
      historyOfStage(record({ zones }), bag, { kind: 'gaugeZone', zone }).inspections.map(
        (i) => i.kind === 'side' && i.above,
      );
    expect(above('amber')).toEqual([false, true, true]);
    expect(above('red')).toEqual([false, false, true]);
  });

  it.each([
    ['gauge', 'limit'],
    ['fill', 'limit'],
    ['test', 'limit'],
    ['date', 'early'],
    ['count', 'early'],
    ['precaution', 'early'],
    ['damage', 'other'],
  ] as const)('a change because of %s ended its interval %s', (reason, end) => {
    expect(historyOfStage(record({ changes: [change(30, reason)] }), bag, HALF).past.map((i) => i.end)).toEqual([end]);
  });

  it('a gauge zone is seen on which side of its limit it was', () => {
    const red: Rule = { kind: 'gaugeZone', zone: 'red' };
    const h = historyOfStage(
      record({
        zones: [
          { stageId: 1, day: ago(20), zone: 'amber' },
          { stageId: 1, day: ago(5), zone: 'red' },
          { stageId: 9, day: ago(5), zone: 'green' },
        ],
      }),
      bag,
      red,
    );
    expect(h.inspections).toEqual([
      { kind: 'side', load: 10, share: 1, above: false },
      { kind: 'side', load: 25, share: 1, above: true },
    ]);
  });
});
