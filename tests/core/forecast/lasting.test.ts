import { describe, expect, it } from 'vitest';
import { addDays } from '@/core/calendar/calendar-date';
import { lastingOf, type StageLasting } from '@/core/forecast/lasting';
import type { MachineRecord } from '@/core/forecast/machine-facts';
import type { Rule } from '@/core/interval/rules';
import { changeRecord, machineOf, stageOf } from '../../support/machines';

// How long a bag lasts a job, against what anybody would reckon on paper from bags of 60 h each: two hours a day, a bag a month.

const TODAY = '2026-11-24';
const ago = (days: number) => addDays(TODAY, -days);
const FULL: Rule = { kind: 'fill', share: 1 };
const hoursSince = (days: number) =>
  Array.from({ length: days + 1 }, (_, i) => ({ day: ago(days - i), hours: 2, dust: 'oak' }));

const yard = (since: number, rules: readonly Rule[] = [FULL], logged = true): MachineRecord => {
  const changes = [180, 150, 120, 90, 60, 30].map((d) => d + since);
  const bag = stageOf(1, {
    kind: 'bag',
    name: 'bag',
    firstUsedOn: ago(210 + since),
    rules: rules.map((rule, i) => ({ id: i + 1, stageId: 1, rule, school: '' })),
  });
  return {
    machine: machineOf([bag], { hours: logged ? hoursSince(210 + since) : [] }),
    changes: [...changes, since].map((d) => changeRecord({ id: d, performedOn: ago(d), reason: 'fill' })),
    tests: [],
    today: TODAY,
    works: () => true,
    seed: 5,
  };
};
const lasting = (record: MachineRecord, hours: number | null): StageLasting => {
  const [one] = lastingOf(record, hours);
  if (!one) throw new Error('nothing lasts');
  return one;
};

describe('a bag through the hours of a job', () => {
  it('of 60 h has about 40 h left after ten days of 2 h, and lasts a day but not a month', () => {
    const { hoursLeft, hoursKnown, intervals } = lasting(yard(10), null);
    expect(hoursLeft[1]).toBeGreaterThan(25);
    expect(hoursLeft[1]).toBeLessThan(50);
    expect([hoursKnown, intervals]).toEqual([true, 7]);
    expect(lasting(yard(10), 8).lasts).toBeGreaterThan(0.9);
    expect(lasting(yard(10), 60).lasts).toBeLessThan(0.15);
  });

  it('fuller it lasts less surely, and longer jobs less surely still', () => {
    const chances = [2, 10, 20, 28].map((since) => lasting(yard(since), 16).lasts ?? 0);
    expect([...chances].sort((a, b) => b - a)).toEqual(chances);
    const jobs = [0, 8, 24, 80].map((h) => lasting(yard(12), h).lasts ?? 0);
    expect([...jobs].sort((a, b) => b - a)).toEqual(jobs);
  });

  it('a rule of run hours is exact, and the rule that binds first speaks', () => {
    const record = yard(10, [FULL, { kind: 'runHours', hours: 25 }]);
    // Ten days of 2 h and the afternoon of the change.
    expect(lasting(record, 5)).toMatchObject({ hoursLeft: [4, 4, 4], lasts: 0 });
    expect(lasting(record, 4).lasts).toBe(1);
  });

  it('without hours on record a usual day is taken and said; a rule of the calendar has a date, and is not asked', () => {
    expect(lasting(yard(10, [FULL], false), 8)).toMatchObject({ hoursKnown: false });
    expect(lastingOf(yard(10, [{ kind: 'calendarDays', days: 30 }]), 8)).toEqual([]);
    expect(lastingOf(yard(10, [{ kind: 'runHours', hours: 25 }], false), 8)).toEqual([]);
  });
});
