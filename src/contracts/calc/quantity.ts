import { z } from 'zod';

/** A quantity in a calculation's JSON: a bare number is SI, or a number with its unit. */
export const QuantityInput = z
  .union([z.number(), z.strictObject({ value: z.number(), unit: z.string().min(1).max(20) })])
  .describe('A number in SI, or { "value": 92, "unit": "inH2O" }');
export type QuantityInput = z.infer<typeof QuantityInput>;

/** A quantity in a calculation's answer: always with its unit. */
export const QuantityOutput = z.strictObject({ value: z.number(), unit: z.string() });
export type QuantityOutput = z.infer<typeof QuantityOutput>;
