import type { PastInterval, StageHistory } from './history';
import { lateBy } from './life-says';
import { LIFE_TUNING, type LifeTuning } from './life-tuning';

/** Found emptier than this, an interval says nothing of its life. */
const LEAST_FOUND = 0.05;
/** With fewer lives no break is detected. */
const LEAST_FOR_BREAK = 4;

/** The logarithm of a finished interval's life, as far as known; null where only a bound is known. */
const lifeOf = (i: PastInterval, { actDays }: StageHistory, t: LifeTuning): number | null => {
  const last = i.marks.findLast((m) => m.kind === 'share');
  if (last && last.share > LEAST_FOUND && last.load > 0.8 * i.load) return Math.log(last.load / last.share);
  if (i.end === 'limit') return Math.log(i.load) - lateBy(i, actDays);
  return i.end === 'early' ? Math.log(i.load / t.earlyShare) : null;
};

/**
 * Marks what lies before a break nobody recorded: where the newest lives stand further from the older ones than lives of
 * one machine do, the older ones are of another regime and are not averaged in. Choice: a modelling choice.
 */
export const withBreaks = (history: StageHistory, t: LifeTuning = LIFE_TUNING): readonly PastInterval[] => {
  const past = history.past.filter((i) => i.load > 0);
  const known = past.flatMap((i, at) => {
    const life = i.beforeRegime ? null : lifeOf(i, history, t);
    return life === null ? [] : [{ life, at }];
  });
  if (known.length < LEAST_FOR_BREAK) return past;
  const newest = known.slice(-2);
  const older = known.slice(0, -2);
  const meanOf = (of: typeof known) => of.reduce((sum, k) => sum + k.life, 0) / of.length;
  const gap = Math.abs(meanOf(newest) - meanOf(older));
  const spread = t.apart * Math.sqrt(1 / newest.length + 1 / older.length);
  const from = newest[0]?.at ?? 0;
  return gap > t.surprise * spread ? past.map((i, at) => (at < from ? { ...i, beforeRegime: true } : i)) : past;
};
