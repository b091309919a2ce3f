import { inForce, type TestRecord } from '@/core/record/records';
import { isSeries } from '@/core/record/series';
import type { Bench } from '@/server/services/measuring/bench';

/** How many of the newest tests go to the bench besides the baselines: enough for "the test before" of any rig in use. */
const RECENT = 30;

/** The standing, usable series tests that a new one may be judged against, oldest first. */
export const comparable = ({ tests }: Bench): readonly TestRecord[] => {
  const usable = inForce(tests).filter((t) => isSeries(t) && t.test.failedPreconditions.length === 0);
  return usable.filter((t, i) => t.isBaseline || i >= usable.length - RECENT);
};
