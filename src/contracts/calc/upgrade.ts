import { z } from 'zod';
import { MachineKindName } from '../enums';
import { UpgradeChangesJson } from '../upgrade';
import { QuantityInput, QuantityOutput } from './quantity';

export const UpgradeInput = z.strictObject({
  kind: MachineKindName.describe('The machine, as a new record of its kind'),
  changes: UpgradeChangesJson.describe('In SI; stages by their place in the path, the first is 1'),
  hose: z.strictObject({ bore: QuantityInput, length: QuantityInput }).nullable().default(null),
});
export type UpgradeInput = z.infer<typeof UpgradeInput>;

const Ratio = z.strictObject({ value: z.number(), low: z.number(), high: z.number() });

export const UpgradeOutput = z.strictObject({
  sentence: z.string(),
  steps: z.array(
    z.strictObject({
      flow: QuantityOutput,
      ratio: Ratio,
      hoseVelocity: QuantityOutput.nullable(),
      faceVelocities: z.array(z.strictObject({ stage: z.string(), velocity: QuantityOutput })),
    }),
  ),
});
export type UpgradeOutput = z.infer<typeof UpgradeOutput>;

export const RingInput = z.strictObject({
  filter: QuantityInput.describe('Outer diameter of the canister'),
  rim: QuantityInput.describe('Inner diameter of the rim'),
  bead: QuantityInput.nullable().default(null).describe('Inside a rolled bead'),
  ramp: z.boolean().default(false),
  gasket: QuantityInput.describe('Middle diameter of the gasket'),
  gasketWidth: QuantityInput,
  sheet: QuantityInput,
  screw: QuantityInput,
  brackets: z.int().min(1).max(40).default(4),
  board: z.strictObject({ width: QuantityInput, height: QuantityInput }).nullable().default(null),
});
export type RingInput = z.infer<typeof RingInput>;

export const RingOutput = z.strictObject({
  sentence: z.string(),
  way: z.enum(['bracketsOnly', 'inside', 'double']),
  gap: QuantityOutput,
  beadGap: QuantityOutput.nullable(),
  pieces: z.array(z.strictObject({ name: z.string(), outer: QuantityOutput, inner: QuantityOutput })),
  contact: QuantityOutput,
  holes: z.array(
    z.strictObject({ x: QuantityOutput, y: QuantityOutput, pilot: QuantityOutput, clearance: QuantityOutput }),
  ),
  board: z.strictObject({ fits: z.enum(['whole', 'segments', 'no']), segments: z.number() }).nullable(),
  steps: z.array(z.string()),
});
export type RingOutput = z.infer<typeof RingOutput>;

const Money = z.number().min(0).max(1e9);

export const PaybackInput = z.strictObject({
  price: Money,
  addedPerYear: Money.default(0),
  rate: z.number().min(0).max(1).default(0).describe('Interest a year; 0 for none'),
  stages: z
    .array(
      z.strictObject({
        name: z.string().min(1).max(60),
        perChange: Money,
        perChangeAfter: Money.nullable().default(null).describe('As now where it is left out'),
        days: z.number().min(0.5).max(20_000).describe('Between its changes'),
        spread: z.number().min(0).max(2).default(0).describe('Standard deviation of the logarithm'),
        factor: z.number().min(0.1).max(100).default(1).describe('Times as long afterwards'),
        factorSpread: z.number().min(0).max(2).default(0),
      }),
    )
    .min(1)
    .max(20),
});
export type PaybackInput = z.infer<typeof PaybackInput>;

const Range = z.strictObject({ low: z.number(), middle: z.number(), high: z.number() });
/** Years; null where it is never paid. */
const Years = z.strictObject({
  low: z.number().nullable(),
  middle: z.number().nullable(),
  high: z.number().nullable(),
});

export const PaybackOutput = z.strictObject({
  sentence: z.string(),
  costBefore: Range,
  costAfter: Range,
  savedPerYear: Range,
  years: Years,
  discountedYears: z.number().nullable(),
  never: z.number(),
  hangsOn: z.strictObject({ name: z.string(), of: z.enum(['life', 'gain']) }).nullable(),
});
export type PaybackOutput = z.infer<typeof PaybackOutput>;
