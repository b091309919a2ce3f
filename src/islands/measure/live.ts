import type { Failure } from '@/core/failure/failure';
import type { Machine } from '@/core/machine/machine';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { type Question, questionReading } from '@/core/machine/plausible';
import { type BaselineVerdict, judgeAgainstBaseline, type LossThresholds } from '@/core/measure/judge-baseline';
import { type ClassVerdict, judgeHoseVelocity } from '@/core/measure/judge-class';
import { type Precondition } from '@/core/measure/methods';
import { type ReducedTest, reduceTest } from '@/core/measure/reduce-test';
import { parseReading, parseTestEntry } from '@/core/measure/test-entry';
import type { Instrument, TestRecord } from '@/core/record/records';
import { pickBaseline } from '@/core/status/machine-status';
import { type MeasureState, readingsOf, toEntry } from './state';

export interface LiveInput {
  readonly state: MeasureState;
  readonly machine: Machine;
  readonly wanted: readonly Precondition[];
  readonly instruments: readonly Instrument[];
  readonly tests: readonly TestRecord[];
  readonly altitudeM: number;
  readonly thresholds: LossThresholds;
  /** The record under correction is no baseline for itself. */
  readonly excludeId: number | null;
}

export interface Live {
  readonly reduced: ReducedTest | null;
  readonly baseline: BaselineVerdict | null;
  readonly baselineRecord: TestRecord | null;
  readonly hose: ClassVerdict | null;
  readonly question: Question | null;
  readonly failures: readonly Failure[];
}

const NOTHING: Live = { reduced: null, baseline: null, baselineRecord: null, hose: null, question: null, failures: [] };

const reducedOf = (record: TestRecord | null): ReducedTest | null => {
  if (!record) return null;
  const result = reduceTest(record.test);
  return result.ok ? result.value : null;
};

/** What the readings typed so far say, by the same functions that judge the record later. */
export const liveResult = (input: LiveInput): Live => {
  const { state, machine } = input;
  if (readingsOf(state).length === 0) return NOTHING;
  const instrument = input.instruments.find((i) => i.id === state.instrumentId) ?? null;
  // The ticks decide whether the record is used; while typing, the verdict is shown as it will be once they are set.
  const parsed = parseTestEntry({ ...toEntry(state, input.wanted), failedPreconditions: [] }, { altitudeM: input.altitudeM, instrument });
  if (!parsed.ok) return { ...NOTHING, failures: parsed.failures };
  const result = reduceTest(parsed.value.test);
  if (!result.ok) return { ...NOTHING, failures: result.failures };
  const reduced = result.value;
  const baselineRecord = pickBaseline(input.tests, { place: state.place, method: state.method, excludeId: input.excludeId });
  const questions = reduced.values.flatMap(
    (valueSi) => questionReading({ kind: machine.kind, measurand: reduced.measurand, valueSi }) ?? [],
  );
  return {
    reduced,
    baseline: judgeAgainstBaseline({ now: reduced, baseline: reducedOf(baselineRecord), thresholds: input.thresholds }),
    baselineRecord,
    hose: judgeHoseVelocity(reduced, MACHINE_KINDS[machine.kind].hoseVelocityLimit),
    question: questions[0] ?? null,
    failures: [],
  };
};

/** What is wrong with the reading in the pad, before it is entered; empty when it may be. */
export const padFailures = (state: MeasureState): readonly Failure[] => {
  const entry = { typed: state.pad, unit: state.units[state.method], struckBecause: null };
  // The strongest air there is, at sea level on a good day: the record itself is held to the barometer of the day.
  const result = parseReading(entry, { method: state.method, barometricPa: 101_325 });
  return result.ok ? [] : result.failures;
};

