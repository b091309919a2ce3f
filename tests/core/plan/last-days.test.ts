import { describe, expect, it } from 'vitest';
import { costOf, violationsOf } from '@/core/plan/cost';
import { examinationOutcome } from '@/core/plan/examination-plan';
import { explainPlan } from '@/core/plan/explain';
import { lastDayOf, lateWeight } from '@/core/plan/last-day';
import { bestPlan, bookPlan } from '@/core/plan/planner';
import { lateCost } from '@/core/plan/task-cost';
import { PLAN_OPTIONS, type PlannedStage, yardProblem } from '@/core/plan/yard-problem';
import { seeded } from '../../../demo/random';
import { crowdedProblem } from '../../bench/plan/made-problem';
import { planProblem, planTask } from '../../support/plans';

const plan = (p: ReturnType<typeof planProblem>) => bestPlan(p, { random: seeded(3).uniform, rounds: 400 });
const FIXED = [0, 0, 0, 0, 0] as const;
const exam = (over = {}) => planTask('exam', { minutes: 40, reached: FIXED, lastDay: 0, ...over });

// Facts of the trade: a machine past its examination is not used; its examination goes before any bag. Common practice, no
// published source.
describe('work with a last day', () => {
  it('an examination past its day goes before bags that are due on the same day', () => {
    const bags = Array.from({ length: 12 }, (_, i) =>
      planTask(`bag${i}`, { machine: 1, minutes: 40, reached: [-2, -1, 0, 1, 2] }),
    );
    // Each day holds one of them: twelve bags and an examination do not all fit into ten days.
    const p = planProblem([...bags, exam()]);
    const found = plan(p);
    expect(found.days.at(-1)).toBe(0);
    expect(found.unplaced).toBe(3);
  });

  it('goes on the next possible day where its own one is full, and says since when it is late', () => {
    const p = planProblem([planTask('fixed', { machine: 1, minutes: 45, lockedDay: 0 }), exam()], {
      machines: [
        { id: 'a', openingCost: 20, openingMinutes: 10, blockedDays: new Set([1, 2]), contained: false },
        { id: 'b', openingCost: 20, openingMinutes: 10, blockedDays: new Set(), contained: false },
      ],
    });
    const found = plan(p);
    expect(found.days).toEqual([0, 3]);
    expect(explainPlan(p, found.days)[1]).toEqual({ kind: 'late', lastDay: 0 });
  });

  it('each day past a last day costs more than the one before it', () => {
    const days = [0, 1, 2, 3, 10, 11].map(lateCost);
    expect(days[0]).toBe(0);
    expect((days[3] ?? 0) - (days[2] ?? 0)).toBeGreaterThan((days[2] ?? 0) - (days[1] ?? 0));
    expect((days[5] ?? 0) - (days[4] ?? 0)).toBeGreaterThan((days[3] ?? 0) - (days[2] ?? 0));
  });

  it('a crowded yard leaves no hazardous work late while its machine, its part and minutes were there', () => {
    for (let seed = 1; seed <= 4; seed += 1) {
      const made = crowdedProblem(seed);
      const p = {
        ...made,
        parts: [],
        tasks: made.tasks.map((t, i) => ({ ...t, part: null, lastDay: i % 5 === 0 ? Math.ceil(t.reached[3]) : null })),
      };
      const { days } = bestPlan(p, { random: seeded(seed).uniform, rounds: 300 });
      const late = p.tasks.flatMap((t, i) =>
        t.lastDay !== null && (days[i] ?? Infinity) > t.lastDay ? [{ t, i }] : [],
      );
      for (const { t, i } of late)
        for (let day = 0; day <= t.lastDay!; day += 1)
          expect(
            violationsOf(
              p,
              days.map((d, k) => (k === i ? day : d)),
            ).length,
            `seed ${seed}: ${t.id} could lie on day ${day}`,
          ).toBeGreaterThan(0);
    }
  });
});

describe('an examination in the plan', () => {
  it('calls the examiner three weeks ahead, and stops the machine from its day on where the visit is later', () => {
    expect(examinationOutcome({ latest: 40, day: 35, fixed: false })).toEqual({ past: false, late: false, call: 14 });
    expect(examinationOutcome({ latest: 10, day: 12, fixed: false })).toEqual({ past: false, late: true, call: 'now' });
    expect(examinationOutcome({ latest: -5, day: 0, fixed: true })).toEqual({ past: true, late: true, call: null });
    expect(examinationOutcome({ latest: 3, day: null, fixed: false })).toMatchObject({ late: true, call: null });
  });
});

describe('which work has a last day', () => {
  const bag = { onHand: 1, deliveries: [], id: 'b' };
  const of = (over: Partial<Parameters<typeof lastDayOf>[0]>) =>
    lastDayOf({ kind: 'bag', reached: [1, 5, 10, 20, 30], machineClass: null, latest: null, part: bag, ...over });

  it('an examination, the filters of M and H machines, any HEPA, and a bag that is surely full; no other', () => {
    expect(of({ kind: 'fan', latest: 12, part: undefined })).toBe(12);
    expect(of({ kind: 'fan', latest: -8, part: undefined })).toBe(0);
    expect(of({ kind: 'mainFilter', machineClass: 'M' })).toBe(20);
    expect(of({ kind: 'mainFilter', machineClass: 'L' })).toBeNull();
    expect(of({ kind: 'hepa' })).toBe(20);
    expect(of({ kind: 'prefilter', machineClass: 'H' })).toBeNull();
    expect(of({})).toBeNull();
    expect(of({ reached: [-9, -8, -6, -2, -1] })).toBe(0);
  });

  it('none is before its part is there, and none is set while no part comes', () => {
    const later = { ...bag, onHand: 0, deliveries: [{ day: 25, quantity: 1 }] };
    expect(of({ kind: 'hepa', part: later })).toBe(25);
    expect(of({ kind: 'hepa', part: { ...bag, onHand: 0 } })).toBeNull();
  });

  it('a late day weighs more the more dangerous the dust and the higher the class', () => {
    const weight = (hazard: 'plain' | 'controlled' | 'contained', machineClass: 'L' | 'M' | 'H' | null) =>
      lateWeight('hepa', { hazard, machineClass }, PLAN_OPTIONS.openingCost);
    expect(weight('plain', null)).toBe(1);
    expect(weight('controlled', 'M')).toBeGreaterThan(weight('plain', 'M'));
    expect(weight('contained', 'H')).toBeGreaterThan(2 * weight('plain', 'L'));
    // A day of life of a bag holds the price of an opening already.
    expect(lateWeight('bag', { hazard: 'contained', machineClass: 'H' }, PLAN_OPTIONS.openingCost)).toBe(1);
  });

  it('an H machine whose HEPA came today is changed before the plain bags of the same day', () => {
    const stage = (stageId: number, over: Partial<PlannedStage>): PlannedStage => ({
      stageId,
      name: `stage ${stageId}`,
      kind: 'bag',
      reached: [-1, 0, 1, 2, 3],
      whole: [10, 15, 20, 25, 30],
      part: null,
      withStage: null,
      lockedDay: null,
      latest: null,
      lifeDays: 20,
      cycle: 0,
      promised: null,
      ...over,
    });
    const plain = Array.from({ length: 9 }, (_, i) => ({
      tag: `P-${i}`,
      name: '',
      hazard: 'plain' as const,
      machineClass: null,
      blockedDays: [],
      stages: [stage(10 + i, {})],
    }));
    const hepa = stage(1, { kind: 'hepa', reached: [-60, -50, -40, -30, -20], part: 0, lifeDays: 400 });
    const made = yardProblem(
      {
        machines: [
          { tag: 'H-1', name: '', hazard: 'contained', machineClass: 'H', blockedDays: [], stages: [hepa] },
          ...plain,
        ],
        parts: [{ id: 'F', name: 'HEPA', bin: '', price: 180, leadDays: 10, onHand: 1, deliveries: [] }],
        crew: null,
        works: Array.from({ length: 28 }, () => true),
      },
      { ...PLAN_OPTIONS, weeks: 2, minutesADay: 45 },
    );
    const { days } = bestPlan(made.problem, { random: seeded(1).uniform, rounds: 300 });
    expect(days[made.stages.findIndex((s) => s.stageId === 1 && s.turn === 1)]).toBe(0);
  });
});

describe('the plan against each change on its own day', () => {
  it('is never worse, however little it searches, and the other plan keeps the minutes and the parts', () => {
    for (let seed = 1; seed <= 5; seed += 1) {
      const p = crowdedProblem(seed);
      const book = bookPlan(p);
      expect(violationsOf(p, book).filter((v) => v.kind !== 'unplaced')).toEqual([]);
      const found = bestPlan(p, { random: seeded(seed).uniform, rounds: 0 });
      const left = (days: readonly (number | null)[]) => days.filter((d) => d === null).length;
      expect(left(found.days)).toBeLessThanOrEqual(left(book));
      if (left(found.days) === left(book))
        expect(costOf(p, found.days).total).toBeLessThanOrEqual(costOf(p, book).total + 1e-9);
    }
  });
});
