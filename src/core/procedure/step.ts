import type { IntegrityTest } from '../machine/integrity';
import type { Fixing } from '../machine/part-ways';

/** How the machine runs while a step is done; the air follows from it. */
export const RUN_STATES = [
  'off',
  /** Its own air flows into the opening one works at. */
  'running',
  /** The running head, set aside, only holds the cake on its own filter. */
  'headAside',
  /** A second vacuum draws the tank's air through the service port; the head is aside, running. */
  'secondVacuum',
] as const;
export type RunState = (typeof RUN_STATES)[number];

/** The trade's ways to change a part. Source: common practice, no published source. */
export const CHANGE_SCHOOLS = ['off', 'running', 'headAside', 'secondVacuum'] as const;
export type ChangeSchool = (typeof CHANGE_SCHOOLS)[number];

/** Places that can be open. */
export const OPENABLE_PARTS = [
  'lid',
  'door',
  'head',
  'ring',
  'fixings',
  'can',
  'oldPart',
  'disposalBag',
  'inlet',
] as const;
export type OpenedPart = (typeof OPENABLE_PARTS)[number];

/** Asked one by one, never as a block. */
export const CHECKS = [
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
  'wallsClean',
  'vesselClean',
] as const;
export type CheckKind = (typeof CHECKS)[number];

/** Checks that prove a new part by the machine's own indicator: there a job may turn back. */
export const PROOF_CHECKS: ReadonlySet<CheckKind> = new Set<CheckKind>(['lightOut', 'gaugeGreen']);

/** What happens to a part at a step. */
export const PART_MOVES = ['takeNew', 'fitNew', 'bagOld', 'holdOld', 'disposeOld', 'putOldBack', 'returnNew'] as const;
export type PartMove = (typeof PART_MOVES)[number];

export const CAUTIONS = [
  'unplug',
  'locked',
  'vented',
  'respirator',
  'p3',
  'suit',
  'sparks',
  'innerFilter',
  'makersWay',
  'hoseStays',
  'aloneRunning',
  'respiratorLast',
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
] as const;
export type CautionKey = (typeof CAUTIONS)[number];

/** Actions of steps; their words are in the messages. */
export const STEP_KEYS = [
  'askHazard',
  'restrictArea',
  'putOnRespirator',
  'putOnCoverall',
  'isolate',
  'isolateBreaker',
  'isolateAir',
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
  // Off again, at the edge of the area, in this order.
  'wipeSuit',
  'offOvershoes',
  'offCoverall',
  'offGloves',
  'washHands',
  'offRespirator',
  'washFace',
  'freeArea',
  // Waste, from the old part in its bag to the store.
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
  'restorePlug',
  'restoreBreaker',
  'restoreAir',
  'tapeGloves',
  'layOutSuitBag',
  'tieSuitBag',
  'closePort',
  'bagAbove',
  'closeNeck',
  'tieNeck',
  'screenCleanSide',
  'hosesOff',
  'hosesOn',
  'reverseRun',
  'cleanWalls',
  'cleanVessel',
] as const;
export type StepKey = (typeof STEP_KEYS)[number];

/** Why a step is in a procedure. */
export const STEP_REASONS = ['method', 'controlled', 'contained', 'seat', 'stock', 'proof', 'safety'] as const;
export type StepReason = (typeof STEP_REASONS)[number];

/** One step of a change, in one state of the machine. */
export interface Step {
  readonly key: StepKey;
  readonly run: RunState;
  /** Position of the stage it is done to; null for the machine. */
  readonly stage: number | null;
  readonly opens?: OpenedPart;
  readonly closes?: OpenedPart;
  readonly check?: CheckKind;
  readonly moves?: PartMove;
  readonly caution?: CautionKey;
  /** The fixing that is undone or tightened. */
  readonly fixing?: Fixing;
  /** Dust of the dirty side is in the open while this is done. */
  readonly dusty?: true;
  /** Why it is there. */
  readonly because: StepReason;
}

/** Requirements before a change begins. */
export type Precondition =
  { readonly kind: 'afterChangeOf'; readonly stage: number } | { readonly kind: 'poweredDown' };

/** A guided change on one machine. */
export interface Procedure {
  readonly id: ProcedureId;
  readonly stage: number | null;
  readonly school: ChangeSchool;
  readonly before: readonly Precondition[];
  readonly steps: readonly Step[];
  /** Steps that replace the rest when the new part proved nothing; empty where nothing is held. */
  readonly turnBack: readonly Step[];
  /** The class wording is suspended until these are passed. */
  readonly integrity: readonly IntegrityTest[];
  /** Other stages whose part is always changed with it. */
  readonly goesWith: readonly number[];
  /** Out of service until dry. */
  readonly driesHours: number | null;
}

export const PROCEDURE_IDS = [
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
] as const;
export type ProcedureId = (typeof PROCEDURE_IDS)[number];

const PROVED_BY: Readonly<Partial<Record<StepKey, readonly IntegrityTest[]>>> = {
  screenCleanSide: ['cleanSide'],
  integrityTest: ['cleanSide', 'smoke', 'particles'],
};

/** The screening that must be passed before a step is done; null for a step that proves nothing of a filter. */
export const provedBy = ({ key }: Pick<Step, 'key'>): readonly IntegrityTest[] | null => PROVED_BY[key] ?? null;
