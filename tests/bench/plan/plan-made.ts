import { costOf } from '@/core/plan/cost';
import { eachOnItsOwnDay } from '@/core/plan/own-day';
import type { PlanProblem, PlanTask } from '@/core/plan/problem';
import { bestPlan } from '@/core/plan/planner';
import { priceLife } from '@/core/plan/prices';
import { PLAN_OPTIONS } from '@/core/plan/yard-problem';
import { seeded } from '../../../demo/random';
import { type Told, TRADE_DAYS } from '../yard/forecast-yard';

const HORIZON = 84;
const PART_PRICE = { bag: 9, filter: 70 } as const;
const TASK_MINUTES = { bag: 6, filter: 14 } as const;
/** Plain, controlled, contained: what an opening costs, and how long it takes to get in and out. */
const OPENINGS = [
  { openingCost: 8, openingMinutes: 6 },
  { openingCost: 18, openingMinutes: 12 },
  { openingCost: 45, openingMinutes: 25 },
] as const;

/** One planning round of a made-up yard: what is forecast to be reached within twelve weeks. */
export const planOfYard = (told: readonly Told[], seed: number): PlanProblem => {
  const random = seeded(seed + 4242);
  const count = 1 + Math.max(...told.map((t) => t.machine));
  const machines = Array.from({ length: count }, (_, i) => ({
    id: `m${i}`,
    ...(OPENINGS[Math.floor(random.uniform() * 3)] ?? OPENINGS[0]),
    blockedDays: new Set<number>(),
    contained: false,
  }));
  const tasks = told.flatMap(({ machine, which, outlook }): readonly PlanTask[] => {
    const f = outlook?.forecast;
    if (!f || f.reached[2] > HORIZON) return [];
    const prices = priceLife({
      partPrice: PART_PRICE[which],
      lifeDays: TRADE_DAYS[which],
      openingCost: machines[machine]?.openingCost ?? 0,
      setsTheRhythm: which === 'bag',
      lateFactor: PLAN_OPTIONS.lateFactor,
    });
    return [
      {
        id: `${machine}-${which}`,
        machine,
        minutes: TASK_MINUTES[which],
        reached: f.reached,
        ...prices,
        part: null,
        onlyWith: null,
        lockedDay: null,
        lastDay: null,
        promised: null,
      },
    ];
  });
  return {
    containedMinutes: null,
    minutes: Array.from({ length: HORIZON }, (_, day) => (day % 7 < 5 ? 180 : 0)),
    machines,
    tasks,
    parts: [],
  };
};

export interface Round {
  readonly openings: number;
  readonly ownOpenings: number;
  readonly chance: number;
  readonly ownChance: number;
  readonly tasks: number;
}

/** How a planned round stands against each task on its own day. */
export const roundOf = (problem: PlanProblem): Round => {
  const plan = costOf(problem, bestPlan(problem, { random: seeded(5).uniform, rounds: 600 }).days);
  const own = costOf(problem, eachOnItsOwnDay(problem));
  return {
    openings: plan.openings,
    ownOpenings: own.openings,
    chance: plan.overrunChance * problem.tasks.length,
    ownChance: own.overrunChance * problem.tasks.length,
    tasks: problem.tasks.length,
  };
};
