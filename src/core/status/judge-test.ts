import { dayAt } from '../calendar/calendar-date';
import { MACHINE_KINDS, type MachineKind } from '../machine/kinds';
import type { MeasuredMachine } from '../machine/machine';
import { type BaselineVerdict, judgeAgainstBaseline, type LossThresholds } from '../measure/judge-baseline';
import { type ClassVerdict, judgeHoseVelocity } from '../measure/judge-class';
import { type ReducedTest, reduceTest } from '../measure/reduce-test';
import { inForce, type TestRecord, type TestUse } from '../record/records';
import { pickBaseline } from '../record/series';
import { type TestFinding, testFindingsOf } from './test-findings';

// The one judge of a series of readings: what the pad shows while it is typed, what the record says later, and what the
// command line answers are decided here and nowhere else.

export interface JudgedSeries {
  readonly reduced: ReducedTest;
  readonly baseline: BaselineVerdict;
  readonly baselineRecord: TestRecord | null;
  readonly hose: ClassVerdict;
  readonly findings: readonly TestFinding[];
}

export interface JudgedTest extends JudgedSeries {
  readonly record: TestRecord;
}

interface Readings {
  readonly now: ReducedTest;
  readonly baseline: ReducedTest | null;
  readonly thresholds: LossThresholds;
  /** Null when the machine kind is unknown; then no class limit is applied. */
  readonly kind: MachineKind | null;
}

/** Reduced readings against a baseline and the limit of the machine's kind. Source: JCGM 106 for both decisions. */
export const judgeReadings = ({
  now,
  baseline,
  thresholds,
  kind,
}: Readings): { readonly baseline: BaselineVerdict; readonly hose: ClassVerdict } => ({
  baseline: judgeAgainstBaseline({ now, baseline, thresholds }),
  hose: judgeHoseVelocity(now, kind !== null && MACHINE_KINDS[kind].hoseVelocityLimit),
});

const reduced = (record: TestRecord): ReducedTest => {
  const result = reduceTest(record.test);
  // A record was reduced once before it was stored; that it no longer can be is a bug, not a typing slip.
  if (!result.ok) throw new Error(`test ${record.id} cannot be reduced: ${result.failures.map((f) => f.code).join()}`);
  return result.value;
};

/** Read at one tool of a Y, the flow is that branch's: the main hose carries the others' too, and its speed is not known. */
const onBranch = (
  machine: Pick<MeasuredMachine, 'stages'>,
  { place, reduced: whole }: { readonly place: TestRecord['test']['place']; readonly reduced: ReducedTest },
): ReducedTest =>
  place === 'toolEnd' && machine.stages.some((s) => s.kind === 'wye')
    ? { ...whole, hoseVelocityMs: null, hoseVelocityExpandedMs: null }
    : whole;

const recordOn = (machine: MeasuredMachine, record: TestRecord): ReducedTest =>
  onBranch(machine, { place: record.test.place, reduced: reduced(record) });

/** A series among the others: its reading and its time; a series that is being typed has no id yet. */
export interface SeriesAt {
  readonly id: number | null;
  readonly performedAt: string;
  readonly test: Pick<TestRecord['test'], 'place' | 'method' | 'detail'>;
}

const sameSeries = (a: Pick<TestRecord, 'test'> | SeriesAt, b: SeriesAt): boolean =>
  a.test.place === b.test.place &&
  a.test.method === b.test.method &&
  ('stageId' in a.test.detail ? a.test.detail.stageId : null) ===
    ('stageId' in b.test.detail ? b.test.detail.stageId : null);

/** The newest usable test of the same place, method and stage before another; null when it is the first. */
export const previousOf = (at: SeriesAt, tests: readonly TestRecord[]): TestRecord | null =>
  inForce(tests).reduce<TestRecord | null>((best, t) => {
    const counts =
      t.id !== at.id && t.performedAt < at.performedAt && sameSeries(t, at) && t.test.failedPreconditions.length === 0;
    return counts && (best === null || t.performedAt > best.performedAt) ? t : best;
  }, null);

interface SeriesInput {
  readonly machine: MeasuredMachine;
  readonly tests: readonly TestRecord[];
  readonly thresholds: LossThresholds;
  readonly at: SeriesAt;
  readonly reduced: ReducedTest;
  readonly use: TestUse;
}

/** Judges a series, typed or recorded, against the baseline of its time, the class limit, and its use. */
export const judgeSeries = ({ machine, tests, thresholds, at, reduced: whole, use }: SeriesInput): JudgedSeries => {
  const { place, method, detail } = at.test;
  const baselineRecord = pickBaseline(tests, {
    place,
    method,
    excludeId: at.id,
    notAfter: at.performedAt,
    stageId: 'stageId' in detail ? detail.stageId : null,
  });
  const now = onBranch(machine, { place, reduced: whole });
  const baseline = baselineRecord ? recordOn(machine, baselineRecord) : null;
  const judged = judgeReadings({ now, baseline, thresholds, kind: machine.kind });
  const earlier = previousOf(at, tests);
  const previous = earlier ? { reduced: reduced(earlier), day: dayAt(earlier.performedAt, machine.timeZone) } : null;
  return {
    reduced: now,
    ...judged,
    baselineRecord,
    findings: testFindingsOf({
      now,
      machine,
      use,
      baseline,
      baselineVerdict: judged.baseline,
      hose: judged.hose,
      previous,
    }),
  };
};

/** One recorded series test, judged. */
export const judgeTest = ({
  record,
  ...yard
}: Pick<SeriesInput, 'machine' | 'tests' | 'thresholds'> & { readonly record: TestRecord }): JudgedTest => {
  const judged = judgeSeries({ ...yard, at: record, reduced: reduced(record), use: record.use });
  const first = record.isBaseline && judged.baseline.outcome === 'noBaseline';
  return { record, ...judged, baseline: first ? { outcome: 'isBaseline' } : judged.baseline };
};
