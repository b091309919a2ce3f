// npm run bench:plan: made-up yards with a truth of their own, written down by people, read back from a file of the
// application, forecast and planned; the planner against brute force and a bound. Tuning is done on seeds below FIRST; the
// figures are of seeds that were not looked at.
import { readFileSync } from 'node:fs';
import { outlooksOf } from '@/core/forecast/from-record';
import { bruteForce, lowerBound } from '@/core/plan/bound';
import { costOf, violationsOf } from '@/core/plan/cost';
import { bestPlan, improvePlan, roundsFor } from '@/core/plan/planner';
import { seeded } from '../demo/random';
import { crowdedProblem, madeProblem } from '../tests/bench/plan/made-problem';
import { planOfYard, roundOf } from '../tests/bench/plan/plan-made';
import { EASY, HARD } from '../tests/bench/plan/made-lives';
import { mornings, type Mornings } from '../tests/bench/plan/mornings';
import { liveYear, POLICIES, type YearLived } from '../tests/bench/plan/year-made';
import { type ForecastYard, forecastYard, type Told } from '../tests/bench/yard/forecast-yard';
import { scoresOf } from '../tests/bench/yard/score';
import { type Figure, report } from './bench-report';

const FIRST = 9001;
const MORNING_YARDS = 6;
const YARDS = 40;
const yards: { readonly seed: number; readonly yard: ForecastYard }[] = [];
for (let seed = FIRST; seed < FIRST + YARDS; seed += 1) yards.push({ seed, yard: await forecastYard(seed) });
const machines = yards.reduce((n, y) => n + y.yard.records.length, 0);

const told = yards.flatMap(({ yard }) => yard.told);
const scores = (of: (t: Told) => boolean) => scoresOf(told.filter(of));
const all = scores(() => true);
const bags = scores((t) => t.which === 'bag');
const filters = scores((t) => t.which === 'filter');
const uncounted = scores((t) => t.which === 'filter' && t.rule !== 'countOfChanges');
const KINDS = ['fill', 'runHours', 'flowLost', 'gaugeZone', 'hoseVelocity', 'countOfChanges'] as const;
const byRule = Object.fromEntries(KINDS.map((kind) => [kind, scores((t) => t.rule === kind)]));
const byHours = Object.fromEntries(
  (['daily', 'weekly', 'meter', 'none'] as const).map((keeps) => [keeps, scores((t) => t.keeps === keeps)]),
);

const rounds = yards.map(({ yard, seed }) => roundOf(planOfYard(yard.told, seed)));
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

interface Crowded {
  readonly gap2s: number;
  readonly gap10s: number;
  readonly worst10s: number;
  readonly seconds2: number;
  readonly seconds10: number;
}

/** How far plans of crowded yards lie above what no plan can beat, after about two seconds and about ten. */
const crowded = (): Crowded => {
  const rows = [0, 1, 2, 3].map((k) => {
    const problem = crowdedProblem(FIRST + k);
    const planned = (seconds: number) => {
      const began = performance.now();
      const step = bestPlan(problem, { random: seeded(1).uniform, rounds: roundsFor(problem, seconds) });
      if (step.unplaced > 0) throw new Error('the crowded plan leaves something undone');
      return { cost: costOf(problem, step.days).total, seconds: (performance.now() - began) / 1000 };
    };
    const [soon, late] = [planned(2), planned(10)];
    const bound = lowerBound(problem, { known: Math.min(soon.cost, late.cost), steps: 600 });
    return { soon: soon.cost / bound - 1, late: late.cost / bound - 1, soonS: soon.seconds, lateS: late.seconds };
  });
  const mean = (f: (r: (typeof rows)[number]) => number) => rows.reduce((n, r) => n + f(r), 0) / rows.length;
  return {
    gap2s: mean((r) => r.soon),
    gap10s: mean((r) => r.late),
    worst10s: Math.max(...rows.map((r) => r.late)),
    seconds2: Math.max(...rows.map((r) => r.soonS)),
    seconds10: Math.max(...rows.map((r) => r.lateS)),
  };
};

/** Years of so many yards by each policy, the easy ones and the hard ones: sums of openings, mean shares of days past a limit. */
const years = (hard: typeof EASY, yards: number) => {
  const lived = (policy: keyof typeof POLICIES) => {
    const all = Array.from({ length: yards }, (_, k) => liveYear(FIRST + k, { policy, hard }));
    const of = (f: (y: YearLived) => number) => all.reduce((n, y) => n + f(y), 0);
    return {
      openings: of((y) => y.openings),
      past: of((y) => y.past) / yards,
      hazardousPast: of((y) => y.hazardousPast) / yards,
    };
  };
  return { plan: lived('plan'), own: lived('own'), book: lived('book'), foreman: lived('foreman') };
};

/** Seconds in which a machine of so many tasks is planned. */
const oneMachineSeconds = (count: number): number => {
  const [first] = madeProblem(FIRST, { machines: 1, days: 364, tasks: 6, minutes: 240, short: false }).tasks;
  const base = madeProblem(FIRST, { machines: 1, days: 364, tasks: 6, minutes: 240, short: false });
  if (!first) return Number.NaN;
  const tasks = Array.from({ length: count }, (_, i) => {
    const day = 10 + (340 * i) / count;
    return {
      ...first,
      id: `t${i}`,
      part: null,
      minutes: 8,
      reached: [day - 20, day - 10, day, day + 8, day + 15] as const,
    };
  });
  const began = performance.now();
  bestPlan({ ...base, tasks }, { random: seeded(1).uniform, rounds: 3000 });
  return (performance.now() - began) / 1000;
};

/** Seconds of a processor in which so many machines are forecast from what their records say. */
const forecastSeconds = (count: number): number => {
  const some = yards.flatMap(({ yard }) => yard.records).slice(0, count);
  const began = process.cpuUsage();
  for (const record of some) outlooksOf(record);
  return process.cpuUsage(began).user / 1e6;
};

/** Shares of the promised days that move from one morning to the next. */
const movedShares = (obeyed: boolean) => {
  const all = Array.from({ length: MORNING_YARDS }, (_, i) =>
    mornings(FIRST + i, { count: obeyed ? 20 : 10, obeyed, hard: obeyed ? HARD : EASY }),
  );
  const total = (of: (q: Mornings) => number): number => all.reduce((n, q) => n + of(q), 0);
  return {
    near: total((q) => q.nearMoved) / total((q) => q.near),
    far: total((q) => q.farMoved) / total((q) => q.far),
    unexplained: total((q) => q.unexplained),
  };
};

/** The results of the previous forecaster on the same yards. */
const older = JSON.parse(readFileSync('docs/bench/plan-older.json', 'utf8')) as unknown;

const { gap, firstS, wholeS } = large();
const crowd = crowded();
const [year, hardYear] = [years(EASY, 6), years(HARD, 4)];
const [quiet, obeyed] = [movedShares(false), movedShares(true)];
const figure = (id: string, value: number, goal: string): Figure => ({
  id,
  value,
  unit: id.endsWith('_s')
    ? 's'
    : id.endsWith('_days')
      ? 'd'
      : id.endsWith('_unexplained')
        ? 'days'
        : id.endsWith('_points')
          ? 'points'
          : id === 'plan.machines'
            ? 'machines'
            : 'share',
  goal,
});
type Years = ReturnType<typeof years>;
/** Percent points of days past a limit by which the plan differs from a policy; below 0 it is better. */
const points = (y: Years, than: keyof Years): number => 100 * (y.plan.past - y[than].past);
const hazardous = (y: Years, than: keyof Years): number => 100 * (y.plan.hazardousPast - y[than].hazardousPast);
report({
  name: 'plan',
  seed: FIRST,
  figures: [
    figure('plan.machines', machines, 'at least 300'),
    figure('plan.answered', all.answered / all.stages, 'all that has a rule that can be dated'),
    figure('plan.coverage80', all.coverage80, '0.76 to 0.84'),
    figure('plan.coverage80_bags', bags.coverage80, '0.72 to 0.86'),
    figure('plan.coverage80_filters', filters.coverage80, '0.72 to 0.86'),
    ...KINDS.map((kind) => figure(`plan.coverage80_${kind}`, byRule[kind]?.coverage80 ?? Number.NaN, '0.72 to 0.86')),
    figure('plan.mae_vs_last', all.maeVsLast, 'at most 0.65'),
    figure('plan.mae_bags_vs_last', bags.maeVsLast, 'at most 0.85'),
    figure('plan.mae_filters_vs_last', filters.maeVsLast, 'at most 0.85'),
    figure('plan.mae_uncounted_vs_last', uncounted.maeVsLast, 'at most 0.85'),
    figure('plan.mae_vs_rule', all.maeVsRule, 'at most 0.70'),
    figure('plan.pinball_vs_last', all.pinballVsLast, 'at most 0.80'),
    figure('plan.bias_days', all.medianBiasDays, '-4 to 4'),
    figure('plan.bias_mean_days', all.biasDays, 'told'),
    figure('plan.look_found', all.lookFound, 'at least 0.75'),
    figure('plan.look_false', all.lookFalse, 'at most 0.10'),
    figure('plan.overdue_said', all.overdueSaid / all.answered, 'told'),
    figure('plan.overdue_right', all.overdueRight, 'at least 0.90'),
    figure('plan.overdue_found', all.overdueFound, 'at least 0.35'),
    figure('plan.forecast500_s', forecastSeconds(500), 'at most 8'),
    figure('plan.openings_ratio', sum((r) => r.openings) / sum((r) => r.ownOpenings), 'at most 0.75'),
    figure('plan.overrun_above', (sum((r) => r.chance) - sum((r) => r.ownChance)) / tasks, 'at most 0.02'),
    figure('plan.gap_small', gapSmall(), 'at most 0.01'),
    figure('plan.gap_large', gap, 'at most 0.03'),
    figure('plan.gap_crowded_2s', crowd.gap2s, 'at most 0.04'),
    figure('plan.gap_crowded_10s', crowd.gap10s, 'at most 0.03'),
    figure('plan.gap_crowded_worst', crowd.worst10s, 'told'),
    figure('plan.crowded_2s_s', crowd.seconds2, 'about 2'),
    figure('plan.crowded_10s_s', crowd.seconds10, 'about 10'),
    figure('plan.year_openings_ratio', year.plan.openings / year.own.openings, 'at most 0.95'),
    figure('plan.year_past_points', points(year, 'own'), 'told'),
    figure('plan.hard_openings_ratio', hardYear.plan.openings / hardYear.book.openings, 'at most 0.95'),
    figure('plan.hard_past_points', points(hardYear, 'book'), 'at most -1'),
    figure('plan.hard_past_foreman_points', points(hardYear, 'foreman'), 'at most -1'),
    figure('plan.hard_hazardous_points', hazardous(hardYear, 'book'), 'at most 0'),
    figure('plan.hard_hazardous_foreman_points', hazardous(hardYear, 'foreman'), 'at most 0'),
    figure('plan.moved_quiet_14d', quiet.near, 'nought'),
    figure('plan.moved_quiet_later', quiet.far, 'at most 0.03'),
    figure('plan.moved_obeyed_14d', obeyed.near, 'at most 0.05'),
    figure('plan.moved_unexplained', quiet.unexplained + obeyed.unexplained, 'nought'),
    figure('plan.twenty_tasks_s', oneMachineSeconds(20), 'under 1'),
    figure('plan.first_s', firstS, 'under 1'),
    figure('plan.whole_s', wholeS, 'under 5'),
  ],
  tables: { all, bags, filters, byRule, byHours, year, hardYear, older },
});
