import { z } from 'zod';
import { FIXINGS } from '@/core/machine/part-ways';
import { CARES, WHOLE_JOBS } from '@/core/procedure/choose';
import {
  CAUTIONS,
  CHANGE_SCHOOLS,
  CHECKS,
  OPENABLE_PARTS,
  PART_MOVES,
  PROCEDURE_IDS,
  RUN_STATES,
  STEP_KEYS,
  STEP_REASONS,
} from '@/core/procedure/step';
import { ChangeReasonName, HazardName, IntegrityTestName } from './enums';
import { DustStatementJson } from './dust';
import { ClientId, Initials } from './requests';

/** What crosses a boundary of a guided change: requests, and the JSON columns of its log. */

const RunStateName = z.enum(RUN_STATES);
const SchoolName = z.enum(CHANGE_SCHOOLS);
const OpeningName = z.enum(OPENABLE_PARTS);
const CheckName = z.enum(CHECKS);
const MoveName = z.enum(PART_MOVES);
const CautionName = z.enum(CAUTIONS);
const StepKeyName = z.enum(STEP_KEYS);
const ProcedureName = z.enum(PROCEDURE_IDS);

const Index = z.int().min(0).max(200);

const StepJson = z
  .strictObject({
    key: StepKeyName,
    run: RunStateName,
    stage: Index.nullable(),
    opens: OpeningName.optional(),
    closes: OpeningName.optional(),
    check: CheckName.optional(),
    moves: MoveName.optional(),
    caution: CautionName.optional(),
    fixing: z.enum(FIXINGS).optional(),
    dusty: z.literal(true).optional(),
    because: z.enum(STEP_REASONS),
  })
  // An absent key stays absent, so a record reads back exactly.
  .transform(({ opens, closes, check, moves, caution, fixing, dusty, ...rest }) => ({
    ...rest,
    ...(opens && { opens }),
    ...(closes && { closes }),
    ...(check && { check }),
    ...(moves && { moves }),
    ...(caution && { caution }),
    ...(fixing && { fixing }),
    ...(dusty && { dusty }),
  }));

export const ProcedureJson = z.strictObject({
  id: ProcedureName,
  stage: Index.nullable(),
  school: SchoolName,
  before: z.array(
    z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('afterChangeOf'), stage: Index }),
      z.strictObject({ kind: z.literal('poweredDown') }),
    ]),
  ),
  steps: z.array(StepJson).max(200),
  turnBack: z.array(StepJson).max(200).default([]),
  integrity: z.array(IntegrityTestName),
  goesWith: z.array(Index),
  driesHours: z.number().nullable(),
});

const Why = z.string().trim().min(1).max(300);

/** One line of a job's log, as sent and as stored. */
export const JobEventJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('did'), step: Index }),
  z.strictObject({ kind: z.literal('answered'), step: Index, right: z.boolean(), note: z.string().trim().max(300) }),
  z.strictObject({ kind: z.literal('leftOut'), step: Index, because: Why }),
  z.strictObject({ kind: z.literal('back'), step: Index }),
  z.strictObject({ kind: z.literal('tookOver') }),
  z.strictObject({ kind: z.literal('turnedBack'), step: Index }),
  z.strictObject({ kind: z.literal('photo'), step: Index, photoId: z.int().positive() }),
  z.strictObject({ kind: z.literal('finished'), wasteKg: z.number().positive().max(500).nullable().default(null) }),
  z.strictObject({ kind: z.literal('abandoned'), because: Why }),
]);

export const JobJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('change'), stage: Index, school: SchoolName }),
  z.strictObject({ kind: z.enum(CARES), stage: Index }),
  z.strictObject({
    kind: z.enum(WHOLE_JOBS),
  }),
]);

const startFields = {
  clientId: ClientId,
  by: Initials,
  job: JobJson,
  dust: DustStatementJson,
  reason: ChangeReasonName,
  /** The part is in the hand, although the ledger shows no stock. */
  partInHand: z.boolean().default(false),
};
const People = z.union([z.literal(1), z.literal(2)]);

export const StartJobBody = z.strictObject({ ...startFields, people: People });
export type StartJobBody = z.infer<typeof StartJobBody>;

/** A whole change on one sheet, for the experienced: every check answered, none as a block. */
export const QuickJobBody = z.strictObject({
  ...startFields,
  answers: z
    .array(
      z.discriminatedUnion('kind', [
        z.strictObject({ kind: z.literal('right') }),
        z.strictObject({ kind: z.literal('leftOut'), because: Why }),
      ]),
    )
    .max(60),
  wasteKg: z.number().positive().max(500).nullable(),
});
export type QuickJobBody = z.infer<typeof QuickJobBody>;

export const JobActionBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  jobId: z.int().positive(),
  event: JobEventJson,
  /** The code printed on the pack; '' when it was not read. */
  partCode: z.string().trim().max(40).default(''),
});
export type JobActionBody = z.infer<typeof JobActionBody>;

/** Where a photo belongs; the picture itself is the body of the request. */
export const PhotoQuery = z.strictObject({
  clientId: ClientId,
  by: Initials,
  jobId: z.coerce.number().int().positive(),
  step: z.coerce.number().int().min(0).max(200),
});
export type PhotoQuery = z.infer<typeof PhotoQuery>;

export const StagesJson = z.array(z.strictObject({ id: z.int(), name: z.string() }));

/** The open job of a machine, as its page reloads it after each action. */
export const OpenJobReply = z.strictObject({
  record: z
    .strictObject({
      id: z.int(),
      machineId: z.int(),
      startedAt: z.string(),
      by: z.string(),
      lastCollected: z.string(),
      hazard: HazardName,
      reason: ChangeReasonName,
      people: People,
      procedure: ProcedureJson,
      stages: StagesJson,
      events: z.array(z.strictObject({ id: z.int(), at: z.string(), by: z.string(), event: JobEventJson })),
    })
    .nullable(),
  /** The changes this job has put into the file. */
  changeIds: z.array(z.int()),
  /** The server's clock, by which a drying time runs. */
  now: z.string(),
  /** Tests that are due for the fine filters of this machine, by stage. */
  integrity: z.array(
    z.strictObject({
      stageId: z.int(),
      due: z.array(IntegrityTestName),
      failed: z.array(IntegrityTestName),
      penetration: z.enum(['notNeeded', 'due', 'failed']),
    }),
  ),
});
export type OpenJobReply = z.infer<typeof OpenJobReply>;
