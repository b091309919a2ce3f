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

/** A made-up planning problem, the same for a seed. */
export const madeProblem = (seed: number, shape: MadeShape): PlanProblem => {
  const { uniform } = seeded(seed);
  const { days } = shape;
  const machines = Array.from({ length: shape.machines }, (_, i) => ({
    id: `m${i}`,
    openingCost: 5 + uniform() * 40,
    openingMinutes: 5 + Math.round(uniform() * 10),
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
      };
    }),
  );
  const parts = [0, 1, 2].map((i) => ({
    id: `p${i}`,
    onHand: Math.floor(tasks.length * (shape.short ? 0.1 : 1)),
    deliveries: [{ day: Math.floor(days / 3), quantity: tasks.length }],
  }));
  return {
    minutes: Array.from({ length: days }, (_, day) => (day % 7 > 4 ? 0 : shape.minutes)),
    machines,
    tasks,
    parts,
  };
};
