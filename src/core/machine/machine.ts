import type { CalendarDate } from '../interval/calendar-date';
import type { RuleRecord } from '../interval/rules';
import type { StageKind } from '../path/stage-kinds';
import type { StageSpec } from '../path/stage-spec';
import type { MachineKind } from './kinds';

/** What the maker tested the machine as; null where it has no class. */
export type MachineClass = 'L' | 'M' | 'H' | 'HEPA';

export type DustHazard = 'plain' | 'controlled' | 'contained';

export interface Stage {
  readonly id: number;
  readonly position: number;
  readonly kind: StageKind;
  readonly name: string;
  /** The part that belongs here; null for what is not a spare. */
  readonly part: { readonly id: number; readonly code: string; readonly name: string } | null;
  readonly missing: boolean;
  /** When it was seen to be missing, UTC ISO; null when the machine was entered without it. */
  readonly missingSince: string | null;
  readonly doNotRemove: boolean;
  /** First use of what was in it when the machine was entered. */
  readonly firstUsedOn: CalendarDate;
  readonly rules: readonly RuleRecord[];
  /** How it resists the air, sits and is rated; the kind's defaults where the record has none of its own. */
  readonly spec: StageSpec;
}

export interface Machine {
  readonly id: number;
  readonly tag: string;
  readonly name: string;
  readonly kind: MachineKind;
  readonly maker: string;
  readonly place: string;
  readonly machineClass: MachineClass | null;
  readonly lastCollected: string;
  readonly hazard: DustHazard;
  readonly hasBrush: boolean;
  readonly hoseBoreM: number | null;
  readonly hoseLengthM: number | null;
  /** What the machine's hose selector is set to, m; null without one. */
  readonly hoseSelectorM: number | null;
  readonly nominalVolts: number;
  /** Fitted out for wet pick-up. */
  readonly wetSet: boolean;
  readonly inServiceOn: CalendarDate;
  readonly stages: readonly Stage[];
  /** Stages that were taken out of the path for good: their records still name them. */
  readonly retired: readonly { readonly id: number; readonly name: string }[];
  /** Number of the newest edit of the path; 0 before the first. */
  readonly editedThrough: number;
  /** When the air was last led another way: baselines before that no longer speak of this path. */
  readonly reshapedAt: string | null;
}

/** Why a machine's class may not be said: the tested appliance is not what stands here. */
export interface Withdrawal {
  readonly stage: Stage;
  readonly because: 'missing' | 'foreign' | 'reversed';
}

const withdrawalOf = (stage: Stage): Withdrawal | null => {
  if (stage.missing) return { stage, because: 'missing' };
  if (stage.spec.fit.foreign) return { stage, because: 'foreign' };
  return stage.spec.fit.orientation === 'againstFlow' ? { stage, because: 'reversed' } : null;
};

/** The class that may be said now, what its plate says, and why the two differ. */
export interface ClassStanding {
  readonly label: MachineClass | null;
  readonly onPlate: MachineClass | null;
  readonly withdrawn: Withdrawal | null;
}

/**
 * The class that may be said: a machine with a missing or foreign stage, or one fitted against its arrow, has lost its
 * wording until it is restored. A missing stage is told first. Source: EN 60335-2-69 tests the whole appliance.
 */
export const classStanding = (machine: Machine): ClassStanding => {
  const reasons = machine.stages.map(withdrawalOf).filter((w) => w !== null);
  const withdrawn = reasons.find((w) => w.because === 'missing') ?? reasons[0] ?? null;
  const onPlate = machine.machineClass;
  return withdrawn ? { label: null, withdrawn, onPlate } : { label: onPlate, withdrawn: null, onPlate };
};
