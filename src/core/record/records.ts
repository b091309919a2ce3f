import type { Reading } from '../measure/reading';
import type { CalendarDate } from '../calendar/calendar-date';
import type { Accuracy } from '../measure/accuracy';
import type { DuctLoad } from '../measure/needs-of-use';
import type { TestReadings } from '../measure/test-readings';
import type { QuantityKind } from '../units';

/** Why a stage was changed. */
export const CHANGE_REASONS = ['gauge', 'date', 'count', 'fill', 'damage', 'test', 'precaution'] as const;
export type ChangeReason = (typeof CHANGE_REASONS)[number];

/** A record of work and its place in the chain of corrections. Nothing is ever overwritten. */
export interface WorkRecord {
  readonly id: number;
  readonly machineId: number;
  /** UTC, when the work was done. */
  readonly performedAt: string;
  /** UTC, when it was written down. */
  readonly recordedAt: string;
  readonly by: string;
  readonly note: string;
  readonly supersedesId: number | null;
  readonly supersededById: number | null;
  /** True for a correction that says it never happened. */
  readonly voided: boolean;
  readonly correctionReason: string | null;
}

/** The use that needs the flow. */
export interface TestUse {
  /** Wheel of the hand grinder on this branch, m. */
  readonly wheelM: number | null;
  readonly ductLoad: DuctLoad | null;
}

export const NO_USE: TestUse = { wheelM: null, ductLoad: null };

export interface TestRecord extends WorkRecord {
  readonly readings: readonly Reading[];
  readonly test: TestReadings;
  readonly isBaseline: boolean;
  /** The change this test was taken after; null for a test of its own. */
  readonly afterChangeId: number | null;
  readonly bagState: 'asFound' | 'asLeft';
  /** The fitted configuration in a few words: "canister", "foam out"; '' when not given. */
  readonly configuration: string;
  readonly use: TestUse;
}

export interface ChangeRecord extends WorkRecord {
  readonly performedOn: CalendarDate;
  readonly stageId: number;
  readonly reason: ChangeReason;
  readonly partId: number | null;
  readonly quantity: number;
  readonly beforeTestId: number | null;
  /** The guided job it was made in; null for one that was only written down. */
  readonly jobId: number | null;
  /** Recorded without the steps, on dust that wants them: who did it, and how. */
  readonly how: { readonly by: string; readonly how: string } | null;
}

export interface Instrument {
  readonly id: number;
  readonly name: string;
  readonly reads: QuantityKind;
  readonly accuracy: Accuracy;
  readonly calibrationDueOn: CalendarDate | null;
  readonly certificate: string;
  /** Retired: not offered for new tests; its tests stay. */
  readonly retired: boolean;
}

/** The valid records: not superseded, not voided. */
export const inForce = <T extends WorkRecord>(records: readonly T[]): readonly T[] =>
  records.filter((r) => r.supersededById === null && !r.voided);
