import { byTheBook } from './by-the-book';
import { groupsOf, type MachineGroups, MOST_ENUMERATED, UNPLACED } from './groups';
import { costOf } from './cost';
import { insertMachine, type PlacedMachine, removeMachine } from './insert-machine';
import type { PlanDays, PlanProblem } from './problem';
import { Capacity } from './capacity';
import { relaxMinutes } from './relax';
import { splitLarge } from './split-large';

/** A plan on its way to a better one. */
export interface PlanStep {
  readonly days: PlanDays;
  /** Cost of the placed tasks, in money. */
  readonly cost: number;
  /** Tasks without a day. */
  readonly unplaced: number;
  /** Rounds of taking out and putting back so far. */
  readonly rounds: number;
}

export interface PlannerOptions {
  /** Numbers from 0 to 1; the same stream gives the same plan. */
  readonly random: () => number;
  readonly rounds: number;
}

const NO_GROUPS: MachineGroups = { tasks: [], sets: [null], left: [] };

/** Rounds between two progress reports. */
const TELL_EVERY = 200;
/** Share of days that are passed over in a round, at most. */
const LOOK_PAST = 0.4;
/** Machines taken out in one round, at most. */
const OUT_AT_MOST = 5;

const daysOfLaid = (
  problem: PlanProblem,
  groups: readonly MachineGroups[],
  laid: readonly PlacedMachine[],
): PlanDays => {
  const days: (number | null)[] = problem.tasks.map(() => null);
  laid.forEach(({ openings }, m) => {
    for (const { bits, day } of openings)
      groups[m]?.tasks.forEach((t, i) => {
        if (bits & (1 << i)) days[t] = day;
      });
  });
  return days;
};

const totalOf = (laid: readonly PlacedMachine[]): number => laid.reduce((sum, l) => sum + l.cost, 0);

const shuffled = (items: readonly number[], random: () => number): readonly number[] => {
  const all = [...items];
  for (let i = all.length - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    [all[i], all[j]] = [all[j] ?? 0, all[i] ?? 0];
  }
  return all;
};

/** Gap to the bound below which the search stops, as a share. */
const GOOD_ENOUGH = 0.0002;

/**
 * Time of a search round, microseconds: fixed, per machine, and per grouping of one. Measured on one core of a small
 * server.
 */
const ROUND_US = { itself: 30, machine: 0.9, grouping: 1.8 } as const;
const LEAST_ROUNDS = 200;
const MOST_ROUNDS = 100_000;

/**
 * Search rounds that take about the given seconds for a problem of this size: the same for the same problem.
 * Definition: measured. Valid: seconds above 0.
 */
export const roundsFor = ({ machines, tasks }: PlanProblem, seconds: number): number => {
  const counts = machines.map(() => 0);
  for (const t of tasks) counts[t.machine] = (counts[t.machine] ?? 0) + 1;
  const groupings =
    counts.reduce((sum, n) => sum + 2 ** Math.min(n, MOST_ENUMERATED), 0) / Math.max(1, machines.length);
  const each = ROUND_US.itself + ROUND_US.machine * machines.length + ROUND_US.grouping * groupings;
  return Math.round(Math.min(MOST_ROUNDS, Math.max(LEAST_ROUNDS, (1e6 * seconds) / each)));
};

/** Steps in which the minutes of the days are priced; how often a round reckons with them, and how much at most. Modelling choices. */
const PRICE_STEPS = 60;
const PRICED = 0.5;
const MOST_PRICED = 1.2;
/** Days this far apart are in each other's way. */
const NEAR_DAYS = 3;
/** How often any machine is taken out with one, and how often it is any machine and not one that would gladly lie otherwise. */
const ANYONE = 0.1;
const ANY_SEED = 0.25;
/** Largest extra cost of an accepted plan, as a share of the regret, at the start. */
const SLACK = 0.04;

/** The ideal place of a machine with all minutes and parts to itself: its regret is its present cost above that. */
interface Wish {
  readonly cost: number;
  readonly days: readonly number[];
}

const regretOf = (laid: PlacedMachine | undefined, wish: Wish | undefined): number =>
  Math.max(0, (laid?.cost ?? 0) - (wish?.cost ?? 0)) % UNPLACED;

/** A machine by its regret: who has most to gain is taken out most. */
const seedOf = (laid: readonly PlacedMachine[], wishes: readonly Wish[], random: () => number): number => {
  const any = Math.floor(random() * laid.length);
  if (random() < ANY_SEED) return any;
  const regrets = laid.map((l, m) => (l.left > 0 ? UNPLACED : regretOf(l, wishes[m])));
  let wanted = random() * regrets.reduce((x, y) => x + y, 0);
  const found = regrets.findIndex((r) => (wanted -= r) < 0);
  return found < 0 ? any : found;
};

/**
 * Machines that share days or parts with this one are taken out with it, so that they can trade places. Sometimes a
 * random one.
 */
const related = (
  seed: number,
  { laid, wishes }: { readonly laid: readonly PlacedMachine[]; readonly wishes: readonly Wish[] },
  random: () => number,
): readonly number[] => {
  const own = laid[seed]?.openings ?? [];
  const days = [...own.map((o) => o.day), ...(wishes[seed]?.days ?? [])];
  const parts = new Set(own.flatMap((o) => o.set.parts.map((p) => p.index)));
  const anyone = random() < ANYONE;
  const near = (l: PlacedMachine): boolean =>
    anyone ||
    l.left > 0 ||
    l.openings.some(
      (o) => days.some((d) => Math.abs(d - o.day) <= NEAR_DAYS) || o.set.parts.some((p) => parts.has(p.index)),
    );
  const others = laid.flatMap((l, m) => (m !== seed && near(l) ? [m] : []));
  return [seed, ...shuffled(others, random).slice(0, 1 + Math.floor(random() * (OUT_AT_MOST - 1)))];
};

/**
 * Makes a plan and improves it step by step: first every machine in every grouping, in turn, then a few machines are
 * taken out and each is put back at its cheapest. Every yielded plan is valid. Deterministic for one stream of numbers.
 * Source: ruin and recreate, Schrimpf and others 2000; the grouping is exact for one machine.
 */
export function* improvePlan(given: PlanProblem, { random, rounds }: PlannerOptions): Generator<PlanStep, PlanStep> {
  const problem = splitLarge(given);
  const groups = problem.machines.map((_, m) => groupsOf(problem, m));
  const wishes = groups.map((g): Wish => {
    const alone = insertMachine(g, new Capacity(problem));
    return { cost: alone.cost, days: alone.openings.map((o) => o.day) };
  });
  const room = new Capacity(problem);
  const { prices, bound } = relaxMinutes(problem, groups, { steps: PRICE_STEPS });
  const crowded = prices.some((p) => p > 0);
  // Last days first, the soonest first; then the tightest: the fewest days, then the largest cost of a bad place.
  const last = problem.machines.map((_, m) => soonestLastDay(problem, m));
  const order = groups
    .map((_, m) => m)
    .sort((a, b) => (last[a] ?? 0) - (last[b] ?? 0) || fewest(groups[a]) - fewest(groups[b]));
  const laid: PlacedMachine[] = groups.map(() => ({ openings: [], cost: 0, left: 0 }));
  for (const m of order) laid[m] = insertMachine(groups[m] ?? NO_GROUPS, room, crowded ? { prices } : {});
  let cost = totalOf(laid);
  let best = { cost, days: daysOfLaid(problem, groups, laid) };
  const book = byTheBook(problem, groups);
  const progressAt = (round: number): PlanStep => {
    const days = better(given, best.days, book);
    const unplaced = days.filter((d) => d === null).length;
    return { days, cost: costOf(given, days).total, unplaced, rounds: round };
  };
  yield progressAt(0);
  const done = () => best.cost <= (1 + GOOD_ENOUGH) * bound;
  let round = 0;
  while (round < rounds && groups.length > 0 && !done()) {
    round += 1;
    const out = related(seedOf(laid, wishes, random), { laid, wishes }, random);
    const before = out.map((m) => laid[m]);
    for (const l of before) if (l) removeMachine(l, room);
    const share = random() * LOOK_PAST;
    // Who regrets most chooses first, mostly.
    const next =
      random() < 0.5
        ? shuffled(out, random)
        : [...out].sort((x, y) => regretOf(laid[y], wishes[y]) - regretOf(laid[x], wishes[x]));
    const was = cost;
    const theta = crowded && random() < PRICED ? random() * MOST_PRICED : 0;
    const choosing = {
      lookPast: () => random() < share,
      prices: theta > 0 ? prices.map((p) => theta * p) : null,
    };
    for (const m of next) laid[m] = insertMachine(groups[m] ?? NO_GROUPS, room, choosing);
    const after = totalOf(laid);
    // A dearer plan is kept now and then, so that it does not stay in the first valley. In money only: what a task without
    // a day counts must not make room for plans that are simply dear.
    const regret = laid.reduce((sum, l, m) => sum + regretOf(l, wishes[m]), 0);
    const cooling = (1 - round / rounds) ** 2;
    const slack = (SLACK * regret * cooling * -Math.log(1 - random())) / Math.sqrt(groups.length);
    if (after <= was + slack) cost = after;
    else {
      for (const m of out) {
        const now = laid[m];
        if (now) removeMachine(now, room);
      }
      out.forEach((m, i) => {
        const old = before[i];
        if (!old) return;
        for (const { set, day } of old.openings) room.take(set, day);
        laid[m] = old;
      });
    }
    if (cost < best.cost - 1e-9) best = { cost, days: daysOfLaid(problem, groups, laid) };
    if (round % TELL_EVERY === 0) yield progressAt(round);
  }
  return progressAt(round);
}

/** The soonest last day of a machine's tasks; a day beyond any horizon without one. */
const soonestLastDay = ({ tasks }: PlanProblem, machine: number): number =>
  tasks.reduce((day, t) => (t.machine === machine && t.lastDay !== null ? Math.min(day, t.lastDay) : day), 1e6);

/** Tasks without a day, with a last day and without one, and the cost of the others. */
const worthOf = (problem: PlanProblem, days: PlanDays): readonly [number, number, number] => {
  const without = problem.tasks.filter((_, i) => (days[i] ?? null) === null);
  return [without.filter((t) => t.lastDay !== null).length, without.length, costOf(problem, days).total];
};

/** The first plan, unless the second one is better. */
const better = (problem: PlanProblem, days: PlanDays, other: PlanDays): PlanDays => {
  const [a, b] = [worthOf(problem, days), worthOf(problem, other)];
  const at = a.findIndex((x, i) => Math.abs(x - (b[i] ?? 0)) > 1e-9);
  return at >= 0 && (b[at] ?? 0) < (a[at] ?? 0) ? other : days;
};

/** Each change on its own day or the next one with room: a plan is compared with it. Errors and source as `byTheBook`. */
export const bookPlan = (given: PlanProblem): PlanDays => {
  const problem = splitLarge(given);
  return byTheBook(
    problem,
    problem.machines.map((_, m) => groupsOf(problem, m)),
  );
};

const fewest = (g: MachineGroups | undefined): number =>
  Math.min(...(g?.sets ?? []).flatMap((s) => (s ? [s.order.length] : [])), Infinity);

/** The plan after all its rounds. Errors and source as `improvePlan`. */
export const bestPlan = (problem: PlanProblem, options: PlannerOptions): PlanStep => {
  const steps = improvePlan(problem, options);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
};
