import { z } from 'zod';
import { CARES, WHOLE_JOBS } from '@/core/procedure/choose';
import { CHANGE_SCHOOLS } from '@/core/procedure/step';
import { HazardName, MachineClassName, MachineKindName } from '../enums';

const School = z.enum(CHANGE_SCHOOLS);
const Stage = z.string().min(1).max(40).describe('Kind of a stage, such as bag or hepa');

const Job = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('change'), stage: Stage, school: School.default('off') }),
  z.strictObject({ kind: z.enum(CARES), stage: Stage }),
  z.strictObject({
    kind: z.enum(WHOLE_JOBS),
  }),
]);

export const ProcedureInput = z.strictObject({
  machine: z.strictObject({ kind: MachineKindName, machineClass: MachineClassName.nullable().default(null) }),
  hazard: HazardName.describe('May ask for more than the dust does, never for less'),
  lastCollected: z
    .string()
    .max(120)
    .default('')
    .describe('Read through the register of dusts; what it refuses is refused'),
  job: Job,
});
export type ProcedureInput = z.infer<typeof ProcedureInput>;

const StepOutput = z.strictObject({
  step: z.int(),
  key: z.string(),
  text: z.string(),
  machine: z.string(),
  check: z.string().nullable(),
  caution: z.string().nullable(),
  part: z.string().nullable(),
  why: z.string(),
});

export const ProcedureOutput = z.strictObject({
  procedure: z.string(),
  school: School,
  level: HazardName.describe('What governs: the worse of the hazard and the dust'),
  steps: z.array(StepOutput),
  ifItProvesNothing: z
    .array(z.string())
    .describe('Steps that replace those from the proof on, where the old part is held'),
  integrity: z.array(z.string()),
  goesWith: z.array(z.string()),
  onlyRightAfter: z.array(z.string()),
  outOfServiceHours: z.number().nullable(),
  schools: z.array(z.string()).describe('Other ways this machine allows for the stage'),
});
export type ProcedureOutput = z.infer<typeof ProcedureOutput>;

export const CheckProcedureInput = ProcedureInput.extend({
  without: z.array(z.int().min(1)).max(60).default([]).describe('Steps left out, by their number in calc procedure'),
});
export type CheckProcedureInput = z.infer<typeof CheckProcedureInput>;

export const CheckProcedureOutput = z.strictObject({
  sound: z.boolean(),
  violations: z.array(z.strictObject({ kind: z.string(), sentence: z.string() })),
});
export type CheckProcedureOutput = z.infer<typeof CheckProcedureOutput>;
