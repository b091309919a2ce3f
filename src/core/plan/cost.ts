import type { PlanCost, PlanDays, PlanProblem } from './problem';
import { chanceBefore } from '../forecast/limit-distribution';
import { taskCost } from './task-cost';

/**
 * The cost of a plan: openings, wasted life, days past the limit and past last days, moved promises. Tasks without a day
 * cost nothing here; the planner ranks them separately. Definition: the planning problem as stated in `problem`.
 */
export const costOf = ({ machines, tasks }: PlanProblem, days: PlanDays): PlanCost => {
  const opened = new Set<string>();
  let openingCost = 0;
  let wasteCost = 0;
  let overrunCost = 0;
  let lateCost = 0;
  let moveCost = 0;
  let chance = 0;
  let placed = 0;
  tasks.forEach((t, i) => {
    const day = days[i] ?? null;
    if (day === null) return;
    const key = `${t.machine} ${day}`;
    if (!opened.has(key)) openingCost += machines[t.machine]?.openingCost ?? 0;
    opened.add(key);
    const cost = taskCost(t, day);
    wasteCost += cost.waste;
    overrunCost += cost.overrun;
    lateCost += cost.late;
    moveCost += cost.move;
    chance += chanceBefore(t.reached, day);
    placed += 1;
  });
  return {
    total: openingCost + wasteCost + overrunCost + lateCost + moveCost,
    openings: opened.size,
    openingCost,
    wasteCost,
    overrunCost,
    lateCost,
    moveCost,
    overrunChance: placed === 0 ? 0 : chance / placed,
  };
};

/** Violations of a plan; a valid plan has none. */
export type PlanViolation =
  | { readonly kind: 'unplaced'; readonly task: string }
  | { readonly kind: 'outside'; readonly task: string; readonly day: number }
  | { readonly kind: 'minutes'; readonly day: number; readonly needed: number; readonly there: number }
  /** More contained work than the people with papers have minutes for. */
  | { readonly kind: 'papers'; readonly day: number; readonly needed: number; readonly there: number }
  | { readonly kind: 'blocked'; readonly task: string; readonly day: number }
  | {
      readonly kind: 'part';
      readonly part: string;
      readonly day: number;
      readonly needed: number;
      readonly there: number;
    }
  | { readonly kind: 'apart'; readonly task: string; readonly partner: string }
  | { readonly kind: 'unlocked'; readonly task: string; readonly day: number }
  /** Out of the turn of its stage. */
  | { readonly kind: 'turn'; readonly task: string; readonly day: number };

/** Minutes a plan takes of each day it uses, for the machines that count: all, unless said otherwise. */
export const minutesByDay = (
  { machines, tasks }: PlanProblem,
  days: PlanDays,
  counts: (machine: PlanProblem['machines'][number]) => boolean = () => true,
): ReadonlyMap<number, number> => {
  const used = new Map<number, number>();
  const opened = new Set<string>();
  tasks.forEach((t, i) => {
    const day = days[i] ?? null;
    const machine = machines[t.machine];
    if (day === null || !machine || !counts(machine)) return;
    const key = `${t.machine} ${day}`;
    const opening = opened.has(key) ? 0 : machine.openingMinutes;
    opened.add(key);
    used.set(day, (used.get(day) ?? 0) + opening + t.minutes);
  });
  return used;
};

/** Pieces of a part at the end of each day under a plan, by what comes in and what is taken; what is still to be ordered takes it below 0. Definition: the sum of what comes in and goes out. Valid: a part of the problem. */
export const stockByDay = (problem: PlanProblem, days: PlanDays, part: number): readonly number[] =>
  stockOf(problem, days, { part, of: (t) => t.part ?? t.orders ?? null });

type Takes = (task: PlanProblem['tasks'][number]) => { readonly index: number; readonly quantity: number } | null;

const stockOf = (
  { tasks, parts, minutes }: PlanProblem,
  days: PlanDays,
  { part, of }: { readonly part: number; readonly of: Takes },
): readonly number[] => {
  const p = parts[part];
  const change = new Float64Array(minutes.length);
  for (const d of p?.deliveries ?? []) if (d.day < change.length) change[d.day] = (change[d.day] ?? 0) + d.quantity;
  tasks.forEach((t, i) => {
    const day = days[i] ?? null;
    const takes = of(t);
    if (takes?.index === part && day !== null && day >= 0 && day < change.length)
      change[day] = (change[day] ?? 0) - takes.quantity;
  });
  let there = p?.onHand ?? 0;
  return Array.from(change, (c) => (there += c));
};

const partViolations = (problem: PlanProblem, days: PlanDays): readonly PlanViolation[] =>
  problem.parts.flatMap((part, index) => {
    const day = stockOf(problem, days, { part: index, of: (t) => t.part }).findIndex((there) => there < 0);
    if (day < 0) return [];
    const needed = problem.tasks.reduce(
      (sum, t, i) => sum + (t.part?.index === index && (days[i] ?? Infinity) <= day ? t.part.quantity : 0),
      0,
    );
    return [
      {
        kind: 'part',
        part: part.id,
        day,
        needed,
        there: part.onHand + part.deliveries.reduce((sum, d) => sum + (d.day <= day ? d.quantity : 0), 0),
      },
    ];
  });

/** Everything that is wrong with a plan, by its own slow count: the planner's plans are held against it. */
export const violationsOf = (problem: PlanProblem, days: PlanDays): readonly PlanViolation[] => {
  const { tasks, machines, minutes, containedMinutes } = problem;
  const own = tasks.flatMap((t, i): readonly PlanViolation[] => {
    const day = days[i] ?? null;
    if (day === null) return [{ kind: 'unplaced', task: t.id }];
    const partner = t.onlyWith === null ? -1 : tasks.findIndex((x) => x.id === t.onlyWith);
    return [
      ...(day >= 0 && day < minutes.length && Number.isInteger(day)
        ? []
        : [{ kind: 'outside', task: t.id, day } as const]),
      ...(machines[t.machine]?.blockedDays.has(day) ? [{ kind: 'blocked', task: t.id, day } as const] : []),
      ...(partner >= 0 && days[partner] !== day
        ? [{ kind: 'apart', task: t.id, partner: t.onlyWith ?? '' } as const]
        : []),
      ...(t.lockedDay !== null && t.lockedDay !== day ? [{ kind: 'unlocked', task: t.id, day } as const] : []),
      ...(t.within && (day < t.within[0] || day > t.within[1]) ? [{ kind: 'turn', task: t.id, day } as const] : []),
    ];
  });
  const crowded = [...minutesByDay(problem, days)]
    .filter(([day, needed]) => needed > (minutes[day] ?? 0))
    .map(([day, needed]): PlanViolation => ({ kind: 'minutes', day, needed, there: minutes[day] ?? 0 }));
  const unpapered = containedMinutes
    ? [...minutesByDay(problem, days, (m) => m.contained)]
        .filter(([day, needed]) => needed > (containedMinutes[day] ?? 0))
        .map(([day, needed]): PlanViolation => ({ kind: 'papers', day, needed, there: containedMinutes[day] ?? 0 }))
    : [];
  return [...own, ...crowded, ...unpapered, ...partViolations(problem, days)];
};
