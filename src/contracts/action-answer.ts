import { z } from 'zod';
import { FailureJson } from './failure-json';

// The stored answer of an action: the same action sent twice gets this answer.

export type AnswerShape<T> = z.ZodType<T>;

export const PlainAnswer = z.strictObject({ id: z.int() });

export const PathAnswer = z.strictObject({ id: z.int(), tag: z.string() });

export const TestAnswer = z.strictObject({
  id: z.int(),
  questions: z.array(
    z.strictObject({
      code: z.enum(['reading.high', 'reading.low']),
      typicalLow: z.number(),
      typicalHigh: z.number(),
    }),
  ),
});

export const ChangeAnswer = z.strictObject({
  id: z.int(),
  short: z.strictObject({ partName: z.string(), onHand: z.number() }).nullable(),
});

export const CountAnswer = z.strictObject({ id: z.int(), difference: z.number() });

/** The result of an action: its answer, or a refusal whose facts were kept. */
export const storedResult = <T>(answer: AnswerShape<T>) =>
  z.discriminatedUnion('ok', [
    z.strictObject({ ok: z.literal(true), value: answer }),
    z.strictObject({ ok: z.literal(false), failures: z.array(FailureJson), keep: z.literal(true).optional() }),
  ]);
