import { dayAt } from '@/core/calendar/calendar-date';
import { type ChainLink, compareChain } from '@/core/measure/chain';
import { type Comparison, compareTests, type Differs } from '@/core/measure/compare-tests';
import { inForce, type TestRecord } from '@/core/record/records';
import { isSeries } from '@/core/record/series';
import { type JudgedTest, judgeTest } from '@/core/status/judge-test';
import { couldExplain, type Unlike } from '@/core/upgrade/prove';
import type { Bench } from './bench';
import { unlikeOf } from '../upgrade/upgrade-proof';

export interface Chosen {
  readonly judged: JudgedTest;
  readonly day: string;
  /** The technician's name for it, or its state. */
  readonly name: string;
}

export interface Compared {
  readonly chosen: readonly Chosen[];
  /** First against last. */
  readonly comparison: Comparison | null;
  /** Each step's share of the whole; empty for two tests. */
  readonly chain: readonly ChainLink[];
  /** Other differences, with their effect by the model. */
  readonly unlike: readonly Unlike[];
  /** Something else could account for the difference: nothing is claimed. */
  readonly withheld: boolean;
  /** Differences, states of the bag included. */
  readonly differs: readonly Differs[];
}

const LEAST = 2;
const MOST = 8;

const nameOf = (t: TestRecord): string =>
  t.configuration !== ''
    ? t.configuration
    : t.isBaseline
      ? 'baseline'
      : t.bagState === 'asLeft'
        ? 'as left'
        : 'as found';

/** The tests that can be compared, newest first. */
export const comparableTests = (bench: Bench): readonly TestRecord[] =>
  [...inForce(bench.tests).filter(isSeries)].reverse();

/** Compares chosen tests in the order they were taken: first against last, and each step between. */
export const compareChosen = (bench: Bench, ids: readonly number[]): Compared => {
  const { machine } = bench.status;
  const records = inForce(bench.tests)
    .filter((t) => isSeries(t) && ids.includes(t.id))
    .slice(0, MOST);
  const chosen = records.map((record): Chosen => ({
    judged: judgeTest({ machine, tests: bench.tests, thresholds: bench.yard.site.thresholds, record }),
    day: dayAt(record.performedAt, bench.yard.site.timeZone),
    name: nameOf(record),
  }));
  const [first] = chosen;
  const last = chosen.at(-1);
  if (!first || !last || chosen.length < LEAST)
    return { chosen, comparison: null, chain: [], differs: [], unlike: [], withheld: false };
  const comparison = compareTests({ before: first.judged.reduced, after: last.judged.reduced });
  const [oldest, newest] = [records[0], records.at(-1)];
  const all =
    oldest && newest && first.judged.reduced.measurand === 'flow'
      ? unlikeOf(bench, { before: oldest, after: newest }, { editId: null, stageIds: [] })
      : [];
  // A comparison needs one difference in between; two tests cannot separate several.
  const done = all.filter((u) => u.what === 'stageChanged' || u.what === 'edited');
  const unlike = done.length > 1 ? all : all.filter((u) => !done.includes(u));
  const { relative, expanded } = comparison;
  const half = (expanded ?? 0) / first.judged.reduced.repeats.mean;
  const claims = comparison.outcome === 'more' || comparison.outcome === 'less';
  const withheld =
    claims && relative !== null && couldExplain(unlike, { low: 1 + relative - half, high: 1 + relative + half });
  const chainable =
    chosen.length > LEAST &&
    chosen.every(
      // A test that does not count has no place in a chain.
      (c) =>
        !['notComparable', 'notUsable'].includes(
          compareTests({ before: first.judged.reduced, after: c.judged.reduced }).outcome,
        ),
    );
  const bags = new Set(records.map((r) => r.bagState)).size > 1 && records.every((r) => r.configuration === '');
  return {
    chosen,
    comparison,
    unlike,
    withheld,
    chain: chainable ? compareChain(chosen.map((c) => c.judged.reduced)) : [],
    differs: [...comparison.differs, ...(bags ? (['bagState'] as const) : [])],
  };
};
