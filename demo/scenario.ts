import type { WearRule } from '@/core/interval/rules';
import type { DustStatement } from '@/core/dust/assess';
import type { MachineClass } from '@/core/machine/machine';
import type { MachineKind } from '@/core/machine/kinds';
import type { Method } from '@/core/measure/methods';
import type { DuctLoad } from '@/core/measure/needs-of-use';
import type { Place } from '@/core/measure/place';
import type { StageKind } from '@/core/path/stage-kinds';
import type { StageSpec as Recorded } from '@/core/path/stage-spec';
import type { ChangeReason } from '@/core/record/records';

/** The life of a stage: its usual interval, the days since its last change, and the flow it takes when full. */
export interface StageLife {
  readonly everyDays: number;
  readonly lastDaysAgo: number;
  /** Share of the clean flow lost at the end of its interval. */
  readonly share: number;
  readonly reason: ChangeReason;
}

export interface StageSpec {
  readonly kind: StageKind;
  readonly name: string;
  readonly part?: string;
  readonly missing?: boolean;
  readonly doNotRemove?: boolean;
  readonly days?: number;
  readonly countOf?: { readonly stage: string; readonly count: number };
  readonly school?: string;
  /** The whole machine is examined by its rule, which is on the fan. */
  readonly examined?: true;
  /** A limit of wear beside the calendar. */
  readonly wear?: WearRule;
  /** Looks at its fill: days ago, share of the container. */
  readonly looks?: readonly (readonly [daysAgo: number, share: number])[];
  readonly life?: StageLife;
  /** Facts of the yard that replace the defaults of the kind. */
  readonly knows?: (base: Recorded) => Recorded;
}

/** The true state of a machine; the scale of its path follows from its clean reading. */
export interface Truth {
  readonly p0Pa: number;
  readonly qMaxM3s: number;
  readonly leakM2: number;
  readonly pathScale?: number;
  /** Holes of its suction curve, mm. */
  readonly holesMm: readonly number[];
  /** Stages read across at the baseline, by name. */
  readonly across: readonly string[];
  /** When the baselines were taken; its first day where this is left out. */
  readonly daysAgo?: number;
}

/** How a machine is measured at the yard, and what its clean reading is in the unit of the meter. */
export interface RigSpec {
  readonly method: Method;
  readonly place: Place;
  readonly unit: string;
  readonly clean: number;
  readonly instrument: string;
  readonly boreM?: number;
  readonly profileFactor?: number;
  /** Relative noise of one reading. */
  readonly noise: number;
}

/** A reading that the story needs: so many days ago, at this share of the clean one. */
export interface StoryTest {
  readonly daysAgo: number;
  readonly factor: number;
  readonly noise?: number;
  readonly repeats?: number;
  readonly note: string;
  readonly volts?: number;
  readonly configuration?: string;
  readonly state?: 'asFound' | 'asLeft';
}

export interface MachineSpec {
  readonly ductLoad?: DuctLoad;
  readonly tag: string;
  readonly name: string;
  readonly kind: MachineKind;
  readonly maker: string;
  readonly place: string;
  readonly machineClass: MachineClass | null;
  readonly lastCollected: string;
  /** Answers given, or a level lowered, with the statement. */
  readonly dust?: Partial<DustStatement>;
  /** Days ago of its last examination, and what was found. */
  readonly examined?: { readonly daysAgo: number; readonly found: string };
  readonly hasBrush?: boolean;
  readonly hoseBoreM: number | null;
  readonly hoseLengthM: number | null;
  readonly hoseSelectorM?: number;
  readonly inServiceDaysAgo: number;
  readonly stages: readonly StageSpec[];
  /** Run hours a worked day, on record for so many days; a new dust since so many days ago. */
  readonly used?: {
    readonly hoursADay: number;
    readonly days: number;
    readonly newDust?: { readonly daysAgo: number; readonly before: string; readonly times: number };
  };
  readonly rig: RigSpec | null;
  readonly truth?: Truth;
  readonly story: readonly StoryTest[];
}

export interface PartSpec {
  readonly code: string;
  readonly name: string;
  readonly packSize: number;
  readonly bin: string;
  /** Pieces on the shelf today. */
  readonly today: number;
  readonly price: number;
  readonly leadDays: number;
  readonly shelfDays?: number;
}
