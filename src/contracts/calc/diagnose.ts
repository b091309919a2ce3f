import { z } from 'zod';
import { COMPLAINTS } from '@/core/diagnose/complaint';
import { SCHOOLS } from '@/core/diagnose/next-test';
import { TEST_STATES } from '@/core/diagnose/operation';
import { HazardName, MachineClassName } from '../enums';
import { MachineInput } from './air-path';
import { BareTest, PlacedTest, StagedTest, WherePlace } from '../operations';
import { QuantityInput } from './quantity';

const Stage = z.string().min(1).max(40).describe('Kind or name of a stage, such as hepa');

export const TestInput = z.discriminatedUnion('kind', [
  z.strictObject({ kind: PlacedTest, place: WherePlace }),
  z.strictObject({ kind: StagedTest, stage: Stage }),
  z.strictObject({ kind: BareTest }),
]);
export type TestInput = z.infer<typeof TestInput>;

const EvidenceInput = z.strictObject({
  test: TestInput,
  value: QuantityInput.optional().describe('For a reading'),
  word: z
    .string()
    .min(1)
    .max(30)
    .optional()
    .describe('For a look, a light, a sound: one of the words of calc next-test'),
  out: z.array(Stage).max(20).default([]).describe('Stages that were out of the machine then'),
  fresh: z.array(Stage).max(20).default([]).describe('Stages that had a new part by then'),
  struck: z.boolean().default(false),
});

export const DiagnoseInput = z.strictObject({
  machine: MachineInput,
  traits: z
    .strictObject({
      lamp: z.boolean().default(false),
      brush: z.boolean().default(false),
      selector: QuantityInput.optional(),
      nominalVolts: QuantityInput.default(230),
      machineClass: MachineClassName.nullable().default(null),
    })
    .default({ lamp: false, brush: false, nominalVolts: 230, machineClass: null }),
  hazard: HazardName.default('plain').describe('May ask for more than the dust does, never for less'),
  lastCollected: z
    .string()
    .max(80)
    .default('')
    .describe('Read through the register of dusts; what it refuses is refused'),
  complaint: z.enum(COMPLAINTS).default('noSuction'),
  state: z.enum(TEST_STATES).default('running'),
  school: z.enum(SCHOOLS).default('best'),
  baselines: z
    .array(z.strictObject({ test: TestInput, value: QuantityInput }))
    .max(20)
    .default([])
    .describe(
      'Readings of the machine when sound; without any, typical figures are used and every reading counts for less',
    ),
  evidence: z.array(EvidenceInput).max(60).default([]),
  skipped: z.array(TestInput).max(60).default([]),
});
export type DiagnoseInput = z.infer<typeof DiagnoseInput>;

const Proposed = z.strictObject({
  test: z.string(),
  stage: z.string().nullable(),
  place: z.string().nullable(),
  bits: z.number(),
  minutes: z.number(),
  outcomes: z.array(z.string()),
});

export const DiagnoseOutput = z.strictObject({
  faults: z.array(
    z.strictObject({ fault: z.string(), stage: z.string(), probability: z.number(), severity: z.number() }),
  ),
  stages: z.array(z.strictObject({ stage: z.string(), probability: z.number() })),
  nothingWrong: z.number(),
  twoFaults: z.number(),
  contradiction: z
    .tuple([z.int(), z.int()])
    .nullable()
    .describe('Two pieces of evidence that cannot both be right, by their place in the input'),
  back: z.boolean().describe('Every measure of the complaint is in its band since the last new part'),
  advice: z.enum(['fitFirst', 'test', 'repair', 'close', 'escalate']),
  repair: z.string().nullable().describe('What to do, where the advice is to repair'),
  doubtMinutes: z.number(),
  next: Proposed.nullable(),
});
export type DiagnoseOutput = z.infer<typeof DiagnoseOutput>;

export const NextTestOutput = z.strictObject({
  school: z.string(),
  next: Proposed.nullable(),
  others: z.array(Proposed),
});
export type NextTestOutput = z.infer<typeof NextTestOutput>;
