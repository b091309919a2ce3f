import { z } from 'zod';
import { DUST_CLASSES } from '@/core/filter/rating';
import { MediumName, RatingJson } from '../stage-spec';
import { QuantityInput } from './quantity';

const Share = z.number().gt(-1e12).lt(1e12);

export const FilterTrainInput = z.strictObject({
  stages: z
    .array(
      z.strictObject({
        name: z.string().min(1).max(60),
        medium: MediumName,
        rating: RatingJson.default({ scale: 'none' }),
        bypass: Share.default(0).describe('Share of the air past its seat, 0 to 1'),
        faceVelocity: QuantityInput.optional().describe('Left out: the velocity its rating is taken at'),
        timesClean: z.number().min(1).max(1e6).default(1).describe('Resistance now over clean'),
      }),
    )
    .max(20)
    .describe('Dirty to clean'),
  wholeBypass: Share.default(0).describe('Share of the air that goes round every filter'),
  sizesUm: z.array(z.number().min(0.01).max(10)).max(200).default([0.01, 0.03, 0.1, 0.3, 0.5, 1, 3, 10]),
});
export type FilterTrainInput = z.infer<typeof FilterTrainInput>;

export const FilterTrainOutput = z.strictObject({
  sizes: z.array(
    z.strictObject({ sizeUm: z.number(), stages: z.array(z.number()), whole: z.number(), claimed: z.number() }),
  ),
  mostPenetrating: z.strictObject({ sizeUm: z.number(), penetration: z.number() }),
  deserved: z.strictObject({
    dustClass: z.enum(DUST_CLASSES).nullable(),
    usHepa: z.boolean(),
    judgedAtUm: z.number(),
    penetration: z.number(),
    reason: z.string(),
  }),
  sentences: z.array(z.string()),
});
export type FilterTrainOutput = z.infer<typeof FilterTrainOutput>;
