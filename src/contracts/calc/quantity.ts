import { z } from 'zod';

/** As large as what may be typed. */
const Figure = z.number().gt(-1e12).lt(1e12);

/** A quantity in a calculation's JSON: a bare number is SI, or a number with its unit. */
export const QuantityInput = z
  .union([Figure, z.strictObject({ value: Figure, unit: z.string().min(1).max(20) })])
  .describe('A number in SI, or { "value": 92, "unit": "inH2O" }');
export type QuantityInput = z.infer<typeof QuantityInput>;

/** Air of the measurement; calm standard air by default. */
export const AirInput = z.strictObject({
  temperature: QuantityInput.default({ value: 20, unit: 'degC' }),
  relativeHumidity: QuantityInput.default(0.5),
  pressure: QuantityInput.default(101_325).describe('Station pressure, absolute'),
});
export type AirInput = z.infer<typeof AirInput>;

/** The maker's statement about a meter. */
export const InstrumentInput = z.strictObject({
  meaning: z
    .enum(['limits', 'expanded', 'standard'])
    .default('limits')
    .describe('How the figure is meant: limits are divided by sqrt 3, expanded by k'),
  coverageFactor: z.number().min(1).max(5).default(2),
  relative: z.number().min(0).max(1).default(0).describe('Share of the reading'),
  absolute: QuantityInput.default(0),
  resolution: QuantityInput.describe('One step of its display'),
});
export type InstrumentInput = z.infer<typeof InstrumentInput>;

/** A quantity in a calculation's answer: always with its unit. */
export const QuantityOutput = z.strictObject({ value: z.number(), unit: z.string() });
export type QuantityOutput = z.infer<typeof QuantityOutput>;
