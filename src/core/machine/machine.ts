import type { MachineDust } from '../dust/history';
import type { DustHazard } from '../dust/level';
import type { CalendarDate } from '../calendar/calendar-date';
import type { WearFacts } from '../interval/due';
import type { RuleRecord } from '../interval/rules';
import { STAGE_KINDS, type StageKind } from '../path/stage-kinds';
import type { StageSpec } from '../path/stage-spec';
import { type IntegrityCheck, integrityStanding, type PenetrationTest } from './integrity';
import type { MachineKind } from './kinds';
import type { MachineClass } from '../filter/machine-class';

export type { MachineClass } from '../filter/machine-class';

export type { DustHazard } from '../dust/level';

export interface Stage {
  readonly id: number;
  readonly position: number;
  readonly kind: StageKind;
  readonly name: string;
  /** The part that belongs here; null for a stage without a spare. */
  readonly part: { readonly id: number; readonly code: string; readonly name: string } | null;
  readonly missing: boolean;
  /** When it was seen to be missing, UTC ISO; null when the machine was entered without it. */
  readonly missingSince: string | null;
  readonly doNotRemove: boolean;
  /** First use of the part that was in the machine when it was entered. */
  readonly firstUsedOn: CalendarDate;
  /** Day a new part was last recorded in it; null when the record has none. */
  readonly fittedOn: CalendarDate | null;
  /** When its seat was last opened, for a change, a trial, a cleaning or a look, UTC ISO; null when the record has none. */
  readonly openedAt: string | null;
  /** Screenings of its seat and its clean side, oldest first. */
  readonly proven: readonly IntegrityCheck[];
  /** Looks at its fill, oldest first, share of the container. */
  readonly looks: WearFacts['looks'];
  readonly rules: readonly RuleRecord[];
  /** Its resistance, seat and rating; the kind's defaults where the record has none. */
  readonly spec: StageSpec;
}

/** An examination by a competent person, and its finding. */
export interface Examination {
  readonly on: CalendarDate;
  readonly at: string;
  readonly by: string;
  readonly examiner: string;
  readonly found: string;
}

/** The plate of a machine: its name, its kind, and what its maker or the site says of it. */
export interface MachinePlate {
  readonly id: number;
  readonly tag: string;
  readonly name: string;
  readonly kind: MachineKind;
  readonly maker: string;
  readonly place: string;
  readonly machineClass: MachineClass | null;
  readonly nominalVolts: number;
  readonly inServiceOn: CalendarDate;
  /** Time zone of its site: every day of it is counted there. */
  readonly timeZone: string;
}

/** The present air path of a machine. */
export interface MachineAirPath {
  readonly stages: readonly Stage[];
  readonly hasBrush: boolean;
  readonly hoseBoreM: number | null;
  readonly hoseLengthM: number | null;
  /** Setting of the machine's hose selector, m; null without one. */
  readonly hoseSelectorM: number | null;
  /** Fitted out for wet pick-up. */
  readonly wetSet: boolean;
}

/** The dust a machine has collected, and how it is opened for it. */
export interface MachineDustStanding {
  /** The last statement of its dust, in the original words. */
  readonly lastCollected: string;
  /** How it is opened: the worst it has collected since it was last decontaminated. */
  readonly hazard: DustHazard;
  readonly dust: MachineDust;
}

/** The records of a machine as a whole, and the earlier shapes of its path. */
export interface MachineHistory {
  /** Run hours by day with the collected dust, oldest first; the newest entry for a day counts. */
  readonly hours: readonly { readonly day: CalendarDate; readonly hours: number; readonly dust: string }[];
  /** Examinations of the whole machine by a competent person, oldest first. */
  readonly examinations: readonly Examination[];
  /** Penetration tests of the whole machine, oldest first. */
  readonly penetration: readonly PenetrationTest[];
  /** Stages that were taken out of the path for good: their records still name them. */
  readonly retired: readonly { readonly id: number; readonly name: string }[];
  /** Number of the newest edit of the path; 0 before the first. */
  readonly editedThrough: number;
  /** When the air was last led another way: baselines before that no longer speak of this path. */
  readonly reshapedAt: string | null;
}

/** A machine as measuring sees it: its plate and its air path. */
export interface MeasuredMachine extends MachinePlate, MachineAirPath {}

export interface Machine extends MachinePlate, MachineAirPath, MachineDustStanding, MachineHistory {}

/**
 * Why a class may not be claimed, and how it stands: suspended while only a test is due, withdrawn while a part is wrong.
 * Source: EN 60335-2-69 tests the whole appliance. Choice: a failed test withdraws, because the part must be repaired.
 */
export const CLASS_GAPS = {
  missing: 'withdrawn',
  foreign: 'withdrawn',
  reversed: 'withdrawn',
  failed: 'withdrawn',
  untested: 'suspended',
  unproven: 'suspended',
} as const;
export type ClassGapReason = keyof typeof CLASS_GAPS;

/** Why a machine's class may not be claimed: the tested appliance was changed. */
export interface ClassGap {
  readonly stage: Stage;
  /**
   * `untested`: its seat was opened, and the screening is still due. `failed`: it failed a test. `unproven`: it was
   * screened, and the penetration test is still due.
   */
  readonly because: ClassGapReason;
  readonly standing: (typeof CLASS_GAPS)[ClassGapReason];
}

const reasonOf = (machine: Machine, stage: Stage): ClassGapReason | null => {
  if (stage.missing) return 'missing';
  if (stage.spec.fit.foreign) return 'foreign';
  if (stage.spec.fit.orientation === 'againstFlow') return 'reversed';
  const integrity = integrityStanding(machine, stage);
  if (!integrity) return null;
  if (integrity.failed.length > 0 || integrity.penetration === 'failed') return 'failed';
  return integrity.due.length > 0 ? 'untested' : 'unproven';
};

const gapOf = (machine: Machine, stage: Stage): ClassGap | null => {
  const because = reasonOf(machine, stage);
  return because && { stage, because, standing: CLASS_GAPS[because] };
};

/** The class that may be claimed now, the class on its plate, and the reason for a difference. */
export interface ClassStanding {
  readonly label: MachineClass | null;
  readonly onPlate: MachineClass | null;
  /** Null where the class of the plate may be claimed. */
  readonly gap: ClassGap | null;
}

/**
 * The class that may be claimed: a machine with a missing or foreign stage, one fitted against its arrow, or one whose
 * filter was opened and not yet proven again, has lost its wording until that is put right. A missing stage is named
 * first. Source: EN 60335-2-69 tests the whole appliance.
 */
export const classStanding = (machine: Machine): ClassStanding => {
  const reasons = machine.stages.map((s) => gapOf(machine, s)).filter((w) => w !== null);
  const gap = reasons.find((w) => w.because === 'missing') ?? reasons[0] ?? null;
  const onPlate = machine.machineClass;
  return gap ? { label: null, gap, onPlate } : { label: onPlate, gap: null, onPlate };
};

/** Whether a change of a stage can be recorded: its kind has a part, a spare is kept for it, or it fills and is emptied without a part, such as a bin. */
export const isChangeable = ({ kind, part, doNotRemove }: Pick<Stage, 'kind' | 'part' | 'doNotRemove'>): boolean =>
  !doNotRemove && (STAGE_KINDS[kind].changeable || STAGE_KINDS[kind].fills || part !== null);
