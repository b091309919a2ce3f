import { addDays, type CalendarDate } from '../calendar/calendar-date';
import { type ChangeDay, changeDays, dueOfMachine } from '../forecast/due';
import type { StageOutlook } from '../forecast/from-record';
import { dueName, type StageDue } from '../interval/due';
import { isChangeUnknown } from '../interval/stage-due-word';
import { dueWord } from '../interval/due-word';
import { classStanding, type Machine, type ClassGap } from '../machine/machine';
import type { BaselineVerdict, LossThresholds } from '../measure/judge-baseline';
import { type ChangeRecord, inForce, type TestRecord } from '../record/records';
import { METHODS } from '../measure/methods';
import { type JudgedTest, judgeTest } from './judge-test';

export interface MachineStatus {
  readonly machine: Machine;
  readonly due: readonly StageDue[];
  /** The newest usable valid test, judged; null without one. */
  readonly latest: JudgedTest | null;
  readonly need: Need;
  /** The forecast of each ruled stage: the dates of `due` are its own. */
  readonly outlooks: readonly StageOutlook[];
}

/** The one thing a machine needs next, with what orders it on the board (smaller is more urgent). */
export type Need =
  | { readonly kind: 'refused'; readonly dust: string; readonly urgency: number }
  | {
      readonly kind: 'missingStage';
      readonly stageName: string;
      readonly because: ClassGap['because'];
      readonly urgency: number;
    }
  | { readonly kind: 'belowClassLimit'; readonly velocityMs: number; readonly urgency: number }
  | {
      readonly kind: 'lowFlow';
      readonly lossFraction: number;
      readonly act: boolean;
      readonly suction: boolean;
      readonly urgency: number;
    }
  | { readonly kind: 'moreFlow'; readonly gainFraction: number; readonly urgency: number }
  | {
      readonly kind: 'due';
      readonly stageName: string;
      readonly daysLeft: number;
      /** False: the last change is unknown, so the day is a guess from the first use. */
      readonly changeRecorded: boolean;
      readonly urgency: number;
    }
  /** Only a baseline is on record: good, and no later test to judge. */
  | { readonly kind: 'baselineOnly'; readonly urgency: number }
  | { readonly kind: 'measureAgain'; readonly because: 'changed' | 'cannotTell' | 'never'; readonly urgency: number }
  | {
      readonly kind: 'nothing';
      readonly stageName: string | null;
      readonly daysLeft: number | null;
      readonly urgency: number;
    };

export interface StatusInput {
  readonly machine: Machine;
  readonly tests: readonly TestRecord[];
  readonly changes: readonly ChangeRecord[];
  readonly thresholds: LossThresholds;
  readonly today: CalendarDate;
  readonly outlooks: readonly StageOutlook[];
}

/** Order on the board, least first; due dates by their days left. A modelling choice. */
const URGENCY = {
  refused: -2000,
  missingStage: -1000,
  belowClassLimit: -900,
  lowFlow: -800,
  changedSince: -700,
  moreFlow: 1,
  warn: 2,
  hoseCannotTell: 3,
  cannotTell: 4,
  neverMeasured: 5,
  baselineOnly: 99,
} as const;

const baselineNeed = (baseline: BaselineVerdict, suction: boolean): Need | null => {
  switch (baseline.outcome) {
    case 'act':
      return {
        kind: 'lowFlow',
        lossFraction: baseline.lossFraction,
        act: true,
        suction,
        urgency: URGENCY.lowFlow - baseline.lossFraction,
      };
    case 'warn':
      return { kind: 'lowFlow', lossFraction: baseline.lossFraction, act: false, suction, urgency: URGENCY.warn };
    case 'more':
      return { kind: 'moreFlow', gainFraction: -baseline.lossFraction, urgency: URGENCY.moreFlow };
    case 'cannotTell':
      return { kind: 'measureAgain', because: 'cannotTell', urgency: URGENCY.cannotTell };
    case 'fine':
    case 'isBaseline':
    case 'noBaseline':
    case 'notUsable':
    case 'tooFew':
    case 'biased':
      return null;
  }
};

/** A machine with only a baseline: fine while nothing was changed after it. */
const untested = (baselineAt: string | null, changes: readonly ChangeDay[]): Need => {
  if (baselineAt === null) return { kind: 'measureAgain', because: 'never', urgency: URGENCY.neverMeasured };
  return changes.some((c) => c.performedAt > baselineAt)
    ? { kind: 'measureAgain', because: 'changed', urgency: URGENCY.neverMeasured }
    : { kind: 'baselineOnly', urgency: URGENCY.baselineOnly };
};

const testNeed = ({ latest, baselineAt, changes }: Omit<MachineDigest, 'machine'>): Need | null => {
  if (!latest) return untested(baselineAt, changes);
  const { hose, baseline } = latest;
  const need: Need | null =
    hose.outcome === 'fail'
      ? { kind: 'belowClassLimit', velocityMs: hose.velocityMs, urgency: URGENCY.belowClassLimit }
      : (baselineNeed(baseline, latest.reduced.measurand === 'suction') ??
        (hose.outcome === 'cannotTell'
          ? { kind: 'measureAgain', because: 'cannotTell', urgency: URGENCY.hoseCannotTell }
          : null));
  // Once something was changed, the bad reading before it no longer speaks of the machine: measure again first.
  const changedSince = changes.some((c) => c.performedAt > latest.record.performedAt);
  return need && changedSince ? { kind: 'measureAgain', because: 'changed', urgency: URGENCY.changedSince } : need;
};

const needOf = (digest: MachineDigest, due: readonly StageDue[]): Need => {
  const { machine } = digest;
  const { refusal } = machine.dust.standing;
  if (refusal) return { kind: 'refused', dust: refusal.dust, urgency: URGENCY.refused };
  const gap = classStanding(machine).gap;
  if (gap)
    return { kind: 'missingStage', stageName: gap.stage.name, because: gap.because, urgency: URGENCY.missingStage };
  const dated = due.flatMap((d) => (d.daysLeft === null ? [] : [{ stageId: d.stageId, daysLeft: d.daysLeft }]));
  const soonest = dated.reduce<(typeof dated)[number] | null>(
    (a, d) => (a === null || d.daysLeft < a.daysLeft ? d : a),
    null,
  );
  const named = machine.stages.find((s) => s.id === soonest?.stageId)?.name ?? null;
  const soonestDue = due.find((d) => d.stageId === soonest?.stageId);
  const stageName = named !== null && soonestDue ? dueName(soonestDue, named) : named;
  const dueNeed: Need | null =
    soonest && soonestDue && stageName !== null && dueWord(soonest.daysLeft) !== 'later'
      ? {
          kind: 'due',
          stageName,
          daysLeft: soonest.daysLeft,
          changeRecorded: !isChangeUnknown(soonestDue),
          urgency: soonest.daysLeft,
        }
      : null;
  const candidates = [testNeed(digest), dueNeed].filter((n) => n !== null).sort((a, b) => a.urgency - b.urgency);
  return (
    candidates[0] ?? {
      kind: 'nothing',
      stageName,
      daysLeft: soonest?.daysLeft ?? null,
      urgency: 100 + (soonest?.daysLeft ?? 1000),
    }
  );
};

/** A stage entered as missing is present again after a recorded change. */
export const asRecorded = (machine: Machine, changes: readonly ChangeRecord[]): Machine => {
  const fittedSince = (s: Machine['stages'][number]) =>
    inForce(changes).some((c) => c.stageId === s.id && (s.missingSince === null || c.performedAt > s.missingSince));
  return {
    ...machine,
    stages: machine.stages.map((s) => (s.missing && fittedSince(s) ? { ...s, missing: false } : s)),
  };
};

/** Flow and suction say how a machine runs; a weight or a voltage does not. */
const saysHowItRuns = ({ test }: TestRecord): boolean =>
  METHODS[test.method].measurand === 'flow' || METHODS[test.method].measurand === 'suction';

/** The records of a machine, reduced for any day: the status of a day is computed from it. */
export interface MachineDigest {
  /** As recorded: a missing stage that was fitted since is there again. */
  readonly machine: Machine;
  /** The standing changes, oldest first, as far as a due date asks for them. */
  readonly changes: readonly ChangeDay[];
  /** The newest test that shows how the machine runs; baselines are left out. */
  readonly latest: JudgedTest | null;
  /** When the newest usable baseline of flow or suction was taken, UTC ISO; null without one. */
  readonly baselineAt: string | null;
}

/** A digest leaves out hours older than a year before the newest, unless a rule of run hours counts them. Days. */
const DIGEST_HOURS_DAYS = 366;

/**
 * Run hours kept in a digest: a year of them, and those since the last change but one of a stage with a rule of run
 * hours.
 */
const hoursKept = (machine: Machine, changes: readonly ChangeDay[]): Machine['hours'] => {
  const newest = machine.hours.at(-1)?.day;
  if (newest === undefined) return machine.hours;
  const ruled = machine.stages.filter((s) => s.rules.some((r) => r.rule.kind === 'runHours'));
  const needed = ruled.map((s) => changeDays(machine, changes)(s.id).at(-2) ?? s.firstUsedOn);
  const from = [addDays(newest, -DIGEST_HOURS_DAYS), ...needed].sort()[0] ?? newest;
  return machine.hours.filter((h) => h.day >= from);
};

/** Reads the records of a machine once, for every day on which none is added. */
export const machineDigest = (entered: Omit<StatusInput, 'today' | 'outlooks'>): MachineDigest => {
  const recorded = asRecorded(entered.machine, entered.changes);
  const changes = inForce(entered.changes).map(({ stageId, performedOn, performedAt }) => ({
    stageId,
    performedOn,
    performedAt,
  }));
  const machine = { ...recorded, hours: hoursKept(recorded, changes) };
  const input = { ...entered, machine };
  const usable = inForce(input.tests).filter((t) => saysHowItRuns(t) && t.test.failedPreconditions.length === 0);
  const newest = usable
    .filter((t) => !t.isBaseline)
    .reduce<TestRecord | null>((a, t) => (a === null || t.performedAt > a.performedAt ? t : a), null);
  return {
    machine,
    changes,
    latest: newest ? judgeTest({ ...input, record: newest }) : null,
    baselineAt: usable
      .filter((t) => t.isBaseline)
      .reduce<string | null>((a, t) => (a === null || t.performedAt > a ? t.performedAt : a), null),
  };
};

/** Everything the board, the round and the bench say about one machine on a day. */
export const statusOn = (
  digest: MachineDigest,
  today: CalendarDate,
  outlooks: readonly StageOutlook[],
): MachineStatus => {
  const { machine, changes, latest } = digest;
  // Nothing is due on a machine that only others may touch.
  const due = machine.dust.standing.refusal ? [] : dueOfMachine({ machine, changes, today, outlooks });
  return { machine, due, latest, need: needOf(digest, due), outlooks };
};

/** The same from the records at once. */
export const machineStatus = ({ today, outlooks, ...records }: StatusInput): MachineStatus =>
  statusOn(machineDigest(records), today, outlooks);
