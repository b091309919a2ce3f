import { describe, expect, it } from 'vitest';
import type { Machine } from '@/core/machine/machine';
import type { ChangeRecord, TestRecord } from '@/core/record/records';
import { pickBaseline } from '@/core/record/series';
import { addDays } from '@/core/calendar/calendar-date';
import { judgeTest, previousOf } from '@/core/status/judge-test';
import { machineStatus } from '@/core/status/machine-status';
import { sayNeed } from '@/messages/needs';
import type { TestReadings } from '@/core/measure/test-readings';
import { machineOf, stageOf } from '../../support/machines';
import { flowTest } from '../../support/readings';

const stage = stageOf;

const machine = machineOf([
  stage(1, { rules: [{ id: 1, stageId: 1, rule: { kind: 'calendarDays', days: 14 }, school: '' }] }),
  stage(2, { kind: 'fan', name: 'fan' }),
  stage(3, { kind: 'hepa', name: 'HEPA' }),
]);

const work = (id: number, performedAt: string) => ({
  id,
  machineId: 1,
  performedAt,
  recordedAt: performedAt,
  by: 'MK',
  note: '',
  supersedesId: null,
  supersededById: null,
  voided: false,
  correctionReason: null,
});

const test = (
  id: number,
  day: string,
  litres: number,
  { raw, ...over }: Partial<TestRecord> & { raw?: Partial<TestReadings> } = {},
): TestRecord => ({
  ...work(id, `${day}T10:00:00.000Z`),
  readings: [],
  test: flowTest(
    [litres - 0.05, litres, litres + 0.05].map((l) => l / 1000),
    { hoseBoreM: 0.027, ...raw },
  ),
  isBaseline: false,
  afterChangeId: null,
  bagState: 'asFound',
  configuration: '',
  use: { wheelM: null, ductLoad: null },
  ...over,
});

const change = (id: number, day: string): ChangeRecord => ({
  ...work(id, `${day}T12:00:00.000Z`),
  performedOn: day,
  stageId: 1,
  reason: 'fill',
  partId: null,
  quantity: 0,
  beforeTestId: null,
  jobId: null,
  how: null,
});

const thresholds = { warnLoss: 0.15, actLoss: 0.25 };
const base = test(1, '2026-01-01', 15, { isBaseline: true });
const status = (
  over: { machine?: Machine; tests?: readonly TestRecord[]; changes?: readonly ChangeRecord[]; today?: string } = {},
) =>
  machineStatus({
    machine,
    tests: [base],
    changes: [change(1, '2026-02-01')],
    thresholds,
    today: '2026-02-03',
    outlooks: [],
    ...over,
  });

describe('the one thing a machine needs next', () => {
  it.each([
    ['never measured', [base], 'measureAgain'],
    ['as it should be', [base, test(2, '2026-02-02', 14.8)], 'nothing'],
    ['falling', [base, test(2, '2026-02-02', 12.4)], 'lowFlow'],
    ['too slow in the hose', [base, test(2, '2026-02-02', 10)], 'belowClassLimit'],
    ['more than the baseline', [base, test(2, '2026-02-02', 16.5)], 'moreFlow'],
  ] as const)('%s', (_what, tests, kind) => {
    expect(status({ tests }).need.kind).toBe(kind);
  });

  it('a baseline counts at once; a change after it asks for a test', () => {
    expect(status({ changes: [change(1, '2025-12-31')], today: '2026-01-02' }).need.kind).toBe('baselineOnly');
    expect(status().need).toMatchObject({ kind: 'measureAgain', because: 'changed' });
    expect(judgeTest({ record: base, machine, tests: [base], thresholds }).baseline.outcome).toBe('isBaseline');
  });

  it('a stage due in seven days is on the board, in eight days not', () => {
    const due = (daysAhead: number) => {
      const dueOn = status().due[0]?.dueOn ?? '';
      const tests = [base, test(2, '2026-02-02', 14.8)];
      return status({ tests, today: addDays(dueOn, -daysAhead) }).need.kind;
    };
    expect([due(7), due(8)]).toEqual(['due', 'nothing']);
  });

  it('a part without a recorded change asks for its last change; it is not called overdue by years', () => {
    const need = status({
      machine: { ...machine, inServiceOn: machine.stages[0]!.firstUsedOn },
      changes: [],
      today: '2028-01-01',
    }).need;
    expect(need).toMatchObject({ kind: 'due', changeRecorded: false });
    expect(sayNeed(need, 'metric').sentence).toMatch(/last change not known/);
  });

  it('a missing stage comes before everything, and the class with it goes', () => {
    const gap = { ...machine, stages: machine.stages.map((s) => (s.id === 3 ? { ...s, missing: true } : s)) };
    const low = status({ machine: gap, tests: [base, test(2, '2026-02-02', 10)] });
    expect(low.need).toMatchObject({ kind: 'missingStage', stageName: 'HEPA' });
    const order = [
      low.need.urgency,
      status({ tests: [base, test(2, '2026-02-02', 10)] }).need.urgency,
      status({ today: '2026-03-01' }).need.urgency,
      status().need.urgency,
    ];
    expect([...order].sort((a, b) => a - b)).toEqual(order);
  });

  it('an overdue bag outranks a falling flow, a flow to act on outranks an overdue bag', () => {
    expect(status({ tests: [base, test(2, '2026-02-25', 12.4)], today: '2026-03-01' }).need.kind).toBe('due');
    expect(status({ tests: [base, test(2, '2026-02-25', 10)], today: '2026-03-01' }).need.kind).toBe('belowClassLimit');
  });

  it('a change after a bad reading asks to measure again', () => {
    const tests = [base, test(2, '2026-02-02', 10)];
    expect(status({ tests, changes: [change(1, '2026-02-01'), change(2, '2026-02-03')] }).need).toMatchObject({
      kind: 'measureAgain',
      because: 'changed',
    });
  });

  it('a withdrawn, superseded or unusable reading says nothing', () => {
    for (const over of [
      { voided: true },
      { supersededById: 9 },
      { raw: { failedPreconditions: ['settled' as const] } },
    ]) {
      const voided = test(2, '2026-02-02', 10, over);
      expect(status({ tests: [voided] }).need).toMatchObject({ kind: 'measureAgain', because: 'never' });
      const calm = { changes: [change(1, '2025-12-31')], today: '2026-01-02' };
      expect(status({ tests: [base, voided], ...calm }).need.kind).toBe('baselineOnly');
    }
  });

  it('a stage entered as missing is there again once its change stands, not once it was withdrawn', () => {
    const gap = { ...machine, stages: machine.stages.map((s) => (s.id === 1 ? { ...s, missing: true } : s)) };
    expect(status({ machine: gap }).machine.stages[0]?.missing).toBe(false);
    expect(
      status({ machine: gap, changes: [{ ...change(1, '2026-02-01'), voided: true }] }).machine.stages[0]?.missing,
    ).toBe(true);
  });

  it('a stage seen missing stays missing after an older change; only a change after that day puts it back', () => {
    const missingSince = '2026-01-20T08:00:00.000Z';
    const stages = machine.stages.map((s) => (s.id === 1 ? { ...s, missing: true, missingSince } : s));
    const after = (day: string) => status({ machine: { ...machine, stages }, changes: [change(1, day)] });
    expect(after('2026-01-10').machine.stages[0]?.missing).toBe(true);
    expect(after('2026-01-21').machine.stages[0]?.missing).toBe(false);
  });
});

describe('which tests are compared', () => {
  const wanted = { place: 'hoseEnd', method: 'flowMeter', excludeId: null, stageId: null } as const;
  const later = test(5, '2026-02-10', 15.2, { isBaseline: true });

  it('the newest baseline of the place and method, and none of another rig', () => {
    expect(pickBaseline([base, later], wanted)?.id).toBe(5);
    expect(pickBaseline([base, later], { ...wanted, place: 'inlet' })).toBeNull();
    expect(pickBaseline([base, later], { ...wanted, method: 'sealedSuction' })).toBeNull();
  });

  it('a test of the past is judged by the baseline of its own time, and never by itself', () => {
    expect(pickBaseline([base, later], { ...wanted, notAfter: '2026-02-01T00:00:00.000Z' })?.id).toBe(1);
    expect(pickBaseline([base], { ...wanted, excludeId: 1 })).toBeNull();
    expect(pickBaseline([{ ...base, voided: true }], wanted)).toBeNull();
  });

  it('the test before is the newest earlier one of the same kind', () => {
    const tests = [
      base,
      test(2, '2026-02-02', 14),
      test(3, '2026-02-03', 14, { raw: { place: 'inlet' } }),
      test(4, '2026-02-04', 14),
    ];
    expect(previousOf(tests[3]!, tests)?.id).toBe(2);
    expect(previousOf(tests[0]!, tests)).toBeNull();
  });

  it('of two tests of one moment neither is before the other', () => {
    const [a, b] = [test(2, '2026-02-02', 14), test(3, '2026-02-02', 14)];
    expect([previousOf(a, [a, b]), previousOf(b, [a, b])]).toEqual([null, null]);
  });
});
