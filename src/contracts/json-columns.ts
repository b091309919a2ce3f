import { z } from 'zod';

/** What the JSON columns of the database hold. */
export const AccuracyJson = z.strictObject({
  meaning: z.enum(['limits', 'expanded', 'standard']),
  coverageFactor: z.number().positive(),
  relative: z.number().min(0),
  absoluteSi: z.number().min(0),
  resolutionSi: z.number().min(0),
});

export const AirJson = z.strictObject({
  temperatureK: z.number(),
  relativeHumidity: z.number(),
  pressurePa: z.number(),
});

export const RuleJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('calendarDays'), days: z.int().min(1).max(36_500) }),
  z.strictObject({
    kind: z.literal('countOfChanges'),
    countedStageId: z.int().positive(),
    countedStageName: z.string(),
    count: z.int().min(1).max(1000),
  }),
]);

export const PreconditionJson = z.enum([
  'speedHigh',
  'bleedClosed',
  'hoseAsBaseline',
  'settled',
  'rigSealed',
  'meterZeroed',
  'brushStated',
]);

export const PreconditionsJson = z.array(PreconditionJson);
