// npm run bench:plan: made-up yards with a truth of their own, forecast and planned; the planner against brute force and a
// bound. Tuning is done on seeds below FIRST; the figures are of seeds that were not looked at.
import { bruteForce, lowerBound } from '@/core/plan/bound';
import { costOf, violationsOf } from '@/core/plan/cost';
import { bestPlan, improvePlan } from '@/core/plan/planner';
import { seeded } from '../demo/random';
import { forecastMade } from '../tests/bench/plan/forecast-made';
import { madeProblem } from '../tests/bench/plan/made-problem';
import { type MadeMachine, madeYard } from '../tests/bench/plan/made-yard';
import { planOfYard, roundOf } from '../tests/bench/plan/plan-made';
import { scoresOf, estimatesOf } from '../tests/bench/plan/score';
import { type Figure, report } from './bench-report';

const FIRST = 9001;
const YARDS = 14;
const seeds = Array.from({ length: YARDS }, (_, i) => FIRST + i);
const yards = seeds.map((seed) => ({ seed, yard: madeYard(seed) }));
const machines = yards.reduce((n, y) => n + y.yard.machines.length, 0);

const estimates = yards.flatMap(({ yard, seed }) => estimatesOf(yard, seed));
const all = scoresOf(estimates);
const bags = scoresOf(estimates.filter((t) => t.kind === 'bag'));
const filters = scoresOf(estimates.filter((t) => t.kind === 'filter'));
const counted = scoresOf(estimates.filter((t) => t.kind === 'counted'));

const rounds = yards.map(({ yard, seed }) => roundOf(planOfYard(yard, seed)));
const sum = (f: (r: (typeof rounds)[number]) => number) => rounds.reduce((n, r) => n + f(r), 0);
const tasks = sum((r) => r.tasks);

/** Largest share by which a plan of a small yard is dearer than the cheapest of all. */
const gapSmall = (): number => {
  let worst = 0;
  for (let seed = FIRST; seed < FIRST + 60; seed += 1) {
    const problem = madeProblem(seed, { machines: 3, days: 8, tasks: 2, minutes: 45 + 20 * (seed % 3), short: true });
    const best = bruteForce(problem, {
      cost: (d) => costOf(problem, d).total,
      stands: (d) => violationsOf(problem, d).length === 0,
    });
    if (!best) continue;
    const plan = bestPlan(problem, { random: seeded(1).uniform, rounds: 2000 });
    worst = Math.max(worst, plan.unplaced > 0 ? 1 : costOf(problem, plan.days).total / best.cost - 1);
  }
  return worst;
};

interface Large {
  readonly gap: number;
  readonly firstS: number;
  readonly wholeS: number;
}

const large = (): Large => {
  const problem = madeProblem(FIRST, { machines: 60, days: 364, tasks: 6, minutes: 240, short: false });
  const began = performance.now();
  const steps = improvePlan(problem, { random: seeded(1).uniform, rounds: 2000 });
  steps.next();
  const firstS = (performance.now() - began) / 1000;
  let step = steps.next();
  while (!step.done) step = steps.next();
  const wholeS = (performance.now() - began) / 1000;
  if (violationsOf(problem, step.value.days).length > 0) throw new Error('the large plan breaks a limit');
  return { gap: costOf(problem, step.value.days).total / lowerBound(problem) - 1, firstS, wholeS };
};

const sixty = (): number => {
  const some: { readonly machine: MadeMachine; readonly today: number }[] = yards
    .flatMap(({ yard }) => yard.machines.map((machine) => ({ machine, today: yard.today })))
    .slice(0, 60);
  const began = performance.now();
  some.forEach(({ machine, today }, i) =>
    machine.stages.forEach((stage) => forecastMade(machine, stage, { today, chance: seeded(i) })),
  );
  return (performance.now() - began) / 1000;
};

const { gap, firstS, wholeS } = large();
const figure = (id: string, value: number, goal: string): Figure => ({
  id,
  value,
  unit: id.endsWith('_s') ? 's' : id === 'plan.machines' ? 'machines' : 'share',
  goal,
});
report({
  name: 'plan',
  seed: FIRST,
  figures: [
    figure('plan.machines', machines, 'at least 300'),
    figure('plan.coverage80', all.coverage80, '0.75 to 0.85'),
    figure('plan.coverage80_bags', bags.coverage80, '0.70 to 0.90'),
    figure('plan.coverage80_filters', filters.coverage80, '0.70 to 0.90'),
    figure('plan.mae_vs_last', all.maeVsLast, 'at most 0.75'),
    figure('plan.mae_vs_rule', all.maeVsRule, 'at most 0.70'),
    figure('plan.mae_bags_vs_last', bags.maeVsLast, 'at most 0.85'),
    figure('plan.mae_bags_vs_rule', bags.maeVsRule, 'at most 0.85'),
    figure('plan.mae_filters_vs_last', filters.maeVsLast, 'at most 0.85'),
    figure('plan.mae_filters_vs_rule', filters.maeVsRule, 'at most 0.85'),
    figure('plan.pinball_vs_last', all.pinballVsLast, 'at most 0.80'),
    figure('plan.overdue_found', all.overdueFound, 'at least 0.60'),
    figure('plan.overdue_false', all.overdueFalse, 'at most 0.10'),
    figure('plan.openings_ratio', sum((r) => r.openings) / sum((r) => r.ownOpenings), 'at most 0.75'),
    figure('plan.overrun_above', (sum((r) => r.chance) - sum((r) => r.ownChance)) / tasks, 'at most 0.02'),
    figure('plan.gap_small', gapSmall(), 'at most 0.01'),
    figure('plan.gap_large', gap, 'at most 0.03'),
    figure('plan.first_s', firstS, 'under 1'),
    figure('plan.whole_s', wholeS, 'under 5'),
    figure('plan.forecast60_s', sixty(), 'under 3'),
  ],
  tables: { all, bags, filters, counted },
});
