import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bruteForce, lowerBound } from '@/core/plan/bound';
import { costOf, violationsOf } from '@/core/plan/cost';
import { explainPlan, waysOut } from '@/core/plan/explain';
import { eachOnItsOwnDay } from '@/core/plan/own-day';
import { bestPlan, improvePlan } from '@/core/plan/planner';
import type { PlanProblem } from '@/core/plan/problem';
import { chanceBefore, expectedOverrun, expectedWaste, type ReachQuantiles } from '@/core/forecast/limit-distribution';
import { seeded } from '../../../demo/random';
import { planProblem, planTask } from '../../support/plans';
import { madeProblem } from '../../bench/plan/made-problem';

const [task, problem] = [planTask, planProblem];
const plan = (p: PlanProblem, rounds = 400) => bestPlan(p, { random: seeded(3).uniform, rounds });

describe('the day a limit is reached, piecewise linear through its quantiles', () => {
  const q: ReachQuantiles = [-2, 3, 5, 9, 20];

  it('gives the waste, the overrun and the chance that many draws give (Monte Carlo, inverse of the distribution)', () => {
    const { uniform } = seeded(11);
    const ps = [0, 0.1, 0.5, 0.9, 1];
    const draw = () => {
      const u = uniform();
      const k = ps.findLastIndex((p, i) => p <= u && i < 4);
      const [p0, p1, a, b] = [ps[k] ?? 0, ps[k + 1] ?? 1, q[k] ?? 0, q[k + 1] ?? 0];
      return a + ((u - p0) / (p1 - p0)) * (b - a);
    };
    const draws = Array.from({ length: 200_000 }, draw);
    const mean = (f: (t: number) => number) => draws.reduce((s, t) => s + f(t), 0) / draws.length;
    for (const x of [-5, 0, 4, 5, 12, 30]) {
      expect(expectedWaste(q, x)).toBeCloseTo(
        mean((t) => Math.max(0, t - x)),
        1,
      );
      expect(expectedOverrun(q, x)).toBeCloseTo(
        mean((t) => Math.max(0, x - t)),
        1,
      );
      expect(chanceBefore(q, x)).toBeCloseTo(
        mean((t) => (t < x ? 1 : 0)),
        2,
      );
    }
  });

  it('is a step where the day is certain', () => {
    const sure: ReachQuantiles = [4, 4, 4, 4, 4];
    expect([
      expectedWaste(sure, 1),
      expectedWaste(sure, 4),
      expectedOverrun(sure, 6),
      chanceBefore(sure, 4),
      chanceBefore(sure, 4.1),
    ]).toEqual([3, 0, 2, 0, 1]);
  });
});

describe('the planner', () => {
  it('finds the cheapest of all plans, as trying every one does, with minutes, parts, locks and partners in the way', () => {
    let tried = 0;
    for (let seed = 1; seed <= 14; seed += 1) {
      const made = madeProblem(seed, { machines: 3, days: 6, tasks: 2, minutes: 45 + 20 * (seed % 3), short: true });
      const tasks = made.tasks.map((t, i, all) => {
        const mate = all.find((x, k) => k < i && x.machine === t.machine);
        return {
          ...t,
          lockedDay: seed % 4 === 0 && i === 0 ? 3 : null,
          onlyWith: seed % 3 === 0 && mate ? mate.id : null,
        };
      });
      const p = {
        ...made,
        tasks,
        machines: made.machines.map((m) => ({ ...m, blockedDays: new Set([...m.blockedDays].filter((d) => d !== 3)) })),
      };
      const best = bruteForce(p, { cost: (d) => costOf(p, d).total, stands: (d) => violationsOf(p, d).length === 0 });
      if (!best) continue;
      tried += 1;
      const found = plan(p, 1200);
      expect(violationsOf(p, found.days), `seed ${seed}`).toEqual([]);
      expect(costOf(p, found.days).total / best.cost - 1, `seed ${seed}`).toBeLessThan(0.01);
    }
    expect(tried).toBeGreaterThan(6);
  });

  it('never breaks a limit in what it has placed, whatever it is given (property), and the same stream gives the same plan', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9999 }),
        fc.integer({ min: 20, max: 90 }),
        fc.boolean(),
        (seed, minutes, short) => {
          const p = madeProblem(seed, { machines: 8, days: 21, tasks: 4, minutes, short });
          const found = plan(p, 60);
          expect(violationsOf(p, found.days).filter((v) => v.kind !== 'unplaced')).toEqual([]);
          expect(plan(p, 60).days).toEqual(found.days);
          if (found.unplaced === 0) expect(costOf(p, found.days).total).toBeGreaterThanOrEqual(lowerBound(p) - 1e-6);
        },
      ),
      // Two openings of one machine that fit singly and not together: a bound that laid them in turn was above a plan.
      { numRuns: 25, examples: [[3344, 48, true]] },
    );
  });

  it('takes what is nearly due into one opening, and says what that saves and why each sits where it sits', () => {
    const p = problem([task('bag'), task('filter', { reached: [4, 5, 7, 9, 10] })]);
    const found = plan(p);
    expect(found.days[0]).toBe(found.days[1]);
    expect(costOf(p, found.days).openings).toBe(1);
    expect(costOf(p, eachOnItsOwnDay(p)).openings).toBe(2);
    const reasons = explainPlan(p, found.days);
    expect(reasons.some((r) => r?.kind === 'shared' && r.saves > 0)).toBe(true);
    // Where an opening costs nothing, each is on its own day.
    const free = { ...p, machines: p.machines.map((m) => ({ ...m, openingCost: 0 })) };
    expect(explainPlan(free, plan(free).days).map((r) => r?.kind)).toEqual(['own', 'own']);
  });

  it('keeps a locked day, waits for a part, and passes a blocked day over; each is said', () => {
    const locked = problem([task('bag', { lockedDay: 8 })]);
    expect(plan(locked).days).toEqual([8]);
    const late = problem([task('bag', { part: { index: 0, quantity: 1 } })], {
      parts: [{ id: 'B', onHand: 0, deliveries: [{ day: 7, quantity: 1 }] }],
    });
    expect(plan(late).days).toEqual([7]);
    expect(explainPlan(late, [7])).toMatchObject([{ kind: 'part' }]);
    const own = eachOnItsOwnDay(problem([task('bag')]))[0] ?? 0;
    const blocked = problem([task('bag')], {
      machines: [{ id: 'a', openingCost: 20, openingMinutes: 10, blockedDays: new Set([own]), contained: false }],
    });
    expect(plan(blocked).days[0]).not.toBe(own);
  });

  it('a plan that cannot fit says which limit breaks and the cheapest way out', () => {
    const crowded = problem([task('long', { minutes: 75 })]);
    expect(waysOut(crowded, plan(crowded).days)).toMatchObject([{ kind: 'moreMinutes', task: 'long', minutes: 25 }]);
    const bare = problem([task('bag', { part: { index: 0, quantity: 2 } })], {
      parts: [{ id: 'B', onHand: 1, deliveries: [] }],
    });
    expect(waysOut(bare, plan(bare).days)).toEqual([{ kind: 'part', task: 'bag', part: 'B', by: 5, pieces: 1 }]);
    // The last piece goes where it is most needed.
    const one = problem(
      [
        task('late', { reached: [-9, -8, -6, -5, -4], part: { index: 0, quantity: 1 } }),
        task('far', { machine: 1, reached: [6, 7, 8, 9, 10], part: { index: 0, quantity: 1 } }),
      ],
      { parts: [{ id: 'B', onHand: 1, deliveries: [] }] },
    );
    expect(plan(one).days).toEqual([0, null]);
    const shut = problem([task('bag')], {
      machines: [
        {
          id: 'a',
          openingCost: 1,
          openingMinutes: 1,
          blockedDays: new Set(Array.from({ length: 10 }, (_, d) => d)),
          contained: false,
        },
      ],
    });
    expect(waysOut(shut, plan(shut).days)).toEqual([{ kind: 'noDay', task: 'bag' }]);
  });

  it('tells a plan that can be used at once and only better ones after it; nothing to do is a plan', () => {
    const p = madeProblem(77, { machines: 20, days: 60, tasks: 4, minutes: 80, short: true });
    const costs: number[] = [];
    for (const step of improvePlan(p, { random: seeded(2).uniform, rounds: 1000 }))
      costs.push(step.unplaced > 0 ? Infinity : step.cost);
    expect(costs.length).toBeGreaterThan(3);
    expect(costs.at(-1)).toBeLessThan(Infinity);
    expect(costs.every((c, i) => i === 0 || c <= (costs[i - 1] ?? 0) + 1e-6)).toBe(true);
    expect(plan(problem([]))).toMatchObject({ cost: 0, unplaced: 0, days: [] });
  });

  it('more tasks on one machine than can be grouped in every way are planned all the same', () => {
    const many = problem(
      Array.from({ length: 14 }, (_, i) =>
        task(`t${i}`, { minutes: 4, reached: [i - 1, i, i + 1, i + 2, i + 3], onlyWith: i === 13 ? 't0' : null }),
      ),
      { minutes: Array.from({ length: 20 }, () => 60) },
    );
    const found = plan(many);
    expect(violationsOf(many, found.days)).toEqual([]);
  });
});
