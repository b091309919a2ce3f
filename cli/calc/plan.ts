import { toDecimals } from '@/core/units';
import type { DueInput, ForecastInput, PlanCalcInput, ReorderInput } from '@/contracts/calc/plan';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { aheadOf, PATHS } from '@/core/forecast/ahead';
import type { Interval, Mark, StageHistory } from '@/core/forecast/history';
import { believeLife } from '@/core/forecast/life';
import { leftOf, leftQuantile } from '@/core/forecast/left';
import { drawWear, firstOf } from '@/core/forecast/reach';
import { loadClock, type Used } from '@/core/forecast/used';
import { stageDue } from '@/core/interval/due';
import { circularAfter, type RuleRecord } from '@/core/interval/rules';
import { seeded } from '@/core/numeric/seeded';
import { costOf, violationsOf } from '@/core/plan/cost';
import { explainPlan, waysOut } from '@/core/plan/explain';
import { lowerBound } from '@/core/plan/bound';
import { eachOnItsOwnDay } from '@/core/plan/own-day';
import { bestPlan } from '@/core/plan/planner';
import type { PlanProblem } from '@/core/plan/problem';
import { chanceBefore } from '@/core/forecast/limit-distribution';
import { isWorkshopDemand, MOST_PIECES, packsToOrder, reorderPoint } from '@/core/stock/reorder';
import { sayRule, sayRuleState } from '@/messages/needs';

const round = (x: number, digits = 4): number => toDecimals(x, digits);

/** `calc due`: a stage's rules and what is on record in; the day it is due, the rule that binds, and the others out. */
export const dueCalc = (input: DueInput): Result<unknown> => {
  const rules = input.rules.map((r, i): RuleRecord => ({ id: i + 1, stageId: 1, ...r }));
  const ring = circularAfter(rules);
  if (ring) return fail(failure('rule.circular', 'rules'));
  const changesOf = (stageId: number) => [...(input.changesOf.find((c) => c.stageId === stageId)?.days ?? [])].sort();
  const due = stageDue({
    stageId: 1,
    rules,
    changedOn: input.changedOn,
    changeRecorded: true,
    changesOf,
    today: input.today,
    wear: {
      hours: [...input.hours].sort((a, b) => (a.day < b.day ? -1 : 1)),
      looks: [...input.looks].sort((a, b) => (a.day < b.day ? -1 : 1)),
    },
  });
  if (!due) return fail(failure('rule.range', 'rules'));
  const told = (s: typeof due.binding) => ({
    rule: sayRule(s.rule),
    says: sayRuleState(s),
    dueOn: s.dueOn,
    dateIs: s.dateIs,
    because: s.because,
    remaining: round(s.remaining),
  });
  return ok({ dueOn: due.dueOn, daysLeft: due.daysLeft, binding: told(due.binding), others: due.others.map(told) });
};

/** A quarter of a container, as people say it. */
const LOOK_DEVIATION = 0.1;

const marksOf = ({ history }: ForecastInput): readonly Mark[] =>
  history.inspections.map((i): Mark =>
    i.kind === 'share'
      ? i
      : { kind: 'zone', load: i.load, above: i.above ? i.share : null, below: i.above ? null : i.share },
  );

const usedAsGiven = ({ recent, history }: ForecastInput): Used => ({
  first: 1 - recent.length,
  today: 0,
  counts: history.counts,
  load: Float64Array.from(recent),
  filled: new Float64Array(recent.length),
  dust: new Uint8Array(recent.length),
  dusts: [''],
});

const historyAsGiven = (input: ForecastInput, used: Used): StageHistory => {
  const { template, counts, past, load, actDays, ignored, unwritten } = input.history;
  const running: Interval = { load, days: Math.max(1, input.recent.length), marks: marksOf(input), unsure: 0 };
  return {
    template,
    counts,
    past: past.map((p) => ({
      load: p.load,
      days: p.days,
      end: p.end,
      beforeRegime: p.beforeRegime,
      unsure: 0,
      marks: p.found === null ? [] : [{ kind: 'share', load: p.load, share: p.found, deviation: LOOK_DEVIATION }],
    })),
    running,
    daysSince: loadClock(used, [1]).daysSince,
    actDays,
    ignored,
    unwritten,
  };
};

/** `calc forecast`: what is behind a stage in; when its first limit is reached, as quantiles, out. */
export const forecastCalc = (input: ForecastInput): Result<unknown> => {
  const closed = new Set(input.closedDays);
  const chance = seeded(input.seed);
  const used = usedAsGiven(input);
  const history = historyAsGiven(input, used);
  const ahead = aheadOf({
    used,
    weights: [1],
    unsure: input.unsure,
    worked: () => true,
    works: (day) => !closed.has(day),
    chance,
  });
  const wear = { rule: 1, ...drawWear(history, { ahead, chance }) };
  const calendar =
    input.calendarDays === null
      ? []
      : [
          {
            rule: 2,
            draws: new Float64Array(PATHS).fill(input.calendarDays),
            whole: new Float64Array(PATHS).fill(Infinity),
            seenPast: null,
          },
        ];
  const forecast = firstOf([wear, ...calendar]);
  if (!forecast) return fail(failure('rule.range', 'history'));
  const belief = leftOf(believeLife(history));
  return ok({
    reachedInDays: forecast.reached.map((x) => round(x, 2)),
    overdueChance: round(forecast.overdue),
    first: forecast.binding.map((b) => ({ rule: b.rule === 1 ? 'wear' : 'calendar', chance: round(b.chance) })),
    left: {
      unit: input.history.counts,
      low: round(leftQuantile(belief, 0.1), 2),
      middle: round(leftQuantile(belief, 0.5), 2),
      high: round(leftQuantile(belief, 0.9), 2),
    },
    restsOn: { intervals: input.history.past.length, inspections: input.history.inspections.length },
  });
};

const problemOf = (input: PlanCalcInput): Result<PlanProblem> => {
  const at = (list: readonly { readonly id: string }[], id: string) => list.findIndex((x) => x.id === id);
  const broken = input.tasks.findIndex(
    (t) =>
      at(input.machines, t.machine) < 0 ||
      (t.part !== null && at(input.parts, t.part.id) < 0) ||
      (t.onlyWith !== null && input.tasks.find((x) => x.id === t.onlyWith)?.machine !== t.machine),
  );
  if (broken >= 0) return fail(failure('field.invalid', `tasks.${broken}`));
  const unsorted = input.tasks.findIndex((t) => t.reached.some((q, i) => i > 0 && q < (t.reached[i - 1] ?? q)));
  if (unsorted >= 0) return fail(failure('field.invalid', `tasks.${unsorted}.reached`));
  if (new Set(input.tasks.map((t) => t.id)).size < input.tasks.length) return fail(failure('field.invalid', 'tasks'));
  return ok({
    minutes: input.minutes,
    containedMinutes: input.containedMinutes,
    machines: input.machines.map((m) => ({ ...m, blockedDays: new Set(m.blockedDays) })),
    parts: input.parts,
    tasks: input.tasks.map((t) => ({
      ...t,
      machine: at(input.machines, t.machine),
      part: t.part === null ? null : { index: at(input.parts, t.part.id), quantity: t.part.quantity },
    })),
  });
};

/** `calc plan`: the planning problem in; the days, what they cost, why each sits where it sits, and what does not fit out. */
export const planCalc = (input: PlanCalcInput): Result<unknown> => {
  const made = problemOf(input);
  if (!made.ok) return made;
  const problem = made.value;
  const plan = bestPlan(problem, { random: seeded(input.seed).uniform, rounds: input.rounds });
  const cost = costOf(problem, plan.days);
  const own = costOf(problem, eachOnItsOwnDay(problem));
  const reasons = explainPlan(problem, plan.days);
  const told = (c: typeof cost) => ({
    total: round(c.total),
    openings: c.openings,
    openingCost: round(c.openingCost),
    wasteCost: round(c.wasteCost),
    overrunCost: round(c.overrunCost),
    overrunChance: round(c.overrunChance),
  });
  return ok({
    feasible: plan.unplaced === 0,
    ...told(cost),
    lowerBound: plan.unplaced === 0 ? round(lowerBound(problem)) : null,
    eachOnItsOwnDay: told(own),
    tasks: problem.tasks.map((t, i) => {
      const day = plan.days[i] ?? null;
      return {
        id: t.id,
        machine: problem.machines[t.machine]?.id ?? '',
        day,
        overrunChance: day === null ? null : round(chanceBefore(t.reached, day)),
        why: reasons[i]?.kind ?? null,
      };
    }),
    doesNotFit: waysOut(problem, plan.days),
    violations: violationsOf(problem, plan.days).filter((v) => v.kind !== 'unplaced'),
  });
};

/** `calc reorder`: demand, lead time and shelf in; the reorder point and what to order now out. */
export const reorderCalc = (input: ReorderInput): Result<unknown> => {
  const { perDay, leadDays, leadDeviation, service } = input;
  const demand = {
    perDay,
    perDayDeviation: input.perDayDeviation ?? Math.sqrt(perDay),
    leadDays,
    leadDeviation,
    service,
  };
  if (!isWorkshopDemand(demand)) return fail(failure('demand.too-large', 'perDay', { most: MOST_PIECES }));
  const point = reorderPoint(demand);
  const packs = packsToOrder({ ...input, point: point.point, cover: perDay * input.coverDays });
  return ok({
    reorderPoint: round(point.point),
    leadDemand: round(point.leadDemand),
    safetyStock: round(point.safety),
    by: point.by,
    packsToOrder: packs,
    pieces: packs * input.packSize,
  });
};
