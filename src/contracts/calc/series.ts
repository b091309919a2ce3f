import { z } from 'zod';
import { UNIT_SYSTEMS } from '@/core/units';
import { AirInput, InstrumentInput, QuantityInput, QuantityOutput } from './quantity';

const Quantity = z.enum(['flow', 'velocity', 'pressure', 'voltage', 'current']);
const Series = z.array(QuantityInput).min(1).max(200);

export const CompareInput = z.strictObject({
  quantity: Quantity.default('flow'),
  before: Series,
  after: Series,
  instrument: z
    .strictObject({
      relative: z.number().min(0).max(1).default(0),
      same: z.boolean().default(true),
      resolution: QuantityInput.optional().describe('One step of its display; else the last digit that is given'),
    })
    .optional()
    .describe('Limits of error as a share of the reading; one instrument on both sides cancels'),
});
export type CompareInput = z.infer<typeof CompareInput>;

export const CompareOutput = z.strictObject({
  outcome: z.string(),
  sentence: z.string(),
  difference: QuantityOutput.nullable(),
  relative: z.number().nullable().describe('null from a baseline of 0'),
  expandedUncertainty: QuantityOutput.nullable(),
  degreesOfFreedom: z.number().nullable(),
  p: z.number().nullable(),
});
export type CompareOutput = z.infer<typeof CompareOutput>;

const Plan = z.discriminatedUnion('shape', [
  z.strictObject({
    shape: z.literal('round'),
    diameter: QuantityInput,
    pointsPerDiameter: z.union([z.literal(6), z.literal(10)]).default(6),
    diameters: z.union([z.literal(1), z.literal(2), z.literal(3)]).default(2),
  }),
  z.strictObject({
    shape: z.literal('rectangular'),
    width: QuantityInput,
    height: QuantityInput,
    linesAcross: z.union([z.literal(5), z.literal(6), z.literal(7)]).default(5),
    linesUp: z.union([z.literal(5), z.literal(6), z.literal(7)]).default(5),
  }),
]);

export const TraverseInput = z.strictObject({
  plan: Plan,
  reads: z.enum(['velocity', 'velocityPressure']).default('velocity'),
  air: AirInput.optional(),
  readings: z
    .array(QuantityInput)
    .max(600)
    .default([])
    .describe(
      'In the order of the points; several whole traverses may follow each other. Empty: only the points are given',
    ),
});
export type TraverseInput = z.infer<typeof TraverseInput>;

export const TraverseOutput = z.strictObject({
  points: z.array(z.strictObject({ line: z.int(), fromWall: QuantityOutput, lineAt: QuantityOutput })),
  area: QuantityOutput,
  traverses: z.int(),
  meanVelocity: QuantityOutput.nullable(),
  flow: QuantityOutput.nullable(),
  expandedUncertainty: QuantityOutput.nullable(),
});
export type TraverseOutput = z.infer<typeof TraverseOutput>;

export const SuctionCurveInput = z.strictObject({
  points: z
    .array(z.strictObject({ orifice: QuantityInput.describe('0 is sealed'), suction: QuantityInput }))
    .min(1)
    .max(100),
  coefficient: z.number().min(0.5).max(1).default(0.61),
  air: AirInput.optional(),
  instrument: InstrumentInput.optional(),
});
export type SuctionCurveInput = z.infer<typeof SuctionCurveInput>;

export const SuctionCurveOutput = z.strictObject({
  sentence: z.string(),
  p0: QuantityOutput,
  b: z.strictObject({ value: z.number(), unit: z.literal('Pa s/m3') }),
  c: z.strictObject({ value: z.number(), unit: z.literal('Pa s2/m6') }),
  residuals: z.array(QuantityOutput),
  offCurve: z
    .strictObject({ point: z.int(), residual: QuantityOutput, allowed: QuantityOutput })
    .nullable()
    .describe(
      'The point furthest beyond what the meter allows; null when none is, or the meter has no stated accuracy',
    ),
  points: z.array(z.strictObject({ flow: QuantityOutput, suction: QuantityOutput })),
  peak: z.strictObject({
    airPower: QuantityOutput,
    expandedUncertainty: QuantityOutput.nullable(),
    flow: QuantityOutput,
    suction: QuantityOutput,
    inside: z.boolean(),
  }),
});
export type SuctionCurveOutput = z.infer<typeof SuctionCurveOutput>;

const Counted = z.strictObject({
  count: z.number().gt(-1e12).lt(1e12),
  time: QuantityInput,
  flow: QuantityInput.describe('Air drawn through the counter'),
});

export const ParticleTestInput = z.strictObject({
  exhaust: Counted,
  room: Counted,
  units: z.enum(UNIT_SYSTEMS).default('metric'),
});
export type ParticleTestInput = z.infer<typeof ParticleTestInput>;

const Limits = z.strictObject({ low: QuantityOutput, high: QuantityOutput });

export const ParticleTestOutput = z.strictObject({
  outcome: z.enum(['belowRoom', 'aboveRoom', 'notShown']),
  sentence: z.string(),
  exhaust: QuantityOutput,
  exhaustLimits: Limits,
  room: QuantityOutput,
  roomLimits: Limits,
  net: QuantityOutput,
  netLimits: Limits,
  p: z.number(),
});
export type ParticleTestOutput = z.infer<typeof ParticleTestOutput>;
