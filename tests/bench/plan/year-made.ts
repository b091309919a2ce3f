import { eachOnItsOwnDay } from '@/core/plan/own-day';
import { bestPlan, bookPlan } from '@/core/plan/planner';
import type { PlanDays } from '@/core/plan/problem';
import { PLAN_OPTIONS, type PlanOptions, type YardProblem, yardProblem } from '@/core/plan/yard-problem';
import { seeded } from '../../../demo/random';
import { EASY, type Hardness, inputOf, lookAt, type MadeMachine, makeYard, renew, WEEK } from './made-lives';

// A year in which a yard is planned anew each week. The work planned for the week is done, and nothing else.

const WEEKS = 52;

/** A way to choose the days of a yard's work. */
export type Policy = (made: YardProblem, yard: readonly MadeMachine[], options: PlanOptions) => PlanDays;

const HAZARDS = ['contained', 'controlled', 'plain'] as const;

/** What is due at the middle of its forecast, on the first day with minutes: hazard first, then the oldest. */
const foreman: Policy = ({ problem, stages }, yard, { minutesADay }) => {
  const days: (number | null)[] = problem.tasks.map(() => null);
  for (let day = 0; day < WEEK; day += 1) {
    if (!problem.minutes[day]) continue;
    let left = minutesADay;
    const opened = new Set<number>();
    const waiting = problem.tasks
      .map((t, i) => ({ t, i }))
      .filter(({ t, i }) => days[i] === null && stages[i]?.turn === 1 && t.reached[2] <= day)
      .map((x) => ({ ...x, rank: HAZARDS.indexOf(yard[x.t.machine]?.hazard ?? 'plain') }))
      .sort((a, b) => a.rank - b.rank || a.t.reached[2] - b.t.reached[2]);
    for (const { t, i } of waiting) {
      const opening = opened.has(t.machine) ? 0 : (problem.machines[t.machine]?.openingMinutes ?? 0);
      if (opening + t.minutes > left) continue;
      left -= opening + t.minutes;
      opened.add(t.machine);
      days[i] = day;
    }
  }
  return days;
};

/** `own` knows no minutes: the best that each stage could have alone. `book` is the naive rule with the day's minutes. */
export const POLICIES = {
  plan: ({ problem }) => bestPlan(problem, { random: seeded(5).uniform, rounds: 60 }).days,
  own: ({ problem }) => eachOnItsOwnDay(problem),
  book: ({ problem }) => bookPlan(problem),
  foreman,
} as const satisfies Record<string, Policy>;

export interface YearLived {
  readonly openings: number;
  /** Share of the days of all stages that were past a limit. */
  readonly past: number;
  /** The same of the main filters of M and H machines. */
  readonly hazardousPast: number;
  readonly changes: number;
}

/** A year of a made-up yard, planned anew each Monday by a policy. */
export const liveYear = (
  seed: number,
  {
    policy,
    hard = EASY,
    options = { ...PLAN_OPTIONS, minutesADay: hard.minutesADay },
  }: { readonly policy: keyof typeof POLICIES; readonly hard?: Hardness; readonly options?: PlanOptions },
): YearLived => {
  const r = seeded(seed * 977 + 5);
  const yard = makeYard(r, hard);
  // All ways of planning meet the same lives and the same looks.
  const luck = yard.map((m, i) => m.parts.map((_, k) => seeded(seed * 31_337 + 101 * i + k)));
  const count = { openings: 0, changes: 0, past: 0, hazardous: 0 };
  const isHazardous = (m: MadeMachine, k: number): boolean => m.hazard !== 'plain' && m.parts[k]?.kind === 'mainFilter';
  const addPast = (m: MadeMachine, k: number, until: number): void => {
    const p = m.parts[k];
    const days = p ? Math.max(0, until - (p.since + p.life)) : 0;
    count.past += days;
    if (isHazardous(m, k)) count.hazardous += days;
  };
  for (let week = 0; week < WEEKS; week += 1) {
    const today = week * WEEK;
    yard.forEach((m, i) =>
      m.parts.forEach((p, k) => {
        const own = luck[i]?.[k];
        if (own) lookAt(p, own, { today, hard });
      }),
    );
    const made = yardProblem(inputOf(yard, today, { weeks: options.weeks, hard }), options);
    const days = POLICIES[policy](made, yard, options);
    const opened = new Set<string>();
    made.problem.tasks.forEach((t, n) => {
      const day = days[n] ?? null;
      const stage = made.stages[n];
      if (day === null || day >= WEEK || stage?.turn !== 1) return;
      const m = yard[t.machine];
      const k = stage.stageId % 10;
      const own = luck[t.machine]?.[k];
      const p = m?.parts[k];
      if (!m || !p || !own) return;
      opened.add(`${t.machine} ${day}`);
      addPast(m, k, today + day);
      count.changes += 1;
      renew(p, own, { on: today + day, hard });
    });
    count.openings += opened.size;
  }
  const all = yard.flatMap((m) => m.parts.map((_, k) => ({ m, k })));
  for (const { m, k } of all) addPast(m, k, WEEKS * WEEK);
  const dangerous = all.filter(({ m, k }) => isHazardous(m, k)).length;
  return {
    openings: count.openings,
    changes: count.changes,
    past: count.past / (all.length * WEEKS * WEEK),
    hazardousPast: count.hazardous / (Math.max(1, dangerous) * WEEKS * WEEK),
  };
};
