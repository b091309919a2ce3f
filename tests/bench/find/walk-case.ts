import type { Complaint } from '@/core/diagnose/complaint';
import type { FaultKind, MachineTraits } from '@/core/diagnose/fault';
import type { HazardLevel, Operation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import type { MachineRecord } from '@/core/diagnose/record-prior';
import type { Repair } from '@/core/diagnose/repair';
import type { Interventions } from '@/core/diagnose/signature';
import type { MachineKind } from '@/core/machine/kinds';
import type { MachineModel, PathParameters } from '@/core/path/machine-path';

/** What a closing left behind. */
export interface Ending {
  /** The complaint is still there to be felt. */
  readonly felt: boolean;
  /** A fault that no longer can be felt, but was of the complaint. */
  readonly root: boolean;
  /** Dust still gets past, or gas. */
  readonly silent: boolean;
}

/** A fault that is really there, as far as whoever walks the case is judged by it. */
export interface Hidden {
  readonly kind: FaultKind;
  readonly position: number;
}

/** A machine with hidden faults, whatever world it was made in: what may be known of it, and what comes of touching it. */
export interface WalkCase {
  readonly seed: number;
  readonly kind: MachineKind;
  readonly known: {
    readonly model: MachineModel;
    readonly parameters: PathParameters;
    readonly calibrated: boolean;
    readonly baselines: Readonly<Record<string, number>>;
  };
  readonly faults: readonly Hidden[];
  readonly traits: MachineTraits;
  readonly hazard: HazardLevel;
  readonly complaint: Complaint;
  readonly record: MachineRecord;
  /** Driven by compressed air. */
  readonly byAir: boolean;
  readonly watch: (operation: Operation, interventions: Interventions) => Outcome;
  readonly left: (repairs: readonly Repair[]) => readonly Hidden[];
  readonly ending: (repairs: readonly Repair[]) => Ending;
  /** What whoever knows the machine expects at a place, m3/s. */
  readonly soundFlow: (place: 'hoseEnd' | 'inlet') => number;
  /** Minutes' worth of a repair: its time, its exposure, its part. */
  readonly repairMinutes: (repair: Repair) => number;
  /** Whether what a needed repair costs is counted too. */
  readonly countsNeeded: boolean;
}
