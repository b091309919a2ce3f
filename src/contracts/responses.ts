import { z } from 'zod';

/** The one shape in which every failure leaves the server. */
export const ProblemReply = z.strictObject({
  problems: z
    .array(
      z.strictObject({
        code: z.string(),
        path: z.string(),
        title: z.string(),
        sentence: z.string(),
        hint: z.string(),
      }),
    )
    .min(1),
});
export type ProblemReply = z.infer<typeof ProblemReply>;

/** The answer to a recorded action: the record's id and warnings. */
export const RecordedReply = z.strictObject({
  id: z.int().positive(),
  warnings: z.array(
    z.strictObject({ code: z.enum(['stock.negative', 'reading.high', 'reading.low']), sentence: z.string() }),
  ),
});
export type RecordedReply = z.infer<typeof RecordedReply>;
