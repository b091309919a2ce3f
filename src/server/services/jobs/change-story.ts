import type { StageDue } from '@/core/interval/due';
import { type Comparison, compareTests } from '@/core/measure/compare-tests';
import { type ChangeRecord, inForce, type TestRecord, type WorkRecord } from '@/core/record/records';
import { isSeries } from '@/core/record/series';
import { type JudgedTest, judgeTest } from '@/core/status/judge-test';
import { dueOfMachine } from '@/core/forecast/due';
import { outlooksOf } from '@/core/forecast/from-record';
import type { Bench } from '../measuring/bench';
import { forecastRecord } from '../plan/outlooks';

export interface ChangeStory {
  readonly change: ChangeRecord;
  readonly before: JudgedTest | null;
  readonly after: JudgedTest | null;
  readonly comparison: Comparison | null;
  /** The due state of the stage with and without this change. */
  readonly dueNow: StageDue | null;
  readonly dueWithout: StageDue | null;
}

/** Every record in the chain of corrections that a record belongs to. */
const chainOf = <T extends WorkRecord>(records: readonly T[], id: number): readonly T[] => {
  const ids = new Set([id]);
  for (let grown = 0; grown !== ids.size;) {
    grown = ids.size;
    for (const r of records) {
      if (r.supersedesId !== null && (ids.has(r.supersedesId) || ids.has(r.id))) ids.add(r.id).add(r.supersedesId);
    }
  }
  return records.filter((r) => ids.has(r.id));
};

/** The standing record of a chain; null when it was withdrawn. */
const standingOf = <T extends WorkRecord>(records: readonly T[], id: number): T | null =>
  inForce(chainOf(records, id))[0] ?? null;

/** One change with the measurements before and after it, and its effect on the due date. */
export const changeStory = (bench: Bench, changeId: number): ChangeStory | null => {
  const change = bench.changes.find((c) => c.id === changeId);
  if (!change) return null;
  const chain = new Set(chainOf(bench.changes, changeId).map((c) => c.id));
  const { machine } = bench.status;
  const judged = (record: TestRecord | null) =>
    record && isSeries(record)
      ? judgeTest({ machine, tests: bench.tests, thresholds: bench.yard.site.thresholds, record })
      : null;
  const before = judged(change.beforeTestId === null ? null : standingOf(bench.tests, change.beforeTestId));
  const follows = inForce(bench.tests).filter(
    (t) => isSeries(t) && t.afterChangeId !== null && chain.has(t.afterChangeId),
  );
  const after = judged(follows.at(-1) ?? null);
  const { yard, tests } = bench;
  const dueOf = (changes: readonly ChangeRecord[]) => {
    const record = forecastRecord(yard, { machine, tests, changes });
    return dueOfMachine({ ...record, outlooks: outlooksOf(record) }).find((d) => d.stageId === change.stageId) ?? null;
  };
  return {
    change,
    before,
    after,
    comparison: before && after ? compareTests({ before: before.reduced, after: after.reduced }) : null,
    dueNow: bench.status.due.find((d) => d.stageId === change.stageId) ?? null,
    dueWithout: dueOf(bench.changes.filter((c) => !chain.has(c.id))),
  };
};
