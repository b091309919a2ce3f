import { z } from 'zod';
import { COMPLAINTS } from '@/core/diagnose/complaint';
import { FAULT_KINDS } from '@/core/diagnose/fault';
import { SCHOOLS } from '@/core/diagnose/next-test';
import { TEST_STATES } from '@/core/diagnose/operation';
import { REPAIR_KINDS } from '@/core/diagnose/repair';
import { MachineModelJson, PathParametersJson } from './air-path-messages';
import { DustStatementJson } from './dust';
import { HazardName, MachineClassName } from './enums';
import { FailureJson } from './failure-json';
import { BareTest, PlacedTest, StagedTest, WherePlace } from './operations';
import { ClientId, Initials } from './requests';

/** What crosses a boundary of a case: requests, the log's JSON column, and the worker's messages. */

export const ComplaintName = z.enum(COMPLAINTS);
export const SchoolName = z.enum(SCHOOLS);
export const FaultKindName = z.enum(FAULT_KINDS);
const RepairKindName = z.enum(REPAIR_KINDS);
const Position = z.int().min(0).max(60);

export const OperationJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: PlacedTest, place: WherePlace }),
  z.strictObject({ kind: StagedTest, position: Position }),
  z.strictObject({ kind: BareTest }),
  z.strictObject({ kind: z.literal('found'), fault: z.string().max(30), position: Position }),
]);

export const OutcomeJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('number'), valueSi: z.number() }),
  z.strictObject({ kind: z.literal('word'), word: z.string().min(1).max(30) }),
]);

const CauseJson = z.strictObject({ kind: FaultKindName, position: Position });
const RepairJson = z.strictObject({ kind: RepairKindName, position: Position });
export const SnapshotJson = z.array(CauseJson.extend({ probability: z.number() })).max(12);
const Found = z.enum(['yes', 'no', 'unseen']);

/** One line of a case's log, as stored. */
export const CaseEventJson = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('saw'),
    operation: OperationJson,
    outcome: OutcomeJson,
    typed: z.string(),
    note: z.string(),
  }),
  z.strictObject({ kind: z.literal('struck'), eventId: z.int(), because: z.string() }),
  z.strictObject({ kind: z.literal('skipped'), operation: OperationJson }),
  z.strictObject({ kind: z.literal('school'), school: SchoolName }),
  z.strictObject({ kind: z.literal('putBack'), position: Position }),
  z.strictObject({ kind: z.literal('trialIn'), position: Position }),
  z.strictObject({ kind: z.literal('trialBack'), position: Position }),
  z.strictObject({ kind: z.literal('trialKept'), position: Position, changeId: z.int().nullable() }),
  z.strictObject({
    kind: z.literal('repaired'),
    repair: RepairJson,
    fault: CauseJson,
    found: Found,
    changeId: z.int().nullable(),
  }),
  z.strictObject({
    kind: z.literal('closed'),
    rootCause: z.string(),
    root: CauseJson.nullable(),
    followUp: z.string(),
    snapshot: SnapshotJson,
  }),
  z.strictObject({ kind: z.literal('handedOn'), because: z.string(), snapshot: SnapshotJson }),
]);

export const OpenCaseBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  complaint: ComplaintName,
  words: z.string().trim().max(300),
  dust: DustStatementJson,
  school: SchoolName,
});
export type OpenCaseBody = z.infer<typeof OpenCaseBody>;

const Why = z.string().trim().min(1).max(300);
/** A reading comes as typed; the server reads it. */
const SeenJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('typed'), typed: z.string().max(200), unit: z.string().max(20) }),
  z.strictObject({ kind: z.literal('word'), word: z.string().min(1).max(30) }),
]);

/** One thing the technician did, as the page sends it. */
export const CaseActionJson = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('saw'),
    operation: OperationJson,
    seen: SeenJson,
    note: z.string().trim().max(300),
    correctsEventId: z.int().positive().nullable(),
  }),
  z.strictObject({ kind: z.literal('strike'), eventId: z.int().positive(), because: Why }),
  z.strictObject({ kind: z.literal('skip'), operation: OperationJson }),
  z.strictObject({ kind: z.literal('school'), school: SchoolName }),
  z.strictObject({ kind: z.literal('putBack'), position: Position }),
  z.strictObject({ kind: z.literal('trialIn'), position: Position }),
  z.strictObject({ kind: z.literal('trialBack'), position: Position }),
  z.strictObject({ kind: z.literal('trialKeep'), position: Position }),
  z.strictObject({
    kind: z.literal('repair'),
    repair: RepairJson,
    fault: CauseJson,
    found: Found,
    changeId: z.int().positive().nullable(),
  }),
  z.strictObject({
    kind: z.literal('close'),
    rootCause: Why,
    root: CauseJson.nullable(),
    followUp: z.string().trim().max(500),
  }),
  z.strictObject({ kind: z.literal('handOn'), because: Why }),
]);
export type CaseAction = z.infer<typeof CaseActionJson>;

export const CaseActionBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  caseId: z.int().positive(),
  action: CaseActionJson,
});
export type CaseActionBody = z.infer<typeof CaseActionBody>;

const StageRecordJson = z.strictObject({ lifeUsed: z.number().nullable(), justOpened: z.boolean() });

export const CaseSetupJson = z.strictObject({
  model: MachineModelJson,
  parameters: PathParametersJson,
  traits: z.strictObject({
    hasLamp: z.boolean(),
    hasBrush: z.boolean(),
    selectorM: z.number().nullable(),
    machineClass: MachineClassName.nullable(),
  }),
  hoseM: z.number().nullable(),
  nominalVolts: z.number(),
  calibrated: z.boolean(),
  baselines: z.record(z.string(), z.number()),
  record: z.strictObject({
    stages: z.array(StageRecordJson),
    wet: z.boolean(),
    blinding: z.boolean(),
    causes: z.array(CauseJson.extend({ weight: z.number() })),
  }),
});

const InterventionsJson = z.strictObject({ out: z.array(Position), repairs: z.array(RepairJson) });

export const ProgressJson = z.strictObject({
  complaint: ComplaintName,
  hazard: HazardName,
  state: z.enum(TEST_STATES),
  interventions: InterventionsJson,
  evidence: z
    .array(
      z.strictObject({
        operation: OperationJson,
        outcome: OutcomeJson,
        interventions: InterventionsJson,
        struck: z.boolean(),
      }),
    )
    .max(300),
  skipped: z.array(OperationJson).max(300),
  trialOn: z.boolean().optional(),
});

export const FindRequest = z.discriminatedUnion('ask', [
  z.strictObject({
    ask: z.literal('open'),
    setup: CaseSetupJson,
    complaint: ComplaintName,
    words: z.string().max(300),
  }),
  z.strictObject({ ask: z.literal('evaluate'), id: z.int(), progress: ProgressJson, school: SchoolName }),
]);
export type FindRequest = z.infer<typeof FindRequest>;

const PresentedFault = CauseJson.extend({ probability: z.number(), severity: z.number() });
const PresentedTestJson = z.strictObject({
  operation: OperationJson,
  bits: z.number(),
  minutes: z.number(),
  saves: z.number(),
  exposure: z.number(),
  soundSi: z.number().nullable(),
  words: z.array(z.string()),
});

export const FindingsJson = z.strictObject({
  causes: z.array(PresentedFault.extend({ speaksFor: z.array(z.int()), speaksAgainst: z.array(z.int()) })),
  stages: z.array(z.number()),
  nothing: z.number(),
  pair: z.number(),
  contradiction: z.tuple([z.int(), z.int()]).nullable(),
  back: z.boolean(),
  inVain: z.int().min(0),
  advice: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('fitFirst'), position: z.int(), doubtMinutes: z.number() }),
    z.strictObject({ kind: z.literal('close'), doubtMinutes: z.number() }),
    z.strictObject({ kind: z.literal('test'), test: PresentedTestJson, doubtMinutes: z.number() }),
    z.strictObject({
      kind: z.literal('repair'),
      fault: PresentedFault,
      repair: RepairJson,
      use: z.number(),
      doubtMinutes: z.number(),
    }),
    z.strictObject({ kind: z.literal('escalate'), fault: PresentedFault.nullable(), doubtMinutes: z.number() }),
  ]),
  schoolTest: PresentedTestJson.nullable(),
  others: z.array(PresentedTestJson),
  meanings: z.array(z.strictObject({ outcome: OutcomeJson, top: PresentedFault.nullable() })),
});

export const FindReply = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('progress'), id: z.int(), share: z.number() }),
  z.strictObject({ kind: z.literal('found'), id: z.int(), findings: FindingsJson }),
  z.strictObject({
    kind: z.literal('failed'),
    id: z.int(),
    failures: z.array(FailureJson),
  }),
]);
export type FindReply = z.infer<typeof FindReply>;

/** The open case, as a page reloads it after each action. */
export const OpenCaseReply = z.strictObject({
  record: z
    .strictObject({
      id: z.int(),
      machineId: z.int(),
      openedAt: z.string(),
      by: z.string(),
      complaint: ComplaintName,
      words: z.string(),
      hazard: HazardName,
      lastCollected: z.string(),
      school: SchoolName,
      events: z.array(z.strictObject({ id: z.int(), at: z.string(), by: z.string(), event: CaseEventJson })),
    })
    .nullable(),
  /** Changes of this machine recorded since the case was opened, newest first. */
  changes: z.array(z.strictObject({ id: z.int(), stageId: z.int(), at: z.string() })),
});
export type OpenCaseReply = z.infer<typeof OpenCaseReply>;
