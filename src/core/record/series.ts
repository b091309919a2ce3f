import { METHODS } from '../measure/methods';
import { inForce, type TestRecord } from './records';

/** Whether a test is repeats of one figure: only those have a baseline, a limit and a trend. */
export const isSeries = (record: TestRecord): boolean => METHODS[record.test.method].form === 'series';

/** The stage a test was read across; null for the whole machine. */
const stageOfTest = ({ test: { detail } }: Pick<TestRecord, 'test'>): number | null =>
  'stageId' in detail ? detail.stageId : null;

interface BaselineWanted {
  readonly place: TestRecord['test']['place'];
  readonly method: TestRecord['test']['method'];
  readonly excludeId: number | null;
  readonly stageId: number | null;
  /** Not newer than this moment; any when it is left out. */
  readonly notAfter?: string;
}

/** The newest standing baseline of one place and method: series of different rigs are never mixed. */
export const pickBaseline = (tests: readonly TestRecord[], wanted: BaselineWanted): TestRecord | null =>
  inForce(tests)
    .filter(
      (t) =>
        t.isBaseline &&
        t.id !== wanted.excludeId &&
        t.test.failedPreconditions.length === 0 &&
        t.test.place === wanted.place &&
        t.test.method === wanted.method &&
        stageOfTest(t) === wanted.stageId &&
        (wanted.notAfter === undefined || t.performedAt <= wanted.notAfter),
    )
    .reduce<TestRecord | null>((best, t) => (best === null || t.performedAt > best.performedAt ? t : best), null);
