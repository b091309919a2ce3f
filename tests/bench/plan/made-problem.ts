import type { PlanProblem, PlanTask } from '@/core/plan/problem';
import { seeded } from '../../../demo/random';

export interface MadeShape {
  readonly machines: number;
  readonly days: number;
  /** Tasks of one machine, at most. */
  readonly tasks: number;
  readonly minutes: number;
  /** Whether parts are short at first. */
  readonly short: boolean;
}

/** Share of the minutes that a crowded yard needs, with openings at six tenths of its tasks. */
const CROWDED = 0.7;

/** Some sixty machines whose days are short of hands, the same for a seed. */
export const crowdedProblem = (seed: number): PlanProblem => {
  const made = madeProblem(seed, { machines: 60, days: 84, tasks: 6, minutes: 240, short: false });
  const tasksOf = (m: number): number => made.tasks.filter((t) => t.machine === m).length;
  const needed =
    made.tasks.reduce((sum, t) => sum + t.minutes, 0) +
    made.machines.reduce((sum, m, i) => sum + m.openingMinutes * Math.max(1, 0.6 * tasksOf(i)), 0);
  const days = made.minutes.filter((m) => m > 0).length;
  const each = Math.round(needed / CROWDED / days);
  return { ...made, minutes: made.minutes.map((m) => (m > 0 ? each : 0)) };
};

/** A made-up planning problem, the same for a seed. */
export const madeProblem = (seed: number, shape: MadeShape): PlanProblem => {
  const { uniform } = seeded(seed);
  const { days } = shape;
  const machines = Array.from({ length: shape.machines }, (_, i) => ({
    id: `m${i}`,
    openingCost: 5 + uniform() * 40,
    openingMinutes: 5 + Math.round(uniform() * 10),
    contained: false,
    blockedDays: new Set(
      Array.from({ length: Math.floor(uniform() * days * 0.1) }, () => Math.floor(uniform() * days)),
    ),
  }));
  const tasks = machines.flatMap((_, machine) =>
    Array.from({ length: 1 + Math.floor(uniform() * shape.tasks) }, (__, k): PlanTask => {
      const middle = uniform() * days * 0.8;
      const wide = uniform() * days * 0.3;
      return {
        id: `t${machine}-${k}`,
        machine,
        minutes: 5 + Math.round(uniform() * 20),
        reached: [middle - wide, middle - wide / 2, middle, middle + 0.6 * wide, middle + 1.3 * wide],
        lifeValuePerDay: 0.2 + uniform() * 3,
        overrunCostPerDay: 1 + uniform() * 10,
        part: uniform() < 0.5 ? { index: Math.floor(uniform() * 3), quantity: 1 } : null,
        onlyWith: null,
        lockedDay: null,
        lastDay: null,
        promised: null,
      };
    }),
  );
  const parts = [0, 1, 2].map((i) => ({
    id: `p${i}`,
    onHand: Math.floor(tasks.length * (shape.short ? 0.1 : 1)),
    deliveries: [{ day: Math.floor(days / 3), quantity: tasks.length }],
  }));
  return {
    containedMinutes: null,
    minutes: Array.from({ length: days }, (_, day) => (day % 7 > 4 ? 0 : shape.minutes)),
    machines,
    tasks,
    parts,
  };
};
