import { groupsOf, type MachineGroups, MOST_ENUMERATED, UNPLACED } from './groups';
import { costOf } from './cost';
import { insertMachine, type PlacedMachine, removeMachine } from './insert-machine';
import type { PlanDays, PlanProblem } from './problem';
import { Capacity } from './capacity';

/** A plan on its way to a better one. */
export interface PlanStep {
  readonly days: PlanDays;
  /** Cost in money of what is placed. */
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

/** Rounds between two tellings of how far it is. */
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

/** Days this far apart are in each other's way. */
const NEAR_DAYS = 3;
/** How often any machine is taken out with one, and how much dearer a plan may be to be kept at first. */
const ANYONE = 0.2;
const SLACK = 0.002;

/** Machines near the same days, or of the same parts, are taken out with one of them: there is something to trade. Now and then any. */
const related = (seed: number, laid: readonly PlacedMachine[], random: () => number): readonly number[] => {
  const own = laid[seed]?.openings ?? [];
  const parts = new Set(own.flatMap((o) => o.set.parts.map((p) => p.index)));
  const anyone = random() < ANYONE;
  const near = (l: PlacedMachine): boolean =>
    anyone ||
    l.left > 0 ||
    l.openings.some(
      (o) => own.some((x) => Math.abs(x.day - o.day) <= NEAR_DAYS) || o.set.parts.some((p) => parts.has(p.index)),
    );
  const others = laid.flatMap((l, m) => (m !== seed && near(l) ? [m] : []));
  return [seed, ...shuffled(others, random).slice(0, 1 + Math.floor(random() * (OUT_AT_MOST - 1)))];
};

/** Tasks that must share a day, as one lump, by the middle of the first one's reach. */
const lumps = (problem: PlanProblem, machine: number): readonly (readonly number[])[] => {
  const mine = problem.tasks.flatMap((t, i) => (t.machine === machine ? [i] : []));
  const heads = mine.filter((i) => problem.tasks[i]?.onlyWith === null);
  const of = (head: number) => [
    head,
    ...mine.filter((i) => i !== head && problem.tasks[i]?.onlyWith === problem.tasks[head]?.id),
  ];
  return heads
    .map(of)
    .sort((a, b) => (problem.tasks[a[0] ?? 0]?.reached[2] ?? 0) - (problem.tasks[b[0] ?? 0]?.reached[2] ?? 0));
};

/** Machines with more tasks than every grouping can be tried for are planned as several, neighbours in time together. */
const splitLarge = (problem: PlanProblem): PlanProblem => {
  const machines = [...problem.machines];
  const tasks = [...problem.tasks];
  problem.machines.forEach((machine, m) => {
    if (problem.tasks.filter((t) => t.machine === m).length <= MOST_ENUMERATED) return;
    let [here, filled] = [m, 0];
    for (const lump of lumps(problem, m)) {
      if (filled > 0 && filled + lump.length > MOST_ENUMERATED) {
        machines.push({ ...machine, id: `${machine.id} ${machines.length}` });
        [here, filled] = [machines.length - 1, 0];
      }
      for (const i of lump) {
        const t = tasks[i];
        if (t) tasks[i] = { ...t, machine: here };
      }
      filled += lump.length;
    }
  });
  return { ...problem, machines, tasks };
};

/**
 * Lays a plan and makes it better, again and again: every machine first in every grouping, one after the other, then a
 * few machines taken out and each put back at its cheapest. Any plan it has told may be used. Deterministic for one
 * stream of numbers. Source: ruin and recreate, Schrimpf and others 2000; the grouping is exact for one machine.
 */
export function* improvePlan(given: PlanProblem, { random, rounds }: PlannerOptions): Generator<PlanStep, PlanStep> {
  const problem = splitLarge(given);
  const groups = problem.machines.map((_, m) => groupsOf(problem, m));
  const room = new Capacity(problem);
  // The tightest first: what has the fewest days, then what costs most to get wrong.
  const order = groups.map((_, m) => m).sort((a, b) => fewest(groups[a]) - fewest(groups[b]));
  const laid: PlacedMachine[] = groups.map(() => ({ openings: [], cost: 0, left: 0 }));
  for (const m of order) laid[m] = insertMachine(groups[m] ?? NO_GROUPS, room);
  let cost = totalOf(laid);
  let best = { cost, days: daysOfLaid(problem, groups, laid) };
  const progressAt = (round: number): PlanStep => {
    const unplaced = best.days.filter((d) => d === null).length;
    return { days: best.days, cost: costOf(given, best.days).total, unplaced, rounds: round };
  };
  yield progressAt(0);
  const ids = groups.map((_, m) => m);
  for (let round = 1; round <= rounds && ids.length > 0; round += 1) {
    const out = related(Math.floor(random() * ids.length), laid, random);
    const before = out.map((m) => laid[m]);
    for (const l of before) if (l) removeMachine(l, room);
    const share = random() * LOOK_PAST;
    for (const m of shuffled(out, random))
      laid[m] = insertMachine(groups[m] ?? NO_GROUPS, room, () => random() < share);
    const after = totalOf(laid);
    // A slightly dearer plan is kept now and then, so that it does not stay in the first valley.
    // In money only: what a task without a day counts must not make room for plans that are simply dear.
    const slack = SLACK * (best.cost % UNPLACED) * (1 - round / rounds) * random() * random();
    if (after <= cost + slack) cost = after;
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
  return progressAt(rounds);
}

const fewest = (g: MachineGroups | undefined): number =>
  Math.min(...(g?.sets ?? []).flatMap((s) => (s ? [s.order.length] : [])), Infinity);

/** The plan after all its rounds. Errors and source as `improvePlan`. */
export const bestPlan = (problem: PlanProblem, options: PlannerOptions): PlanStep => {
  const steps = improvePlan(problem, options);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
};
