import { z } from 'zod';
import { PlausibleRule } from '../rules';

/** Inputs and outputs of calc due, forecast, plan and reorder. */

const Day = z.iso.date();
const Days = z.number().min(0).max(36_500);

export const DueInput = z.strictObject({
  today: Day,
  changedOn: Day.describe('Last change, or first use'),
  rules: z
    .array(z.strictObject({ rule: PlausibleRule, school: z.string().max(120).default('') }))
    .min(1)
    .max(20),
  changesOf: z
    .array(z.strictObject({ stageId: z.int().positive(), days: z.array(Day).max(1000) }))
    .max(50)
    .default([])
    .describe('Changes of other stages that are counted, and of this one as stage 1'),
  hours: z
    .array(z.strictObject({ day: Day, hours: z.number().min(0).max(24) }))
    .max(4000)
    .default([]),
  looks: z
    .array(z.strictObject({ day: Day, share: z.number().min(0).max(1.5) }))
    .max(1000)
    .default([]),
});
export type DueInput = z.infer<typeof DueInput>;

/** Run hours or days of an interval. */
const Load = z.number().min(0.01).max(1e6);

const Past = z.strictObject({
  load: Load.describe('Run hours, or days, it ran for'),
  days: z.number().min(0.01).max(36_500),
  end: z
    .enum(['limit', 'early', 'bound', 'other'])
    .describe('Why it ended: its limit was seen, as a precaution, on a date or by a count, or none of these'),
  found: z.number().min(0).max(2).nullable().default(null).describe('Share of the limit as found; 1 is the limit'),
  beforeRegime: z.boolean().default(false).describe('Before the newest change of the path'),
});

const Inspection = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('share'),
    load: Load,
    share: z.number().min(0).max(2),
    deviation: z.number().positive().max(1).default(0.1),
  }),
  z.strictObject({
    kind: z.literal('side'),
    load: Load,
    share: z.number().positive().max(2).default(1),
    above: z.boolean(),
  }),
]);

export const ForecastInput = z.strictObject({
  history: z.strictObject({
    template: z.strictObject({ load: Load, spread: z.number().positive().max(2).default(0.7) }),
    counts: z.enum(['hours', 'days']),
    past: z.array(Past).max(500).default([]),
    load: z.number().min(0).max(1e6).describe('Load since the last change'),
    inspections: z.array(Inspection).max(500).default([]),
    actDays: z.number().min(0.5).max(1000).default(6).describe('Days people take to see a limit and act on it'),
    ignored: z.number().min(0).max(0.5).default(0.1).describe('Chance that a limit is ignored for long'),
    unwritten: z.number().min(0).max(0.5).default(0).describe('Chance that a change is not written down'),
  }),
  recent: z.array(z.number().min(0).max(24)).min(1).max(800).describe('Load of each of the last days, today last'),
  closedDays: z
    .array(z.int().min(1).max(1500))
    .max(1500)
    .default([])
    .describe('Days from now without work; 1 is tomorrow'),
  unsure: z.number().min(0).max(1).default(0.22),
  calendarDays: z
    .number()
    .nullable()
    .default(null)
    .describe('Days from now at which a calendar rule is reached; null without one'),
  seed: z.int().default(1),
});
export type ForecastInput = z.infer<typeof ForecastInput>;

const Quantiles = z
  .tuple([z.number(), z.number(), z.number(), z.number(), z.number()])
  .describe('0, 10, 50, 90 and 100 % quantiles of the day the limit is reached, ascending');

export const PlanCalcInput = z.strictObject({
  minutes: z
    .array(z.number().min(0).max(1440))
    .min(1)
    .max(400)
    .describe('Minutes there are on each day of the horizon, day 0 first'),
  containedMinutes: z
    .array(z.number().min(0).max(1440))
    .max(400)
    .nullable()
    .default(null)
    .describe('Minutes of each day of the people who may do contained work; null where that limits nothing'),
  machines: z
    .array(
      z.strictObject({
        id: z.string().min(1).max(60),
        openingCost: z.number().min(0),
        openingMinutes: z.number().min(0).max(1440),
        blockedDays: z.array(z.int().min(0).max(400)).default([]),
        contained: z.boolean().default(false).describe('Only people with papers for contained work may open it'),
      }),
    )
    .min(1)
    .max(1000),
  tasks: z
    .array(
      z.strictObject({
        id: z.string().min(1).max(60),
        machine: z.string().min(1).max(60),
        minutes: z.number().min(0).max(1440),
        reached: Quantiles,
        lifeValuePerDay: z.number().min(0),
        overrunCostPerDay: z.number().min(0),
        part: z
          .strictObject({ id: z.string().min(1).max(60), quantity: z.number().positive().max(1000).default(1) })
          .nullable()
          .default(null),
        onlyWith: z.string().max(60).nullable().default(null),
        lockedDay: z.int().min(0).max(400).nullable().default(null),
        lastDay: z.int().min(0).max(400).nullable().default(null).describe('The last day it should be done on'),
        promised: z
          .strictObject({
            day: z.int().min(0).max(400),
            later: z.number().min(0),
            sooner: z.number().min(0).default(0),
          })
          .nullable()
          .default(null)
          .describe('The day the last plan named, and the price of another one'),
      }),
    )
    .max(8000),
  parts: z
    .array(
      z.strictObject({
        id: z.string().min(1).max(60),
        onHand: z.number().min(0),
        deliveries: z
          .array(z.strictObject({ day: z.int().min(0).max(400), quantity: z.number().positive() }))
          .default([]),
      }),
    )
    .max(500)
    .default([]),
  rounds: z.int().min(0).max(50_000).default(3000),
  seed: z.int().default(7),
});
export type PlanCalcInput = z.infer<typeof PlanCalcInput>;

export const ReorderInput = z.strictObject({
  perDay: z.number().min(0).describe('Pieces a day, mean'),
  perDayDeviation: z
    .number()
    .min(0)
    .nullable()
    .default(null)
    .describe('Spread of a day; null: single pieces at random days'),
  leadDays: Days,
  leadDeviation: z.number().min(0).default(0),
  service: z.number().gt(0).lt(1).default(0.95),
  onHand: z.number().min(0),
  onOrder: z.number().min(0).default(0),
  reserved: z.number().min(0).default(0),
  packSize: z.int().min(1).default(1),
  coverDays: Days.default(30),
});
export type ReorderInput = z.infer<typeof ReorderInput>;
