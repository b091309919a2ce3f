import type { PlanProblem, PlanTask } from '@/core/plan/problem';

/** A task of ten minutes, most likely due on day 5; what a test needs is laid over it. */
export const planTask = (id: string, over: Partial<PlanTask> = {}): PlanTask => ({
  id,
  machine: 0,
  minutes: 10,
  reached: [2, 3, 5, 7, 8],
  lifeValuePerDay: 1,
  overrunCostPerDay: 6,
  part: null,
  onlyWith: null,
  lockedDay: null,
  lastDay: null,
  promised: null,
  ...over,
});

/** Ten days of an hour, two machines that cost 20 and ten minutes to open. */
export const planProblem = (tasks: readonly PlanTask[], over: Partial<PlanProblem> = {}): PlanProblem => ({
  minutes: Array.from({ length: 10 }, () => 60),
  containedMinutes: null,
  machines: [
    { id: 'a', openingCost: 20, openingMinutes: 10, blockedDays: new Set(), contained: false },
    { id: 'b', openingCost: 20, openingMinutes: 10, blockedDays: new Set(), contained: false },
  ],
  tasks,
  parts: [],
  ...over,
});
