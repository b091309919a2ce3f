import { z } from 'zod';
import { ChangeReasonName, HazardName, IntegrityTestName } from './enums';
import { DustStatementJson } from './dust';
import { ClientId, Initials } from './requests';

/** What crosses a boundary of a guided change: requests, and the JSON columns of its log. */

const RunStateName = z.enum(['off', 'running', 'headAside', 'secondVacuum']);
const SchoolName = z.enum(['off', 'running', 'headAside', 'secondVacuum']);
const OpeningName = z.enum(['lid', 'door', 'head', 'fixings', 'can', 'oldPart', 'disposalBag', 'inlet']);
const CheckName = z.enum([
  'seal1',
  'seal2',
  'collarStraight',
  'arrowWithFlow',
  'gasketSide',
  'undersideClean',
  'nothingPinched',
  'contactClear',
  'latchCount',
  'threadFlush',
  'wrapAllRound',
  'breathersInside',
  'compartmentClean',
  'bagCount',
  'ringTight',
  'bristlesFree',
  'dry',
  'bonded',
  'hoseLocked',
  'selectorRight',
  'lightOut',
  'lightOn',
  'gaugeGreen',
  'spinsFree',
  'cleanSideClean',
  'noEmbers',
  'seamRear',
  'tabFlush',
  'filtersFresh',
  'preMotorClean',
  'nothingLeft',
]);
const MoveName = z.enum(['takeNew', 'fitNew', 'bagOld', 'holdOld', 'disposeOld', 'putOldBack', 'returnNew']);
const CautionName = z.enum([
  'unplug',
  'locked',
  'vented',
  'p3',
  'sparks',
  'innerFilter',
  'makersWay',
  'hoseStays',
  'aloneRunning',
  'respiratorLast',
  'respirator',
  'suit',
  'noBrushNoAir',
  'plugFirst',
  'sharp',
  'hotSeal',
  'liveParts',
  'bandClamp',
  'leftHanded',
  'localWaste',
  'noBlowing',
  'bearWeight',
  'bristles',
]);
const StepKeyName = z.enum([
  'askHazard',
  'restrictArea',
  'putOnRespirator',
  'putOnCoverall',
  'isolate',
  'plugInlet',
  'unplugInlet',
  'switchOn',
  'switchOff',
  'crackOpen',
  'open',
  'close',
  'latch',
  'setHeadAside',
  'headOn',
  'connectSecond',
  'startSecond',
  'stopSecond',
  'removeSecond',
  'breakSuction',
  'capOld',
  'closeBreathers',
  'sealMouth',
  'tieOff',
  'twistAndCut',
  'dropDust',
  'drawIntoBag',
  'releaseFixings',
  'tightenFixings',
  'takeOut',
  'lookInside',
  'wipe',
  'decontaminate',
  'prepareNew',
  'fitNew',
  'drawDown',
  'strapRim',
  'holdOld',
  'bagOld',
  'putOldBack',
  'returnNew',
  'cutHair',
  'stripNozzle',
  'cleanCanister',
  'proveIndicator',
  'disposeOld',
  'labelWaste',
  'runAndListen',
  'check',
  'pulse',
  'readGauge',
  'wash',
  'startDrying',
  'emptyInto',
  'reverseHose',
  'lookThrough',
  'discOn',
  'packMachine',
  'bondFirst',
  'measureBaseline',
  'startTimer',
  'integrityTest',
  'measureAfter',
  'isolateBreaker',
  'isolateAir',
  'wipeSuit',
  'offOvershoes',
  'offCoverall',
  'offGloves',
  'washHands',
  'offRespirator',
  'washFace',
  'freeArea',
  'tieBag',
  'wipeBag',
  'wipesIntoWaste',
  'secondBag',
  'lookCleanSide',
  'letInletsClose',
  'closeGates',
  'openGates',
  'letSettle',
  'lookForEmbers',
  'capHose',
  'discOff',
  'decontaminationNote',
  'nameSpare',
  'liftAbove',
  'backAbove',
  'wipeOutside',
]);
const ProcedureName = z.enum([
  'plainBag',
  'safetyBag',
  'endlessLiner',
  'cycloneBag',
  'filterBags',
  'tankBagHeadAside',
  'tankBagSecondVacuum',
  'prefilterWrap',
  'screwHepa',
  'boltedMainFilter',
  'stackedFilter',
  'gasStage',
  'purge',
  'wash',
  'collectorEmpty',
  'centralCan',
  'plainFilter',
  'hosePlug',
  'service',
  'indicatorCheck',
  'commissioning',
  'fullSet',
  'linerSection',
  'decontamination',
]);

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
    dusty: z.literal(true).optional(),
    because: z.enum(['method', 'controlled', 'contained', 'seat', 'stock', 'proof', 'safety']),
  })
  // A key that is not there stays away, so that what is read is what was written.
  .transform(({ opens, closes, check, moves, caution, dusty, ...rest }) => ({
    ...rest,
    ...(opens && { opens }),
    ...(closes && { closes }),
    ...(check && { check }),
    ...(moves && { moves }),
    ...(caution && { caution }),
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

/** One line of a job's log, as it is sent and as it is stored. */
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
  z.strictObject({ kind: z.enum(['purge', 'wash', 'section']), stage: Index }),
  z.strictObject({
    kind: z.enum(['hosePlug', 'service', 'indicatorCheck', 'commissioning', 'fullSet', 'decontamination']),
  }),
]);

const startFields = {
  clientId: ClientId,
  by: Initials,
  job: JobJson,
  dust: DustStatementJson,
  reason: ChangeReasonName,
  /** The ledger says there is none, and it is in the hand all the same. */
  partInHand: z.boolean(),
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

export const JobDeedBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  jobId: z.int().positive(),
  event: JobEventJson,
  /** What is printed on the pack that was taken; '' when nobody read it. */
  partCode: z.string().trim().max(40),
});
export type JobDeedBody = z.infer<typeof JobDeedBody>;

/** Where a photo belongs; the picture itself is the body of the request. */
export const PhotoQuery = z.strictObject({
  clientId: ClientId,
  by: Initials,
  jobId: z.coerce.number().int().positive(),
  step: z.coerce.number().int().min(0).max(200),
});
export type PhotoQuery = z.infer<typeof PhotoQuery>;

export const StagesJson = z.array(z.strictObject({ id: z.int(), name: z.string() }));

/** The job under way on a machine, as its page loads it anew after each deed. */
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
  /** What is due of the fine filters of this machine, by stage. */
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
