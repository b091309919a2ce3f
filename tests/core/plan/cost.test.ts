import { describe, expect, it } from 'vitest';
import { costOf, minutesByDay, stockByDay, violationsOf } from '@/core/plan/cost';
import type { PlanProblem, PlanTask } from '@/core/plan/problem';
import { planProblem, planTask } from '../../support/plans';

/** A limit that is reached evenly between day 0 and day 10: by hand, waste (10-x)^2/20, overrun x^2/20, chance x/10. */
const EVEN = [0, 1, 5, 9, 10] as const;
const task = (id: string, over: Partial<PlanTask> = {}) => planTask(id, { reached: EVEN, lifeValuePerDay: 2, ...over });
const problem = (tasks: readonly PlanTask[], over: Partial<PlanProblem> = {}) =>
  planProblem(tasks, {
    minutes: [60, 60, 0, 60, 60, 60, 60, 60, 60, 60],
    machines: [
      { id: 'a', openingCost: 20, openingMinutes: 10, blockedDays: new Set([4]), contained: false },
      { id: 'b', openingCost: 7, openingMinutes: 15, blockedDays: new Set(), contained: false },
    ],
    ...over,
  });

describe('what a plan costs, worked by hand', () => {
  it('one task: its opening, the life thrown away, the days past the limit', () => {
    const c = costOf(problem([task('a')]), [4]);
    expect(c.openings).toBe(1);
    expect(c.openingCost).toBe(20);
    expect(c.wasteCost).toBeCloseTo(2 * (36 / 20), 9);
    expect(c.overrunCost).toBeCloseTo(6 * (16 / 20), 9);
    expect(c.overrunChance).toBeCloseTo(0.4, 9);
    expect(c.total).toBeCloseTo(20 + 3.6 + 4.8, 9);
  });

  it('two tasks of one machine on one day open it once, on two days twice; another machine opens by itself', () => {
    const p = problem([task('a'), task('b'), task('c', { machine: 1 })]);
    expect(costOf(p, [3, 3, 3])).toMatchObject({ openings: 2, openingCost: 27 });
    expect(costOf(p, [3, 5, 3])).toMatchObject({ openings: 3, openingCost: 47 });
    expect(costOf(p, [3, 3, 3]).overrunChance).toBeCloseTo(0.3, 9);
    expect(costOf(p, [1, 3, 5]).overrunChance).toBeCloseTo(0.3, 9);
  });

  it('a task without a day costs nothing here and is not counted in the chance', () => {
    const p = problem([task('a'), task('b')]);
    expect(costOf(p, [5, null]).overrunChance).toBeCloseTo(0.5, 9);
    expect(costOf(p, [null, null])).toEqual({
      total: 0,
      openings: 0,
      openingCost: 0,
      wasteCost: 0,
      overrunCost: 0,
      lateCost: 0,
      moveCost: 0,
      overrunChance: 0,
    });
    expect(costOf(p, [5, undefined as never]).openings).toBe(1);
  });
});

describe('minutes and pieces, day by day', () => {
  it('an opening takes its minutes once a day and machine', () => {
    const p = problem([task('a'), task('b', { minutes: 25 }), task('c', { machine: 1, minutes: 5 }), task('d')]);
    expect([...minutesByDay(p, [3, 3, 3, 6])]).toEqual([
      [3, 10 + 10 + 25 + 15 + 5],
      [6, 20],
    ]);
    expect(minutesByDay(p, [null, null, null, null]).size).toBe(0);
  });

  it('what comes in is there from its day on, what is taken is gone from its day on', () => {
    const p = problem(
      [task('a', { part: { index: 0, quantity: 2 } }), task('b', { part: { index: 1, quantity: 9 } })],
      {
        parts: [
          {
            id: 'B',
            onHand: 1,
            deliveries: [
              { day: 2, quantity: 3 },
              { day: 99, quantity: 50 },
            ],
          },
          { id: 'F', onHand: 0, deliveries: [] },
        ],
      },
    );
    expect(stockByDay(p, [5, 0], 0)).toEqual([1, 1, 4, 4, 4, 2, 2, 2, 2, 2]);
    expect(stockByDay(p, [0, null], 0)).toEqual([-1, -1, 2, 2, 2, 2, 2, 2, 2, 2]);
    expect(stockByDay(p, [12, 0], 0).at(-1)).toBe(4);
    // A delivery on the very last day of the weeks is there on that day.
    const late = { ...p, parts: [{ id: 'B', onHand: 1, deliveries: [{ day: 9, quantity: 3 }] }] };
    expect(stockByDay(late, [null, null], 0)).toEqual([1, 1, 1, 1, 1, 1, 1, 1, 1, 4]);
    expect(stockByDay(p, [null, null], 7)).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 0, 0]);
  });
});

describe('what is wrong with a plan', () => {
  const one = problem([task('a')]);
  it.each([
    ['no day', one, [null], [{ kind: 'unplaced', task: 'a' }]],
    [
      'before the first day',
      one,
      [-1],
      [
        { kind: 'outside', task: 'a', day: -1 },
        { kind: 'minutes', day: -1, needed: 20, there: 0 },
      ],
    ],
    [
      'the day after the last',
      one,
      [10],
      [
        { kind: 'outside', task: 'a', day: 10 },
        { kind: 'minutes', day: 10, needed: 20, there: 0 },
      ],
    ],
    [
      'half a day',
      one,
      [1.5],
      [
        { kind: 'outside', task: 'a', day: 1.5 },
        { kind: 'minutes', day: 1.5, needed: 20, there: 0 },
      ],
    ],
    ['a day the machine is away', one, [4], [{ kind: 'blocked', task: 'a', day: 4 }]],
    ['a closed day', one, [2], [{ kind: 'minutes', day: 2, needed: 20, there: 0 }]],
    [
      'not the day that was fixed',
      problem([task('a', { lockedDay: 5 })]),
      [6],
      [{ kind: 'unlocked', task: 'a', day: 6 }],
    ],
    ['the first day, the last day', problem([task('a'), task('b')]), [0, 9], []],
    ['the fixed day', problem([task('a', { lockedDay: 5 })]), [5], []],
    ['as full as it can be', problem([task('a', { minutes: 50 })]), [1], []],
    [
      'a minute too full',
      problem([task('a', { minutes: 51 })]),
      [1],
      [{ kind: 'minutes', day: 1, needed: 61, there: 60 }],
    ],
  ] as const)('%s', (_what, p, days, violations) => {
    expect(violationsOf(p, days)).toEqual(violations);
  });

  it('what goes only with another one, on another day or with the other without one', () => {
    const pair = problem([task('wrap', { onlyWith: 'bag' }), task('bag')]);
    expect(violationsOf(pair, [3, 3])).toEqual([]);
    expect(violationsOf(pair, [3, 5])).toEqual([{ kind: 'apart', task: 'wrap', partner: 'bag' }]);
    expect(violationsOf(pair, [3, null])).toEqual([
      { kind: 'apart', task: 'wrap', partner: 'bag' },
      { kind: 'unplaced', task: 'bag' },
    ]);
    // Its partner alone may go, and a partner that is no task of this plan binds nothing.
    expect(violationsOf(pair, [null, 3])).toEqual([{ kind: 'unplaced', task: 'wrap' }]);
    expect(violationsOf(problem([task('wrap', { onlyWith: 'gone' })]), [3])).toEqual([]);
  });

  it('a part that is not there yet: the first day it is short, what is needed by then, and what there is', () => {
    const take = (id: string, quantity: number) => task(id, { part: { index: 0, quantity } });
    const p = problem([take('a', 1), take('b', 2), take('c', 4)], {
      parts: [{ id: 'B', onHand: 1, deliveries: [{ day: 5, quantity: 2 }] }],
    });
    expect(violationsOf(p, [0, 5, null]).filter((v) => v.kind === 'part')).toEqual([]);
    expect(violationsOf(p, [0, 3, null]).filter((v) => v.kind === 'part')).toEqual([
      { kind: 'part', part: 'B', day: 3, needed: 3, there: 1 },
    ]);
    expect(violationsOf(p, [0, 5, 7]).filter((v) => v.kind === 'part')).toEqual([
      { kind: 'part', part: 'B', day: 7, needed: 7, there: 3 },
    ]);
  });
});
