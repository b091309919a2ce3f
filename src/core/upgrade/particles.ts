import type { Counted } from '../measure/particle-count';
import { type PenetrationLimits, penetrationLimits } from '../measure/penetration-ratio';
import type { UpgradeChange } from './change';

/** A count in the exhaust with the room's beside it. */
export interface ExhaustCount {
  readonly through: Counted;
  readonly challenge: Counted;
}

export interface ParticleProof {
  readonly before: PenetrationLimits;
  readonly after: PenetrationLimits;
  /** How many times as much of the room's particles gets through afterwards, between its limits. */
  readonly times: { readonly low: number; readonly high: number };
  readonly outcome: 'more' | 'less' | 'cannotTell';
}

/**
 * What two counts in the exhaust say of a change: each as a share of the room's at its time, the ratio of the two between
 * the far ends of their limits (each one-sided at 95 %, so 9 times in 10 and more together). Source: the conditional test
 * of two Poisson rates, as `penetrationLimits`; intervals divided end against end. Valid: as `penetrationLimits`.
 */
export const compareExhaust = (was: ExhaustCount, now: ExhaustCount): ParticleProof => {
  const [before, after] = [penetrationLimits(was), penetrationLimits(now)];
  const times = {
    low: before.high > 0 ? after.low / before.high : Number.POSITIVE_INFINITY,
    high: before.low > 0 ? after.high / before.low : Number.POSITIVE_INFINITY,
  };
  return { before, after, times, outcome: times.low > 1 ? 'more' : times.high < 1 ? 'less' : 'cannotTell' };
};

/** Changes after which what leaves the machine may be another: a filter, or what lies behind it. Source: common practice, no published source. */
export const touchesExhaust = (c: UpgradeChange): boolean =>
  c.kind === 'medium' || c.kind === 'hepa' || c.kind === 'exhaust' || c.kind === 'takeOut';
