import { describe, expect, it } from 'vitest';
import type { ReachQuantiles } from '@/core/forecast/limit-distribution';
import { bruteForce, lowerBound } from '@/core/plan/bound';
import { costOf, stockByDay, violationsOf } from '@/core/plan/cost';
import { costByDay } from '@/core/plan/groups';
import { planOverTime } from '@/core/plan/over-time';
import { bestPlan, roundsFor } from '@/core/plan/planner';
import { PLAN_OPTIONS, yardProblem } from '@/core/plan/yard-problem';
import { yearAhead } from '@/core/plan/year';
import { seeded } from '../../../demo/random';
import { madeProblem } from '../../bench/plan/made-problem';
import { about, plannedStage, plannedYard, planProblem, planTask } from '../../support/plans';

const [stage, yard] = [plannedStage, plannedYard];
const YEAR = { ...PLAN_OPTIONS, weeks: 52 };

describe('one machine over time', () => {
  it('opens as cheaply as trying every set of days does, whatever the tasks', () => {
    for (let seed = 1; seed <= 12; seed += 1) {
      const made = madeProblem(seed, { machines: 1, days: 9, tasks: 5, minutes: 1000, short: false });
      const p = { ...made, tasks: made.tasks.map((t) => ({ ...t, part: null })) };
      const days = p.minutes.flatMap((m, day) => (m > 0 && !p.machines[0]?.blockedDays.has(day) ? [day] : []));
      const found = planOverTime(
        p.tasks.map((t) => ({ cost: costByDay(t, 9) })),
        days,
        p.machines[0]?.openingCost ?? 0,
      );
      const best = bruteForce(p, { cost: (d) => costOf(p, d).total, stands: (d) => violationsOf(p, d).length === 0 });
      expect(found?.cost, `seed ${seed}`).toBeCloseTo(best?.cost ?? Number.NaN, 6);
      expect(costOf(p, found?.on ?? []).total, `seed ${seed}`).toBeCloseTo(found?.cost ?? Number.NaN, 6);
    }
    expect(planOverTime([{ cost: new Float64Array(3) }], [], 5)).toBeNull();
    expect(planOverTime([], [1], 5)).toEqual({ cost: 0, days: [], on: [] });
  });

  it('forty tasks of one machine are planned to what no plan can beat', () => {
    const tasks = Array.from({ length: 40 }, (_, i) =>
      planTask(`t${i}`, { minutes: 5, reached: about(8 + 8 * i + ((i * 37) % 11), 0.05) }),
    );
    const p = planProblem(tasks, { minutes: Array.from({ length: 364 }, (_, d) => (d % 7 < 5 ? 240 : 0)) });
    const found = bestPlan(p, { random: seeded(1).uniform, rounds: roundsFor(p, 0.5) });
    expect(violationsOf(p, found.days)).toEqual([]);
    expect(costOf(p, found.days).total / lowerBound(p, { known: found.cost }) - 1).toBeLessThan(0.01);
  });

  it('a crowded day has its price: the bound rises above that of each machine for itself, and below every plan', () => {
    const p = madeProblem(6, { machines: 10, days: 14, tasks: 3, minutes: 55, short: false });
    const found = bestPlan(p, { random: seeded(1).uniform, rounds: 3000 });
    const [alone, priced] = [lowerBound(p, { steps: 1 }), lowerBound(p, { known: found.cost })];
    expect(found.unplaced).toBe(0);
    expect(priced).toBeGreaterThan(1.003 * alone);
    expect(priced).toBeLessThanOrEqual(found.cost + 1e-6);
  });
});

describe('every turn of the year', () => {
  it('a bag of a fortnight comes round as often as the year has fortnights, each after the one before it', () => {
    const made = yardProblem(yard([stage(1, 14)]), YEAR);
    expect(made.problem.tasks.length).toBeGreaterThan(22);
    expect(made.problem.tasks.length).toBeLessThan(31);
    expect(made.stages.map((s) => s.turn)).toEqual(made.problem.tasks.map((_, i) => i + 1));
    const found = bestPlan(made.problem, { random: seeded(2).uniform, rounds: 200 });
    expect(violationsOf(made.problem, found.days)).toEqual([]);
    const days = found.days.map((d) => d ?? -1);
    expect(days.every((d, i) => i === 0 || d > (days[i - 1] ?? 0))).toBe(true);
    // And in even steps.
    expect(days.slice(1).every((d, i) => d - (days[i] ?? 0) >= 9 && d - (days[i] ?? 0) <= 18)).toBe(true);
    // A part of which an order would be in time is waited for by none, and is counted all the same.
    expect(
      Math.min(
        ...stockByDay({ ...made.problem, parts: made.problem.parts.map((x) => ({ ...x, onHand: 2 })) }, days, 0),
      ),
    ).toBeLessThan(-15);
  });

  it('two turns of one bag are never one opening, though a second bag costs less than opening again', () => {
    const skewed: ReachQuantiles = [2, 8, 13, 14, 14];
    const cheap = yard([stage(1, 13, { reached: [0, 2, 3, 3, 3], whole: skewed })], {
      parts: [{ id: 'B', name: 'bag', bin: 'A1', price: 4.5, leadDays: 10, onHand: 50, deliveries: [] }],
    });
    const [machine] = cheap.machines;
    const made = yardProblem(
      { ...cheap, machines: machine ? [{ ...machine, hazard: 'controlled' }] : [] },
      { ...YEAR, weeks: 8 },
    );
    const found = bestPlan(made.problem, { random: seeded(2).uniform, rounds: 200 });
    const days = found.days.map((d) => d ?? -1);
    expect(days.length).toBeGreaterThan(3);
    const apart = days.slice(1).map((d, i) => d - (days[i] ?? 0));
    expect(
      apart.every((d) => d >= 7 && d <= 15),
      apart.join(' '),
    ).toBe(true);
  });

  it('slow stages go along with the fast one: fewer openings than turns', () => {
    const made = yardProblem(
      yard([stage(1, 20), stage(2, 65, { kind: 'prefilter' }), stage(3, 150, { kind: 'mainFilter' })]),
      YEAR,
    );
    const found = bestPlan(made.problem, { random: seeded(2).uniform, rounds: 300 });
    const turns = (id: number) => made.stages.filter((s) => s.stageId === id).length;
    expect(turns(2)).toBeGreaterThan(4);
    expect(turns(3)).toBeGreaterThan(1);
    expect(costOf(made.problem, found.days).openings).toBeLessThanOrEqual(turns(1) + 1);
    expect(violationsOf(made.problem, found.days)).toEqual([]);
  });

  it('what goes only with another keeps with it, turn after turn; a fixed day fixes the interval that runs alone', () => {
    const made = yardProblem(
      yard(
        [stage(1, 30), stage(2, 30, { kind: 'prefilter', withStage: 1 })].map((s) => ({
          ...s,
          lockedDay: s.stageId === 1 ? 21 : null,
        })),
      ),
      { ...YEAR, weeks: 16 },
    );
    const found = bestPlan(made.problem, { random: seeded(2).uniform, rounds: 200 });
    expect(violationsOf(made.problem, found.days)).toEqual([]);
    expect(found.days[made.problem.tasks.findIndex((t) => t.id === '1')]).toBe(21);
    expect(made.problem.tasks.filter((t) => t.lockedDay !== null).map((t) => t.id)).toEqual(['1']);
    expect(made.problem.tasks.filter((t) => t.onlyWith !== null).length).toBeGreaterThan(2);
  });

  it('an examination is planned by its day and never later, whatever an opening costs; one that is past on the first day there is', () => {
    const dayOf = (middle: number) => {
      const examined = stage(2, 420, {
        kind: 'fan',
        part: null,
        reached: [middle, middle, middle, middle, middle],
        latest: Math.max(0, middle),
      });
      const made = yardProblem(
        { ...yard([stage(1, 60), examined]), works: Array.from({ length: 364 }, (_, d) => d > 1 && d % 7 < 5) },
        { ...YEAR, weeks: 12, openingCost: { plain: 500, controlled: 500, contained: 500 } },
      );
      const found = bestPlan(made.problem, { random: seeded(2).uniform, rounds: 200 });
      return found.days[made.problem.tasks.findIndex((t) => t.id === '2')] ?? Number.NaN;
    };
    expect(dayOf(20)).toBeLessThanOrEqual(20);
    expect(dayOf(-9)).toBe(2);
  });

  it('a plan without a day of work, or with nothing on it, is a plan', () => {
    const shut = yardProblem(yard([stage(1, 14)], { works: Array.from({ length: 364 }, () => false) }), YEAR);
    expect(bestPlan(shut.problem, { random: seeded(2).uniform, rounds: 50 }).unplaced).toBe(shut.problem.tasks.length);
    const empty = yardProblem(yard([]), YEAR);
    expect(bestPlan(empty.problem, { random: seeded(2).uniform, rounds: 50 })).toMatchObject({ unplaced: 0, days: [] });
    expect(yearAhead(yard([stage(1, 14)], { works: Array.from({ length: 364 }, () => false) }), YEAR).openings).toEqual(
      [0, 0, 0],
    );
    expect(yearAhead(yard([]), YEAR).openings).toEqual([0, 0, 0]);
  });
});

describe('the year ahead, as ranges', () => {
  it('opens as often as a life goes into the year (elementary renewal theorem)', () => {
    const [low, middle, high] = yearAhead(yard([stage(1, 20)]), { ...YEAR, lateFactor: 1 }).openings;
    // A late day costs what a wasted one does: each life is used to its middle.
    expect(Math.abs(middle - 365 / 20)).toBeLessThan(2.5);
    expect(low).toBeLessThan(middle);
    expect(high).toBeGreaterThan(middle);
    expect(high - low).toBeLessThan(12);
  });

  it('what the calendar alone ends comes on its day, however much the machine is used', () => {
    const fixed: ReachQuantiles = [28, 28, 28, 28, 28];
    const [low, , high] = yearAhead(yard([stage(1, 28, { reached: fixed, whole: fixed })]), YEAR).openings;
    expect(high - low).toBeLessThanOrEqual(2);
  });

  it('counts parts by month, money and minutes as they are opened for', () => {
    const year = yearAhead(yard([stage(1, 20)]), YEAR);
    const [part] = year.parts;
    expect(part?.year).toEqual(year.openings);
    expect(part?.months.length).toBe(12);
    expect((part?.months ?? []).reduce((sum, m) => sum + m[1], 0)).toBeGreaterThan(10);
    // 8 an opening and 9 a bag; 6 minutes to open and close, 6 for the bag.
    expect(year.cost[1]).toBeCloseTo(17 * year.openings[1], 6);
    expect(year.minutes[1]).toBeCloseTo(12 * year.openings[1], 6);
  });

  it('a dearer late day is changed for sooner: more openings, fewer days past a limit', () => {
    const of = (lateFactor: number) => yearAhead(yard([stage(1, 30)]), { ...YEAR, lateFactor });
    expect(of(40).openings[1]).toBeGreaterThan(of(1).openings[1]);
    expect(of(40).daysPast[1]).toBeLessThan(0.5 * of(1).daysPast[1]);
  });
});
