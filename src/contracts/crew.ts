import { z } from 'zod';
import type { CrewEntry } from '@/core/plan/crew';
import { Day } from './day';
import { ClientId, Initials } from './requests';

const WEEKDAYS = 7;
const Minutes = z.number().min(0).max(1440);

/** An entry about a person's time; people are named by their numbers. */
export const CrewEntryJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('times'), minutes: z.array(Minutes).length(WEEKDAYS) }),
  z.strictObject({ kind: z.literal('absent'), from: Day, to: Day, why: z.string().trim().min(1).max(120) }),
  z.strictObject({ kind: z.literal('present'), from: Day, to: Day }),
  z.strictObject({ kind: z.literal('handsOver'), day: Day, to: z.int().positive().nullable() }),
]) satisfies z.ZodType<CrewEntry>;

export const CrewBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  personId: z.int().positive(),
  entry: CrewEntryJson,
});
export type CrewBody = z.infer<typeof CrewBody>;

/** The people of the plan, as its page shows them. */
export const CrewPageJson = z.strictObject({
  people: z.array(
    z.strictObject({
      id: z.int(),
      initials: z.string(),
      name: z.string(),
      /** Usual minutes by weekday, Sunday first; null where nobody has said them. */
      usual: z.array(Minutes).nullable(),
      /** Why this person may not do contained work; null for one who may. */
      notContained: z.enum(['notSaid', 'noFit', 'fitOld', 'noTraining']).nullable(),
      /** Minutes of the coming days, today first. */
      ahead: z.array(z.number()),
    }),
  ),
});
export type CrewPageJson = z.infer<typeof CrewPageJson>;
