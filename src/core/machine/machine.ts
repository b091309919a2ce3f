import type { CalendarDate } from '../interval/calendar-date';
import type { RuleRecord } from '../interval/rules';
import type { StageKind } from '../path/stage-kinds';
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
  readonly doNotRemove: boolean;
  /** First use of what was in it when the machine was entered. */
  readonly firstUsedOn: CalendarDate;
  readonly rules: readonly RuleRecord[];
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
  readonly inServiceOn: CalendarDate;
  readonly stages: readonly Stage[];
}

/** The class that may be said: a machine with a missing stage has lost its wording until it is restored. */
export const classStanding = (machine: Machine): { readonly label: MachineClass | null; readonly withdrawn: Stage | null } => {
  const gap = machine.stages.find((s) => s.missing) ?? null;
  return gap ? { label: null, withdrawn: gap } : { label: machine.machineClass, withdrawn: null };
};
