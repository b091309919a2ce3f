import type { Failure } from '@/core/failure/failure';
import type { Machine } from '@/core/machine/machine';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { type Question, questionReading } from '@/core/machine/plausible';
import { type BaselineVerdict, judgeAgainstBaseline, type LossThresholds } from '@/core/measure/judge-baseline';
import { type ClassVerdict, judgeHoseVelocity } from '@/core/measure/judge-class';
import { METHODS, type Precondition } from '@/core/measure/methods';
import { type Reduced, reduceAny } from '@/core/measure/reduce-any';
import { type ReducedTest, reduceTest } from '@/core/measure/reduce-test';
import { parseReading, parseTestEntry, parseWheel } from '@/core/measure/test-entry';
import type { Instrument, TestRecord, TestUse } from '@/core/record/records';
import { type Finding, findingsOf } from '@/core/status/findings';
import { pickBaseline } from '@/core/status/machine-status';
import { readingsOf } from './pads';
import { type MeasureState, orNull, toEntry } from './state';

export interface LiveInput {
  readonly state: MeasureState;
  readonly machine: Machine;
  readonly wanted: readonly Precondition[];
  readonly instruments: readonly Instrument[];
  /** Standing tests that may serve as baseline or as the test before, oldest first. */
  readonly tests: readonly TestRecord[];
  readonly altitudeM: number;
  readonly thresholds: LossThresholds;
  /** The record under correction is no baseline for itself. */
  readonly excludeId: number | null;
}

export interface Judged {
  readonly reduced: ReducedTest;
  readonly baseline: BaselineVerdict;
  readonly baselineRecord: TestRecord | null;
  readonly hose: ClassVerdict;
  readonly findings: readonly Finding[];
  readonly question: Question | null;
}

export type Live =
  | { readonly form: 'nothing'; readonly failures: readonly Failure[] }
  | { readonly form: 'series'; readonly judged: Judged }
  | { readonly form: 'other'; readonly reduced: Exclude<Reduced, { form: 'series' }> };

const reducedOf = (record: TestRecord | null): ReducedTest | null => {
  const result = record ? reduceTest(record.test) : null;
  return result?.ok ? result.value : null;
};

const useOf = (state: MeasureState): TestUse => {
  const typed = orNull(state.wheel);
  const wheel = typed ? parseWheel(typed) : null;
  return { wheelM: wheel?.ok ? wheel.value : null, ductLoad: state.ductLoad };
};

const judge = (input: LiveInput, reduced: ReducedTest): Judged => {
  const { state, machine, tests, excludeId } = input;
  const { place, method } = state;
  const baselineRecord = pickBaseline(tests, { place, method, excludeId, stageId: reduced.stageId });
  const baseline = reducedOf(baselineRecord);
  const verdict = judgeAgainstBaseline({ now: reduced, baseline, thresholds: input.thresholds });
  const hose = judgeHoseVelocity(reduced, MACHINE_KINDS[machine.kind].hoseVelocityLimit);
  const earlier = tests.findLast((t) => !t.isBaseline && t.id !== excludeId && t.test.place === place && t.test.method === method) ?? null;
  const before = reducedOf(earlier);
  const previous = before && earlier ? { reduced: before, day: earlier.performedAt.slice(0, 10) } : null;
  const questions = reduced.values.flatMap((valueSi) => questionReading({ kind: machine.kind, measurand: reduced.measurand, valueSi }) ?? []);
  return {
    reduced,
    baseline: verdict,
    baselineRecord,
    hose,
    findings: findingsOf({ now: reduced, machine, use: useOf(state), baseline, baselineVerdict: verdict, hose, previous }),
    question: questions[0] ?? null,
  };
};

/** What was typed so far says, by the same functions that judge the record later. */
export const liveResult = (input: LiveInput): Live => {
  const { state } = input;
  if (METHODS[state.method].form !== 'word' && readingsOf(state).length === 0) return { form: 'nothing', failures: [] };
  const instrument = input.instruments.find((i) => i.id === state.instrumentId) ?? null;
  // The ticks decide whether the record is used; while typing, the verdict is shown as it will be once they are set.
  const parsed = parseTestEntry({ ...toEntry(state, input.wanted), failedPreconditions: [] }, { altitudeM: input.altitudeM, instrument });
  if (!parsed.ok) return { form: 'nothing', failures: parsed.failures };
  const result = reduceAny(parsed.value.test);
  if (!result.ok) return { form: 'nothing', failures: result.failures };
  return result.value.form === 'series'
    ? { form: 'series', judged: judge(input, result.value.series) }
    : { form: 'other', reduced: result.value };
};

/** What is wrong with the reading in the pad, before it is entered; empty when it may be. */
export const padFailures = (state: MeasureState): readonly Failure[] => {
  const entry = { typed: state.pad, unit: state.units[state.method], slot: 0, how: 'typed' as const, struckBecause: null };
  // The strongest air there is, at sea level on a good day: the record itself is held to the barometer of the day.
  const result = parseReading(entry, { method: state.method, barometricPa: 101_325 });
  return result.ok ? [] : result.failures;
};
