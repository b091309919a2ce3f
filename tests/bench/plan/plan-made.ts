import { costOf } from '@/core/plan/cost';
import { eachOnItsOwnDay } from '@/core/plan/own-day';
import type { PlanProblem, PlanTask } from '@/core/plan/problem';
import { bestPlan } from '@/core/plan/planner';
import { priceLife } from '@/core/plan/prices';
import { seeded } from '../../../demo/random';
import { forecastMade } from './forecast-made';
import type { MadeYard } from './made-yard';

const HORIZON = 84;
const PART_PRICE = { bag: 9, filter: 70, counted: 22 } as const;
const TASK_MINUTES = { bag: 6, filter: 14, counted: 5 } as const;
/** Plain, controlled, contained: what an opening costs, and how long it takes to get in and out. */
const OPENINGS = [
  { openingCost: 8, openingMinutes: 6 },
  { openingCost: 18, openingMinutes: 12 },
  { openingCost: 45, openingMinutes: 25 },
] as const;

/** One planning round of a made-up yard: what is forecast to be reached within twelve weeks. */
export const planOfYard = (yard: MadeYard, seed: number): PlanProblem => {
  const random = seeded(seed + 4242);
  const machines = yard.machines.map((_, i) => ({
    id: `m${i}`,
    ...(OPENINGS[Math.floor(random.uniform() * 3)] ?? OPENINGS[0]),
    blockedDays: new Set<number>(),
  }));
  const tasks = yard.machines.flatMap((machine, m) =>
    machine.stages.flatMap((stage, k): readonly PlanTask[] => {
      const f = forecastMade(machine, stage, { today: yard.today, chance: seeded(seed + 31 * m + k) });
      if (!f || f.reached[2] > HORIZON) return [];
      const opening = machines[m]?.openingCost ?? 0;
      const prices = priceLife({
        partPrice: PART_PRICE[stage.kind],
        lifeDays: stage.templateDays,
        openingCost: opening,
        setsTheRhythm: stage.kind === 'bag',
        lateFactor: 6,
      });
      return [
        {
          id: `${m}-${stage.kind}`,
          machine: m,
          minutes: TASK_MINUTES[stage.kind],
          reached: f.reached,
          ...prices,
          part: null,
          onlyWith: null,
          lockedDay: null,
        },
      ];
    }),
  );
  return { minutes: Array.from({ length: HORIZON }, (_, day) => (day % 7 < 5 ? 180 : 0)), machines, tasks, parts: [] };
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
