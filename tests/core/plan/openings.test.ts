import { describe, expect, it } from 'vitest';
import { explainPlan, shortParts, waysOut } from '@/core/plan/explain';
import { nextOpenDay, plannedOpenings } from '@/core/plan/planned-openings';
import type { PlanProblem, PlanTask } from '@/core/plan/problem';
import type { YardProblem } from '@/core/plan/yard-problem';
import { planProblem, planTask } from '../../support/plans';

const [task, problem] = [planTask, planProblem];
const yard = (p: PlanProblem): YardProblem =>
  ({
    problem: p,
    stages: p.tasks.map((t) => ({ tag: t.machine === 0 ? 'CR-09' : 'CR-02' })),
  }) as unknown as YardProblem;

describe('the openings of a plan', () => {
  const p = problem([
    task('bag'),
    task('filter', { minutes: 25 }),
    task('wrap', { machine: 1, lockedDay: 4 }),
    task('hepa', { machine: 1, minutes: 5 }),
    task('later'),
  ]);

  it('one machine on one day is one opening: its own minutes once, each task added', () => {
    expect(plannedOpenings(yard(p), [4, 4, 4, 4, 7])).toEqual([
      { key: '1-4', machine: 1, tag: 'CR-02', day: 4, tasks: [2, 3], minutes: 25, locked: true },
      { key: '0-4', machine: 0, tag: 'CR-09', day: 4, tasks: [0, 1], minutes: 45, locked: false },
      { key: '0-7', machine: 0, tag: 'CR-09', day: 7, tasks: [4], minutes: 20, locked: false },
    ]);
  });

  it('a task without a day opens nothing, and one that is fixed fixes its opening whichever comes first', () => {
    expect(plannedOpenings(yard(p), [null, null, null, null, null])).toEqual([]);
    expect(plannedOpenings(yard(p), [2, null, null, null, 1]).map((o) => o.day)).toEqual([1, 2]);
    const turned = problem([task('free'), task('fixed', { lockedDay: 3 })]);
    expect(plannedOpenings(yard(turned), [3, 3])).toMatchObject([{ locked: true, tasks: [0, 1] }]);
  });
});

describe('the next day of work', () => {
  const p = problem([], { minutes: [60, 0, 0, 60, 60, 0] });
  it.each([
    [0, 1, 3],
    [3, 1, 4],
    [4, 1, null],
    [4, -1, 3],
    [3, -1, 0],
    [0, -1, null],
    [5, -1, 4],
  ] as const)('from day %s by %s: %s', (from, step, day) => {
    expect(nextOpenDay(p, from, step)).toBe(day);
  });
});

describe('why a task sits where it sits', () => {
  it('fixed by hand, on its own best day, or without a day', () => {
    expect(explainPlan(problem([task('a', { lockedDay: 2 })]), [2])).toEqual([{ kind: 'locked' }]);
    const own = problem([task('a')]);
    const reasons = own.minutes.map((_, day) => explainPlan(own, [day])[0]?.kind);
    expect(reasons.filter((r) => r === 'own')).toHaveLength(1);
    expect(reasons.filter((r) => r === 'traded')).toHaveLength(9);
    expect(explainPlan(own, [null])).toEqual([null]);
  });

  it('moved into an opening that is there anyway: with whom, from which day, and what that saves', () => {
    const p = problem([task('a'), task('b', { reached: [3, 4, 6, 8, 9] }), task('c', { machine: 1 })]);
    const alone = p.minutes.map((_, day) => explainPlan(p, [day, null, null])[0]);
    const ownDay = alone.findIndex((r) => r?.kind === 'own');
    const other = p.minutes.findIndex((_, day) => explainPlan(p, [null, day, null])[1]?.kind === 'own');
    expect(other).not.toBe(ownDay);
    const [, b, c] = explainPlan(p, [ownDay, ownDay, ownDay]);
    expect(b).toMatchObject({ kind: 'shared', with: ['a'], ownDay: other });
    // An opening costs 20, and the one saved is not for nothing: some life is given away.
    expect(b?.kind === 'shared' && b.saves > 0 && b.saves < 20).toBe(true);
    // Another machine on the same day is no company.
    expect(c?.kind).toBe('own');
  });

  it('says which limit kept it from its own day: the minutes, or the part', () => {
    const one = [task('a')];
    const ownDay = problem(one).minutes.findIndex((_, day) => explainPlan(problem(one), [day])[0]?.kind === 'own');
    expect(violating(one, ownDay)).toEqual(['minutes', 'part']);
  });
});

/** Two limits, each put over a task's own day after the plan was made without it. */
const violating = (tasks: readonly PlanTask[], ownDay: number): readonly (string | undefined)[] => {
  const crowd = task('crowd', { machine: 1, minutes: 40, lockedDay: ownDay, lifeValuePerDay: 0, overrunCostPerDay: 0 });
  const crowded = problem([...tasks, crowd]);
  const late = problem(
    tasks.map((t) => ({ ...t, part: { index: 0, quantity: 1 } })),
    {
      parts: [{ id: 'B', onHand: 0, deliveries: [{ day: ownDay + 2, quantity: 1 }] }],
    },
  );
  return [explainPlan(crowded, [ownDay + 1, ownDay])[0]?.kind, explainPlan(late, [ownDay + 2])[0]?.kind];
};

describe('the smallest thing that would let a task in', () => {
  it('more minutes on the day that lacks the fewest, the nearest to its middle among equals', () => {
    const tight = problem([task('a', { minutes: 30 })], { minutes: [0, 0, 10, 15, 15, 15, 0, 0, 0, 0] });
    // 30 and 10 for the opening: 25 short on the days of 15; its middle is day 5.
    expect(waysOut(tight, [null])).toEqual([{ kind: 'moreMinutes', task: 'a', day: 5, minutes: 25 }]);
  });

  it('an opening that is there anyway costs no second one', () => {
    const p = problem([task('a', { minutes: 10 }), task('b', { minutes: 30 })], {
      minutes: [0, 0, 0, 0, 0, 30, 0, 0, 0, 0],
    });
    expect(waysOut(p, [5, null])).toEqual([{ kind: 'moreMinutes', task: 'b', day: 5, minutes: 20 }]);
  });

  it('a part that several wait for is short by what lets in all of them', () => {
    const takes = (id: string, day: number, quantity: number) =>
      task(id, { reached: [day, day + 1, day + 2, day + 3, day + 4], part: { index: 0, quantity } });
    // One on the shelf, and one placed task has it: b takes 2 and a takes 3, so 5 let in both.
    const p = problem([takes('a', 6, 3), takes('b', 2, 2), takes('c', 1, 1)], {
      parts: [{ id: 'B', onHand: 1, deliveries: [] }],
    });
    expect(shortParts(p, waysOut(p, [null, null, 1]))).toEqual([{ part: 'B', tasks: ['b', 'a'], pieces: 5, by: 4 }]);
    expect(shortParts(p, [])).toEqual([]);
  });

  it('pieces that are neither on hand nor on order, by the middle of its window, not before today', () => {
    const of = (reached: PlanTask['reached'], onHand: number, ordered: number) =>
      waysOut(
        problem([task('a', { reached, part: { index: 0, quantity: 3 } })], {
          parts: [{ id: 'B', onHand, deliveries: [{ day: 2, quantity: ordered }] }],
        }),
        [null],
      );
    expect(of([2, 3, 5.7, 7, 8], 1, 1)).toEqual([{ kind: 'part', task: 'a', part: 'B', by: 5, pieces: 1 }]);
    expect(of([-9, -8, -4, 0, 1], 0, 0)).toEqual([{ kind: 'part', task: 'a', part: 'B', by: 0, pieces: 3 }]);
    expect(of([2, 3, 5, 7, 8], 2, 1)[0]?.kind).not.toBe('part');
  });

  it('no day at all where the machine is away or fixed on a day it is away; its partner where it goes only with one', () => {
    const away = {
      id: 'a',
      openingCost: 20,
      openingMinutes: 10,
      blockedDays: new Set([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]),
      contained: false,
    };
    expect(waysOut(problem([task('a')], { machines: [away] }), [null])).toEqual([{ kind: 'noDay', task: 'a' }]);
    const some = { ...away, blockedDays: new Set([4]) };
    expect(waysOut(problem([task('a', { lockedDay: 4 })], { machines: [some] }), [null])).toEqual([
      { kind: 'noDay', task: 'a' },
    ]);
    expect(waysOut(problem([task('a', { onlyWith: 'b' }), task('b')]), [null, null])).toEqual([
      { kind: 'partner', task: 'a', partner: 'b' },
      { kind: 'noDay', task: 'b' },
    ]);
    expect(waysOut(problem([task('a')]), [3])).toEqual([]);
  });
});
