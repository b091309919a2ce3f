import type { Failure } from '@/core/failure/failure';
import type { MeasuredMachine } from '@/core/machine/machine';
import { type Question, questionReading } from '@/core/machine/plausible';
import type { LossThresholds } from '@/core/measure/judge-baseline';
import { METHODS, type Precondition } from '@/core/measure/methods';
import { type Reduced, reduceAny } from '@/core/measure/reduce-any';
import type { ReducedTest } from '@/core/measure/reduce-test';
import { parseTestEntry, parseWheel } from '@/core/measure/test-entry';
import type { Instrument, TestRecord, TestUse } from '@/core/record/records';
import { type JudgedSeries, judgeSeries } from '@/core/status/judge-test';
import { fromLocalField } from '@/ui/local-moment';
import { readingsOf } from './pads';
import { type MeasureState, orNull, toEntry } from './state';

export interface LiveInput {
  readonly state: MeasureState;
  readonly machine: MeasuredMachine;
  readonly wanted: readonly Precondition[];
  readonly instruments: readonly Instrument[];
  /** Standing tests that may serve as baseline or as the test before, oldest first. */
  readonly tests: readonly TestRecord[];
  readonly altitudeM: number;
  readonly thresholds: LossThresholds;
  /** The record under correction is no baseline for itself. */
  readonly excludeId: number | null;
}

export interface Judged extends JudgedSeries {
  readonly question: Question | null;
}

export type Live =
  | { readonly form: 'nothing'; readonly failures: readonly Failure[] }
  | { readonly form: 'series'; readonly judged: Judged }
  | { readonly form: 'other'; readonly reduced: Exclude<Reduced, { form: 'series' }> };

const testUse = (state: MeasureState): TestUse => {
  const typed = orNull(state.wheel);
  const wheel = typed ? parseWheel(typed) : null;
  return { wheelM: wheel?.ok ? wheel.value : null, ductLoad: state.ductLoad };
};

/** A test without a moment of its own is done now: later than anything on record. */
const NOW = '9999';

const judge = (
  input: LiveInput,
  { test, reduced }: { readonly test: TestRecord['test']; readonly reduced: ReducedTest },
): Judged => {
  const { state, machine, tests, thresholds, excludeId } = input;
  const at = { id: excludeId, performedAt: fromLocalField(state.when) ?? NOW, test };
  const questions = reduced.values.flatMap(
    (valueSi) => questionReading({ kind: machine.kind, measurand: reduced.measurand, valueSi }) ?? [],
  );
  return {
    ...judgeSeries({ machine, tests, thresholds, at, reduced, use: testUse(state) }),
    question: questions[0] ?? null,
  };
};

/** The result of the entry so far, by the same functions that judge the record later. */
export const liveResult = (input: LiveInput): Live => {
  const { state } = input;
  if (METHODS[state.method].form !== 'word' && readingsOf(state).length === 0) return { form: 'nothing', failures: [] };
  const instrument = input.instruments.find((i) => i.id === state.instrumentId) ?? null;
  // The ticks decide whether the record is used; while typing, the verdict is shown as it will be once they are set.
  const parsed = parseTestEntry(
    { ...toEntry(state, input.wanted), failedPreconditions: [] },
    { altitudeM: input.altitudeM, instrument },
  );
  if (!parsed.ok) return { form: 'nothing', failures: parsed.failures };
  const result = reduceAny(parsed.value.test);
  if (!result.ok) return { form: 'nothing', failures: result.failures };
  return result.value.form === 'series'
    ? { form: 'series', judged: judge(input, { test: parsed.value.test, reduced: result.value.series }) }
    : { form: 'other', reduced: result.value };
};
