import { CLASS_HOSE_VELOCITY } from '../constants/limits';
import type { Place } from './place';
import { decideAtLeast } from './decide';
import type { ReducedTest } from './reduce-test';

export type ClassVerdict =
  | {
      readonly outcome: 'notJudged';
      readonly because: 'noLimit' | 'suction' | 'hoseOff' | 'outlet' | 'noHose' | 'notUsable' | 'biased';
    }
  | { readonly outcome: 'tooFew'; readonly velocityMs: number; readonly limitMs: number }
  | {
      readonly outcome: 'pass' | 'fail' | 'cannotTell';
      readonly velocityMs: number;
      readonly expandedMs: number;
      readonly limitMs: number;
    };

/** Only a flow through the fitted hose says what the air does in it. */
const blockedBy = (place: Place): 'hoseOff' | 'outlet' | null =>
  place === 'inlet' ? 'hoseOff' : place === 'outlet' ? 'outlet' : null;

/**
 * Judges the air velocity in the hose that is really fitted against the M and H class limit of 20 m/s.
 * Source: EN 60335-2-69 Annex AA; guarded acceptance JCGM 106. A flow at the bare inlet or at the outlet is not
 * judged: the first lacks the hose, the second holds the leaks.
 */
export const judgeHoseVelocity = (test: ReducedTest, hasLimit: boolean): ClassVerdict => {
  if (!hasLimit) return { outcome: 'notJudged', because: 'noLimit' };
  if (test.measurand !== 'flow') return { outcome: 'notJudged', because: 'suction' };
  const blocked = blockedBy(test.place);
  if (blocked) return { outcome: 'notJudged', because: blocked };
  if (test.hoseVelocityMs === null) return { outcome: 'notJudged', because: 'noHose' };
  if (!test.usable) return { outcome: 'notJudged', because: 'notUsable' };
  if (test.biased) return { outcome: 'notJudged', because: 'biased' };
  const limitMs = CLASS_HOSE_VELOCITY.value;
  const velocityMs = test.hoseVelocityMs;
  if (test.hoseVelocityExpandedMs === null) return { outcome: 'tooFew', velocityMs, limitMs };
  const outcome = decideAtLeast({ value: velocityMs, expanded: test.hoseVelocityExpandedMs, limit: limitMs });
  return { outcome, velocityMs, expandedMs: test.hoseVelocityExpandedMs, limitMs };
};
