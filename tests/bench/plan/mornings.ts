import { addDays } from '@/core/calendar/calendar-date';
import { bestPlan } from '@/core/plan/planner';
import { NEAR_DAYS, type Promised, promisesOf, withPromises } from '@/core/plan/promises';
import { PLAN_OPTIONS, yardProblem } from '@/core/plan/yard-problem';
import { seeded } from '../../../demo/random';
import { EASY, type Hardness, inputOf, lookAt, makeYard, renew, WEEK } from './made-lives';

// Mornings of a made-up yard, one after the other: which promised days move.

const DAY_ONE = '2026-01-05';

export interface Mornings {
  /** Promised days that were still to come on the next morning: within the coming fortnight, and later. */
  readonly near: number;
  readonly far: number;
  /** Of these, how many the next plan moved. */
  readonly nearMoved: number;
  readonly farMoved: number;
  /** Moved days within the fortnight for which the plan names no reason; it must be 0. */
  readonly unexplained: number;
}

/**
 * So many mornings. `quiet`: nothing is recorded and nothing is done. `obeyed`: the work of each day is done on it and
 * recorded, and now and then somebody looks into a machine.
 */
export const mornings = (
  seed: number,
  { count, obeyed, hard = EASY }: { readonly count: number; readonly obeyed: boolean; readonly hard?: Hardness },
): Mornings => {
  const yard = makeYard(seeded(seed * 977 + 5), hard);
  const luck = yard.map((m, i) => m.parts.map((_, k) => seeded(seed * 31_337 + 101 * i + k)));
  const records = yard.map(() => 0);
  const sums = { near: 0, far: 0, nearMoved: 0, farMoved: 0, unexplained: 0 };
  const options = { ...PLAN_OPTIONS, minutesADay: hard.minutesADay };
  let promises: readonly Promised[] = [];
  for (let morning = 0; morning < count; morning += 1) {
    if (obeyed)
      yard.forEach((m, i) =>
        m.parts.forEach((p, k) => {
          const own = luck[i]?.[k];
          const looks = hard.looks / WEEK;
          if (own && lookAt(p, own, { today: morning, hard: { ...hard, looks } })) records[i] = (records[i] ?? 0) + 1;
        }),
      );
    const made = inputOf(yard, morning, { weeks: options.weeks, hard });
    const now = {
      input: { ...made, works: made.works.map((_, day) => (morning + day) % WEEK < 5) },
      today: addDays(DAY_ONE, morning),
      records: [...records],
    };
    const problem = yardProblem(withPromises(now, promises), options);
    const { days } = bestPlan(problem.problem, { random: seeded(5).uniform, rounds: 60 });
    const next = promisesOf(problem, days, { now, promises });
    const named = new Map(next.map((p) => [p.stageId, p]));
    const cycles = new Map(now.input.machines.flatMap((m) => m.stages.map((s) => [s.stageId, s.cycle + 1] as const)));
    for (const { stageId, day, cycle } of promises) {
      if (day < now.today || cycles.get(stageId) !== cycle) continue;
      const which = day <= addDays(now.today, NEAR_DAYS) ? 'near' : 'far';
      sums[which] += 1;
      const then = named.get(stageId);
      if (then?.day === day) continue;
      sums[`${which}Moved`] += 1;
      if (then?.moved?.on !== now.today) sums.unexplained += 1;
    }
    promises = next;
    if (!obeyed) continue;
    problem.problem.tasks.forEach((t, n) => {
      const stage = problem.stages[n];
      const [p, own] = [
        yard[t.machine]?.parts[(stage?.stageId ?? 0) % 10],
        luck[t.machine]?.[(stage?.stageId ?? 0) % 10],
      ];
      if (days[n] !== 0 || stage?.turn !== 1 || !p || !own) return;
      renew(p, own, { on: morning, hard });
      records[t.machine] = (records[t.machine] ?? 0) + 1;
    });
  }
  return sums;
};
