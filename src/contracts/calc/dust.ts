import { z } from 'zod';
import { DUST_ANSWERS, DUST_FAMILIES, DUST_QUESTIONS, NEEDED_CLASSES, REFERRALS, RULE_SETS } from '@/core/dust/dust';
import { DUST_HAZARDS } from '@/core/dust/level';
import { MachineClassName, MachineKindName } from '../enums';
import { QuantityInput } from './quantity';

/** `calc dust`: a text as somebody typed it in, what it is and what follows from it out. */
export const DustInput = z.strictObject({
  text: z.string().max(120).describe('As people type it, in any language'),
  ruleSet: z.enum(RULE_SETS).default('eu_uk'),
  answers: z.partialRecord(z.enum(DUST_QUESTIONS), z.enum(DUST_ANSWERS)).default({}),
  confirmed: z.array(z.string().max(60)).max(12).default([]).describe('Keys of likenesses it is'),
  denied: z.array(z.string().max(60)).max(30).default([]).describe('Keys of likenesses it is not'),
});
export type DustInput = z.infer<typeof DustInput>;

export const DustOutput = z.strictObject({
  matches: z.array(
    z.strictObject({
      key: z.string(),
      name: z.string(),
      words: z.string(),
      chance: z.number().describe('1 when these very words are in the register'),
      family: z.enum(DUST_FAMILIES),
      toConfirm: z.boolean(),
    }),
  ),
  notUnderstood: z.array(z.string()),
  level: z.enum(DUST_HAZARDS).describe('Contained while anything is open'),
  neededClass: z.enum(NEEDED_CLASSES).describe('By the rule set asked for'),
  bothRuleSets: z.strictObject({ eu_uk: z.enum(NEEDED_CLASSES), us: z.enum(NEEDED_CLASSES) }),
  refused: z.strictObject({ dust: z.string(), instead: z.enum(REFERRALS), sentence: z.string() }).nullable(),
  questions: z.array(z.strictObject({ key: z.enum(DUST_QUESTIONS), question: z.string() })).describe('Still open'),
  equipment: z.array(z.string()),
  limits: z.array(z.string()),
  forbidden: z.array(z.string()),
  waste: z.array(z.string()).describe('Words for the label of its waste'),
  sentences: z.array(z.string()),
});
export type DustOutput = z.infer<typeof DustOutput>;

const Count = z.strictObject({
  count: z.number().gt(-1e12).lt(1e12).describe('Whole particles'),
  time: QuantityInput,
  flow: QuantityInput,
});

/** `calc integrity`: counts behind a filter and in the challenge in, what may pass with its limits out. */
export const IntegrityInput = z.strictObject({
  through: Count,
  challenge: Count,
  machineClass: MachineClassName,
  figure: z
    .number()
    .min(0)
    .max(1)
    .optional()
    .describe("Share that screening asks, 0 to 1; Moorwind's default where it is left out"),
});
export type IntegrityInput = z.infer<typeof IntegrityInput>;

export const IntegrityOutput = z.strictObject({
  ratio: z.number().nullable(),
  low: z.number(),
  high: z.number().nullable().describe('null where nothing was counted in the challenge'),
  bestSuchACountCouldShow: z.number().nullable(),
  classLimit: z.number(),
  figure: z.number(),
  outcome: z.enum(['fails', 'screened', 'notShown']),
  provesLimit: z.boolean(),
  method: z.string(),
  sentence: z.string(),
});
export type IntegrityOutput = z.infer<typeof IntegrityOutput>;

/** `calc check-find`: a machine and a level in, whether any order of finding runs it unfiltered out. */
export const CheckFindInput = z.strictObject({
  machine: z.strictObject({
    kind: MachineKindName,
    machineClass: MachineClassName.nullable().default(null),
    missing: z.array(z.string().max(40)).max(10).default([]).describe('Kinds of stages that are missing'),
  }),
  level: z.enum(DUST_HAZARDS),
});
export type CheckFindInput = z.infer<typeof CheckFindInput>;

export const CheckFindOutput = z.strictObject({
  proven: z.boolean(),
  states: z.int(),
  looked: z.int(),
  violations: z.array(
    z.strictObject({ school: z.string(), after: z.array(z.string()), test: z.string(), out: z.array(z.string()) }),
  ),
  takeOutOffered: z.boolean(),
});
export type CheckFindOutput = z.infer<typeof CheckFindOutput>;
