import { describe, expect, it } from 'vitest';
import { historyOfStage, type MachineRecord, outlookOf } from '@/core/forecast/from-record';
import { addDays } from '@/core/calendar/calendar-date';
import type { Rule } from '@/core/interval/rules';
import type { ChangeReason, ChangeRecord } from '@/core/record/records';
import { machineOf, stageOf } from '../../support/machines';

const TODAY = '2026-11-24';
const ago = (days: number) => addDays(TODAY, -days);
const change = (days: number, reason: ChangeReason = 'fill'): ChangeRecord => ({
  id: days,
  machineId: 1,
  stageId: 1,
  performedAt: `${ago(days)}T10:00:00.000Z`,
  recordedAt: `${ago(days)}T10:00:00.000Z`,
  performedOn: ago(days),
  by: 'MK',
  note: '',
  supersedesId: null,
  supersededById: null,
  voided: false,
  correctionReason: null,
  reason,
  partId: 1,
  quantity: 1,
  beforeTestId: null,
  jobId: null,
  how: null,
});
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
