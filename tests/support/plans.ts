import type { ReachQuantiles } from '@/core/forecast/limit-distribution';
import type { PlanProblem, PlanTask } from '@/core/plan/problem';
import type { PlanInput, PlannedStage } from '@/core/plan/yard-problem';

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

/** A limit reached about so many days from today; `wide` is half of the 10 to 90 % band, as a share. */
export const about = (middle: number, wide = 0.2): ReachQuantiles => [
  middle * (1 - 2 * wide),
  middle * (1 - wide),
  middle,
  middle * (1 + wide),
  middle * (1 + 2 * wide),
];

/** A bag of so many days, with its part. */
export const plannedStage = (stageId: number, every: number, over: Partial<PlannedStage> = {}): PlannedStage => ({
  stageId,
  name: `stage ${stageId}`,
  kind: 'bag',
  reached: about(every),
  whole: about(every),
  part: 0,
  withStage: null,
  lockedDay: null,
  latest: null,
  lifeDays: every,
  cycle: 0,
  promised: null,
  ...over,
});

/** One plain machine with these stages, weekdays of work and a full shelf. */
export const plannedYard = (stages: readonly PlannedStage[], over: Partial<PlanInput> = {}): PlanInput => ({
  machines: [{ tag: 'M-1', name: 'one', hazard: 'plain', machineClass: null, blockedDays: [], stages }],
  parts: [{ id: 'B', name: 'bag', bin: 'A1', price: 9, leadDays: 10, onHand: 50, deliveries: [] }],
  crew: null,
  works: Array.from({ length: 364 }, (_, day) => day % 7 < 5),
  ...over,
});
