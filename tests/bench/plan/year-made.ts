import { eachOnItsOwnDay } from '@/core/plan/own-day';
import { addDays } from '@/core/calendar/calendar-date';
import { bestPlan } from '@/core/plan/planner';
import { NEAR_DAYS, type Promised, promisesOf, withPromises } from '@/core/plan/promises';
import type { ReachQuantiles } from '@/core/forecast/limit-distribution';
import {
  PLAN_OPTIONS,
  type PlanInput,
  type PlanOptions,
  type PlannedStage,
  yardProblem,
} from '@/core/plan/yard-problem';
import type { DustHazard } from '@/core/machine/machine';
import { type Random, seeded } from '../../../demo/random';

// A year in which a yard is planned anew each week and lives on: bags and filters have lives of their own, of which only
// their middle and now and then a look are known. What was planned for the week is done, and nothing else.

const WEEKS = 52;
const WEEK = 7;
const MACHINES = 14;
/** From one life to the next, and what is known of their middle, as spreads of the logarithm. */
const BETWEEN = 0.25;
const KNOWN = 0.1;
/** A look a week at half of them, coarse. */
const LOOKS = 0.5;
const LOOK_OFF = 0.1;

interface Part {
  readonly kind: PlannedStage['kind'];
  readonly middle: number;
  readonly known: number;
  since: number;
  life: number;
  looks: { readonly age: number; readonly share: number }[];
}

interface MadeMachine {
  readonly hazard: DustHazard;
  readonly parts: readonly Part[];
}

const lifeOf = (r: Random, middle: number): number => Math.max(3, middle * Math.exp(BETWEEN * r.normal()));

const makeYard = (r: Random): readonly MadeMachine[] =>
  Array.from({ length: MACHINES }, (): MadeMachine => {
    const part = (kind: Part['kind'], low: number, high: number): Part => {
      const middle = low + (high - low) * r.uniform();
      const life = lifeOf(r, middle);
      return {
        kind,
        middle,
        known: middle * Math.exp(KNOWN * r.normal()),
        since: -life * r.uniform() * 0.9,
        life,
        looks: [],
      };
    };
    const hazards = ['plain', 'controlled', 'contained'] as const;
    return {
      hazard: hazards[Math.floor(r.uniform() * 3)] ?? 'plain',
      parts: [
        part('bag', 12, 50),
        part('mainFilter', 110, 400),
        ...(r.uniform() < 0.6 ? [part('prefilter', 40, 130)] : []),
        ...(r.uniform() < 0.4 ? [part('exhaustFilter', 90, 220)] : []),
      ],
    };
  });

const GRID = 61;
const CHANCES = [0.002, 0.1, 0.5, 0.9, 0.998] as const;

/** Days left as far as is known: the middle, what was seen, and that people see a limit when it is there. */
const leftOf = ({ known, looks, since }: Part, today: number): ReachQuantiles => {
  const points = Array.from(
    { length: GRID },
    (_, i) => known * Math.exp((3.2 * BETWEEN * (2 * i - GRID + 1)) / (GRID - 1)),
  );
  const weights = points.map((life) =>
    looks.reduce(
      (w, l) => w * (0.01 + Math.exp(-0.5 * ((l.share - l.age / life) / LOOK_OFF) ** 2)),
      Math.exp(-0.5 * (Math.log(life / known) / Math.hypot(BETWEEN, KNOWN)) ** 2),
    ),
  );
  const total = weights.reduce((a, b) => a + b, 0);
  const at = (p: number): number => {
    let below = 0;
    for (const [i, w] of weights.entries()) {
      below += w / total;
      if (below >= p) return (points[i] ?? 0) - (today - since);
    }
    return (points.at(-1) ?? 0) - (today - since);
  };
  const [a, b, c, d, e] = CHANCES.map(at);
  return [a ?? 0, b ?? 0, c ?? 0, d ?? 0, e ?? 0];
};

const wholeOf = ({ known }: Part): ReachQuantiles => {
  const [a, b, c, d, e] = [-3, -1.28, 0, 1.28, 3].map((z) => known * Math.exp(z * BETWEEN));
  return [a ?? 0, b ?? 0, c ?? 0, d ?? 0, e ?? 0];
};

const PRICES: Partial<Record<Part['kind'], number>> = { bag: 9, mainFilter: 70, prefilter: 12, exhaustFilter: 20 };
const KINDS = ['bag', 'mainFilter', 'prefilter', 'exhaustFilter'] as const;

const inputOf = (yard: readonly MadeMachine[], today: number, weeks: number): PlanInput => ({
  machines: yard.map((m, i) => ({
    tag: `m${i}`,
    name: '',
    hazard: m.hazard,
    machineClass: null,
    blockedDays: [],
    stages: m.parts.map((p, k) => ({
      stageId: 10 * i + k,
      name: p.kind,
      kind: p.kind,
      reached: leftOf(p, today),
      whole: wholeOf(p),
      part: KINDS.indexOf(p.kind as (typeof KINDS)[number]),
      withStage: null,
      lockedDay: null,
      latest: null,
      lifeDays: p.known,
      cycle: 0,
      promised: null,
    })),
  })),
  parts: KINDS.map((kind) => ({
    id: kind,
    name: kind,
    bin: '',
    price: PRICES[kind] ?? 10,
    leadDays: 0,
    onHand: 1e6,
    deliveries: [],
  })),
  works: Array.from({ length: weeks * WEEK }, (_, day) => day % WEEK < 5),
});

export interface YearLived {
  readonly openings: number;
  /** Share of the days of all stages that were past a limit. */
  readonly past: number;
  readonly changes: number;
}

/** A year of a made-up yard, planned anew each Monday by the plan, or with each stage on its own best day. */
export const liveYear = (
  seed: number,
  { plan, options = PLAN_OPTIONS }: { readonly plan: boolean; readonly options?: PlanOptions },
): YearLived => {
  const r = seeded(seed * 977 + 5);
  const yard = makeYard(r);
  // Both ways of planning meet the same lives and the same looks.
  const luck = yard.map((m, i) => m.parts.map((_, k) => seeded(seed * 31_337 + 101 * i + k)));
  let [openings, past, changes] = [0, 0, 0];
  for (let week = 0; week < WEEKS; week += 1) {
    const today = week * WEEK;
    yard.forEach((m, i) =>
      m.parts.forEach((p, k) => {
        const own = luck[i]?.[k];
        if (!own || own.uniform() > LOOKS) return;
        const age = today - p.since;
        p.looks.push({ age, share: age / p.life + LOOK_OFF * own.normal() });
      }),
    );
    const made = yardProblem(inputOf(yard, today, options.weeks), options);
    const days = plan
      ? bestPlan(made.problem, { random: seeded(5).uniform, rounds: 60 }).days
      : eachOnItsOwnDay(made.problem);
    const opened = new Set<string>();
    made.problem.tasks.forEach((t, n) => {
      const day = days[n] ?? null;
      const stage = made.stages[n];
      if (day === null || day >= WEEK || stage?.turn !== 1) return;
      const k = stage.stageId % 10;
      const p = yard[t.machine]?.parts[k];
      const own = luck[t.machine]?.[k];
      if (!p || !own) return;
      opened.add(`${t.machine} ${day}`);
      past += Math.max(0, today + day - (p.since + p.life));
      changes += 1;
      p.since = today + day;
      p.life = lifeOf(own, p.middle);
      p.looks = [];
    });
    openings += opened.size;
  }
  const parts = yard.reduce((n, m) => n + m.parts.length, 0);
  for (const m of yard) for (const p of m.parts) past += Math.max(0, WEEKS * WEEK - (p.since + p.life));
  return { openings, changes, past: past / (parts * WEEKS * WEEK) };
};

const MORNINGS = 10;
const DAY_ONE = '2026-01-05';

export interface QuietMornings {
  /** Promised days that were still to come on the next morning: within the coming fortnight, and later. */
  readonly near: number;
  readonly far: number;
  /** Of these, how many the next plan moved. */
  readonly nearMoved: number;
  readonly farMoved: number;
}

/** Ten mornings of a made-up yard on which nothing is recorded and nothing is done: which promised days move. */
export const quietMornings = (seed: number): QuietMornings => {
  const yard = makeYard(seeded(seed * 977 + 5));
  const count = { near: 0, far: 0, nearMoved: 0, farMoved: 0 };
  let promises: readonly Promised[] = [];
  for (let morning = 0; morning < MORNINGS; morning += 1) {
    const made = inputOf(yard, morning, PLAN_OPTIONS.weeks);
    const now = {
      input: { ...made, works: made.works.map((_, day) => (morning + day) % WEEK < 5) },
      today: addDays(DAY_ONE, morning),
      records: yard.map(() => 0),
    };
    const problem = yardProblem(withPromises(now, promises), PLAN_OPTIONS);
    const { days } = bestPlan(problem.problem, { random: seeded(5).uniform, rounds: 60 });
    const next = promisesOf(problem, days, { now, promises });
    const named = new Map(next.map((p) => [p.stageId, p.day]));
    for (const { stageId, day } of promises) {
      if (day < now.today) continue;
      const which = day <= addDays(now.today, NEAR_DAYS) ? 'near' : 'far';
      count[which] += 1;
      if (named.get(stageId) !== day) count[`${which}Moved`] += 1;
    }
    promises = next;
  }
  return count;
};
