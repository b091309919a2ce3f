import { z } from 'zod';
import { DUST_ANSWERS, DUST_QUESTIONS, NEEDED_CLASSES, RULE_SETS } from '@/core/dust/dust';
import { MACHINE_CLASSES } from '@/core/filter/machine-class';
import { MACHINE_KIND_NAMES } from '@/core/machine/kinds';
import { CIRCUIT_CHECKS } from '@/core/for-work/circuit';
import { FLOW_REASONS, FORBIDDEN, GEAR } from '@/core/for-work/demand';
import { HOSE_VERDICTS } from '@/core/for-work/hose-choice';
import { AFTERWARDS, FIRST, WHY_NOT } from '@/core/for-work/judge-machine';
import { PLACES_OF_WORK } from '@/core/for-work/question';
import { TOOL_KEYS } from '@/core/for-work/tools';
import { QuantityInput, QuantityOutput } from './quantity';

const asked = {
  text: z.string().min(1).max(120).describe('What becomes dust, as somebody types it'),
  confirmed: z.array(z.string()).max(12).default([]),
  denied: z.array(z.string()).max(30).default([]),
  answers: z.partialRecord(z.enum(DUST_QUESTIONS), z.enum(DUST_ANSWERS)).default({}),
  tool: z.enum(TOOL_KEYS).nullable().default(null),
  size: QuantityInput.nullable().default(null).describe('Size of the wheel, disc or blade; the usual one by default'),
  away: QuantityInput.nullable().default(null).describe('How far a hood or slot stands from the dust'),
  makerAir: QuantityInput.nullable().default(null).describe("Flow the tool's maker asks for"),
  wet: z.boolean().default(false),
  place: z.enum(PLACES_OF_WORK).nullable().default(null),
  hours: z.number().min(0).max(1000).nullable().default(null),
};

export const ToolNeedInput = z.strictObject(asked);
export type ToolNeedInput = z.infer<typeof ToolNeedInput>;

export const ToolNeedOutput = z.strictObject({
  sentence: z.string(),
  classes: z.strictObject({ eu_uk: z.enum(NEEDED_CLASSES), us: z.enum(NEEDED_CLASSES) }),
  flows: z.array(z.strictObject({ because: z.enum(FLOW_REASONS), flow: QuantityOutput })),
  must: QuantityOutput.nullable(),
  hoseVelocity: QuantityOutput.nullable(),
  ductVelocity: z.strictObject({ low: QuantityOutput, high: QuantityOutput }),
  gear: z.array(z.enum(GEAR)),
  respiratorApf: z.number().nullable(),
  forbidden: z.array(z.enum(FORBIDDEN)),
  refused: z.string().nullable(),
});
export type ToolNeedOutput = z.infer<typeof ToolNeedOutput>;

const Hose = z.strictObject({ bore: QuantityInput, length: QuantityInput });

/** The whole answer for machines of a kind as new: a yard's own are asked on its page. */
export const WorkInput = z.strictObject({
  ...asked,
  tools: z.union([z.literal(1), z.literal(2)]).default(1),
  machines: z
    .array(
      z.strictObject({
        name: z.string().min(1).max(60),
        kind: z.enum(MACHINE_KIND_NAMES),
        machineClass: z.enum(MACHINE_CLASSES).nullable().default(null),
        collected: z.string().max(120).default(''),
        wetSet: z.boolean().default(false),
      }),
    )
    .max(40),
  hoses: z.array(Hose).max(20).default([]),
});
export type WorkInput = z.infer<typeof WorkInput>;

export const WorkOutput = z.strictObject({
  sentence: z.string(),
  need: ToolNeedOutput,
  machines: z.array(
    z.strictObject({
      name: z.string(),
      whyNot: z.array(z.enum(WHY_NOT)),
      first: z.array(z.enum(FIRST)),
      afterwards: z.array(z.enum(AFTERWARDS)),
      hoses: z.array(
        z.strictObject({
          bore: QuantityOutput,
          length: QuantityOutput,
          verdict: z.enum(HOSE_VERDICTS),
          flow: QuantityOutput,
          low: QuantityOutput,
          high: QuantityOutput,
          velocity: QuantityOutput,
        }),
      ),
    }),
  ),
});
export type WorkOutput = z.infer<typeof WorkOutput>;

const Plate = z.strictObject({
  current: QuantityInput.nullable().default(null),
  power: QuantityInput.nullable().default(null),
  powerFactor: z.number().min(0.1).max(1).nullable().default(null),
});

export const CircuitInput = z.strictObject({
  ruleSet: z.enum(RULE_SETS).default('eu_uk'),
  supply: QuantityInput,
  breaker: QuantityInput.nullable().default(null),
  machine: Plate.prefault({}),
  tool: Plate.prefault({}),
  socket: QuantityInput.nullable().default(null).describe("Power the machine's own socket may give"),
  lead: z
    .strictObject({ length: QuantityInput, sectionMm2: z.number().min(0.1).max(400) })
    .nullable()
    .default(null),
  throughMachine: z.boolean().default(true),
  hours: z.number().min(0).max(1000).nullable().default(null),
  generator: QuantityInput.nullable().default(null).describe('VA for long'),
});
export type CircuitInput = z.infer<typeof CircuitInput>;

export const CircuitOutput = z.strictObject({
  checks: z.array(
    z.strictObject({
      check: z.enum(CIRCUIT_CHECKS),
      value: z.number(),
      limit: z.number(),
      holds: z.boolean(),
      sentence: z.string(),
    }),
  ),
  together: QuantityOutput.nullable(),
  fromWatts: z.boolean(),
  drop: QuantityOutput.nullable(),
  atMachine: QuantityOutput,
});
export type CircuitOutput = z.infer<typeof CircuitOutput>;
