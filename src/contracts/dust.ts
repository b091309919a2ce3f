import { z } from 'zod';
import { Day } from './day';
import {
  CLEANING_WAYS,
  DUST_ANSWERS,
  DUST_FAMILIES,
  DUST_PROPERTIES,
  DUST_QUESTIONS,
  type Dust,
  NEEDED_CLASSES,
  REFERRALS,
  RULE_SETS,
} from '@/core/dust/dust';
import { DUST_HAZARDS } from '@/core/dust/level';
import { ClientId, Initials, Note } from './requests';

/** What crosses a boundary of dusts: the register's own entries, what a machine collected, and what clears or proves it. */

const Word = z.string().trim().min(2).max(60);
const Key = z.string().regex(/^[A-Za-z][A-Za-z0-9]{1,40}$/);
const Level = z.enum(DUST_HAZARDS);

export const DustShape = z.strictObject({
  key: Key,
  name: z.string().trim().max(80),
  family: z.enum(DUST_FAMILIES),
  synonyms: z.array(Word).max(200),
  limits: z
    .array(
      z.strictObject({
        authority: z.enum(['OSHA', 'EU', 'UK']),
        mgM3: z.number().positive().max(1000),
        of: z.string().max(120),
        source: z.string().max(200),
      }),
    )
    .max(8),
  properties: z.array(z.enum(DUST_PROPERTIES)).max(10),
  neededClass: z.strictObject({ eu_uk: z.enum(NEEDED_CLASSES), us: z.enum(NEEDED_CLASSES) }),
  level: Level,
  refused: z.enum(REFERRALS).nullable(),
  asks: z.array(z.enum(DUST_QUESTIONS)).max(8),
  cleanedBy: z.array(z.enum(CLEANING_WAYS)).max(4),
  waste: z.string().trim().max(120),
  note: z.string().trim().max(400),
  retired: z.boolean(),
});
/** A dust, in requests and in the database. */
export const DustJson: z.ZodType<Dust> = DustShape;

/** The dusts named, or ruled out, by their keys. */
export const KeysJson = z.array(z.string());
export const AnswersJson = z.partialRecord(z.enum(DUST_QUESTIONS), z.enum(DUST_ANSWERS));

/** A statement of the dust a machine has collected, with the answered questions. */
export const DustStatementJson = z.strictObject({
  text: z.string().trim().min(1).max(120),
  confirmed: z.array(Key).max(12),
  denied: z.array(Key).max(30),
  answers: AnswersJson,
  own: Level.nullable(),
  lowerBecause: z.string().trim().max(300),
});

/** A statement of its own, from the machine's dust page. */
export const StateDustBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  dust: DustStatementJson,
  since: Day.nullable(),
});
export type StateDustBody = z.infer<typeof StateDustBody>;

/** A decontamination done by others, with their paper. */
export const DecontaminatedBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  on: Day,
  who: z.string().trim().max(120),
  paper: z.string().trim().max(80),
});
export type DecontaminatedBody = z.infer<typeof DecontaminatedBody>;

export const EditDustBody = z.strictObject({ clientId: ClientId, by: Initials, dust: DustJson });
export type EditDustBody = z.infer<typeof EditDustBody>;

/** The country whose limits and classes the site uses. */
export const RuleSetBody = z.strictObject({ clientId: ClientId, by: Initials, ruleSet: z.enum(RULE_SETS) });
export type RuleSetBody = z.infer<typeof RuleSetBody>;

/** A thorough examination by a competent person. */
export const ExaminationBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  on: Day,
  examiner: z.string().trim().min(1).max(120),
  found: z.string().trim().min(1).max(400),
});
export type ExaminationBody = z.infer<typeof ExaminationBody>;

/**
 * Screening on site: clean side and smoke are answered, a count is judged; a penetration test by others has a
 * certificate.
 */
export const IntegrityBody = z.discriminatedUnion('test', [
  z.strictObject({
    clientId: ClientId,
    by: Initials,
    stageId: z.int().positive(),
    test: z.enum(['cleanSide', 'smoke']),
    passed: z.boolean(),
    note: Note,
  }),
  z.strictObject({
    clientId: ClientId,
    by: Initials,
    stageId: z.int().positive(),
    test: z.literal('particles'),
    note: Note,
  }),
  z.strictObject({
    clientId: ClientId,
    by: Initials,
    stageId: z.int().positive(),
    test: z.literal('penetration'),
    testedOn: Day,
    tester: z.string().trim().min(1).max(120),
    method: z.string().trim().min(1).max(120),
    certificate: z.string().trim().min(1).max(60),
    percent: z.number().min(0).max(100),
    nextDueOn: Day.nullable(),
  }),
]);
export type IntegrityBody = z.infer<typeof IntegrityBody>;
