import { z } from 'zod';
import { CrewPageJson } from './crew';
import { Day } from './day';
import { HazardName, MachineClassName, MoveReasonName, StageKindName } from './enums';
import { ClientId, Initials } from './requests';

/** Messages of the plan's worker, and requests about locks, wear and orders. */

const Quantiles = z.tuple([z.number(), z.number(), z.number(), z.number(), z.number()]);
const Index = z.int().min(0).max(10_000);

const PromiseJson = z.strictObject({ day: Index, later: z.number().min(0), sooner: z.number().min(0) });

export const PlanProblemJson = z.strictObject({
  minutes: z.array(z.number().min(0)).max(400),
  containedMinutes: z.array(z.number().min(0)).max(400).nullable(),
  machines: z.array(
    z.strictObject({
      id: z.string(),
      openingCost: z.number().min(0),
      openingMinutes: z.number().min(0),
      blockedDays: z.set(Index),
      contained: z.boolean(),
    }),
  ),
  tasks: z.array(
    z.strictObject({
      id: z.string(),
      machine: Index,
      minutes: z.number().min(0),
      reached: Quantiles,
      lifeValuePerDay: z.number().min(0),
      overrunCostPerDay: z.number().min(0),
      part: z.strictObject({ index: Index, quantity: z.number().positive() }).nullable(),
      orders: z.strictObject({ index: Index, quantity: z.number().positive() }).exactOptional(),
      onlyWith: z.string().nullable(),
      lockedDay: Index.nullable(),
      lastDay: z.int().min(0).nullable(),
      promised: PromiseJson.nullable(),
      within: z.tuple([Index, Index]).readonly().exactOptional(),
    }),
  ),
  parts: z.array(
    z.object({
      id: z.string(),
      onHand: z.number(),
      deliveries: z.array(z.strictObject({ day: Index, quantity: z.number() })),
    }),
  ),
});

/** The data of the plan page: sent with the page of a small yard, fetched by the page of a large one. */
export const PlanPageJson = z.strictObject({
  input: z.strictObject({
    machines: z.array(
      z.strictObject({
        tag: z.string(),
        name: z.string(),
        hazard: HazardName,
        machineClass: MachineClassName.nullable(),
        blockedDays: z.array(Index),
        stages: z.array(
          z.strictObject({
            stageId: z.int(),
            name: z.string(),
            kind: StageKindName,
            reached: Quantiles,
            whole: Quantiles,
            part: Index.nullable(),
            withStage: z.int().nullable(),
            lockedDay: Index.nullable(),
            latest: z.int().nullable(),
            lifeDays: z.number(),
            cycle: z.int().min(0),
            promised: PromiseJson.nullable(),
          }),
        ),
      }),
    ),
    parts: z.array(
      z.strictObject({
        id: z.string(),
        name: z.string(),
        bin: z.string(),
        price: z.number(),
        leadDays: z.number(),
        onHand: z.number(),
        deliveries: z.array(z.strictObject({ day: Index, quantity: z.number() })),
      }),
    ),
    works: z.array(z.boolean()),
    crew: z
      .strictObject({ minutes: z.array(z.number().min(0)), containedMinutes: z.array(z.number().min(0)) })
      .nullable(),
  }),
  options: z.strictObject({
    weeks: z.int(),
    minutesADay: z.number(),
    lateFactor: z.number(),
    openingCost: z.record(HazardName, z.number()),
    openingMinutes: z.record(HazardName, z.number()),
  }),
  days: z.array(z.int().nullable()),
  /** Promised days that moved within the last week, the newest move first. */
  moves: z.array(
    z.strictObject({ tag: z.string(), stage: z.string(), from: Day, to: Day, on: Day, because: MoveReasonName }),
  ),
  crew: CrewPageJson,
  today: Day,
  /** Something was written since it was made, and a new one is being made. */
  behind: z.boolean(),
});
export type PlanPageJson = z.infer<typeof PlanPageJson>;

/** Goes through the year ahead of a yard. */
export const YearRequest = PlanPageJson.pick({ input: true, options: true }).extend({ ask: z.literal('year') });
export type YearRequest = z.infer<typeof YearRequest>;

const Range = z.tuple([z.number(), z.number(), z.number()]).readonly();
export const YearReply = z.strictObject({
  openings: Range,
  minutes: Range,
  cost: Range,
  daysPast: Range,
  sharePast: Range,
  parts: z.array(z.strictObject({ part: Index, year: Range, months: z.array(Range).readonly() })).readonly(),
  fullestWeek: Range,
});
export type YearReply = z.infer<typeof YearReply>;

export const PlanRequest = z.strictObject({
  ask: z.literal('plan'),
  id: z.int(),
  problem: PlanProblemJson,
  rounds: z.int().min(0).max(100_000),
  seed: z.int(),
});
export type PlanRequest = z.infer<typeof PlanRequest>;

export const PlanReply = z.strictObject({
  id: z.int(),
  days: z.array(z.number().nullable()),
  cost: z.number(),
  unplaced: z.int(),
  rounds: z.int(),
  done: z.boolean(),
});
export type PlanReply = z.infer<typeof PlanReply>;

/** Less than three minutes, or a hundredth full, is nothing: a figure that small is a slip, and would be divided by. */
const LEAST_HOURS = 0.05;
const LEAST_SHARE = 0.01;
const noneOrAtLeast = (least: number) => (value: number) => value === 0 || value >= least;

/** Fixes the days of stages in the plan, all in one; null sets one free. */
export const LockPlanBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  locks: z
    .array(z.strictObject({ stageId: z.int().positive(), day: Day.nullable() }))
    .min(1)
    .max(30),
});
export type LockPlanBody = z.infer<typeof LockPlanBody>;

/** From which day the time of stages counts, where their last change is not on record; all of them in one. */
export const StartStagesBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  stageIds: z.array(z.int().positive()).min(1).max(2000),
  day: Day,
});
export type StartStagesBody = z.infer<typeof StartStagesBody>;

export const LogUsageBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  day: Day,
  hours: z
    .number()
    .max(24)
    .refine(noneOrAtLeast(LEAST_HOURS), { params: { code: 'usage.least' } }),
  dust: z.string().trim().min(1).max(120),
});
export type LogUsageBody = z.infer<typeof LogUsageBody>;

export const LogLookBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  stageId: z.int().positive(),
  day: Day,
  share: z
    .number()
    .max(1.5)
    .refine(noneOrAtLeast(LEAST_SHARE), { params: { code: 'look.least' } }),
});
export type LogLookBody = z.infer<typeof LogLookBody>;

export const MachineAwayBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  from: Day,
  to: Day,
  why: z.string().trim().min(1).max(120),
});
export type MachineAwayBody = z.infer<typeof MachineAwayBody>;

export const OrderPartBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  partId: z.int().positive(),
  packs: z.int().min(1).max(100),
  arrivesOn: Day,
});
export type OrderPartBody = z.infer<typeof OrderPartBody>;

export const OrderArrivedBody = z.strictObject({ clientId: ClientId, by: Initials, orderId: z.int().positive() });
export type OrderArrivedBody = z.infer<typeof OrderArrivedBody>;

/** "Send today's reminders." Each reminder goes out once, also when asked twice. */
export const SendRemindersBody = z.strictObject({ clientId: ClientId });
