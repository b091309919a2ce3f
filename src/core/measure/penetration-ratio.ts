import betaQuantile from '@stdlib/stats-base-dists-beta-quantile';
import type { Constant } from '../constants/constant';
import { CONFIDENCE } from '../constants/limits';
import { DUST_CLASS_PENETRATION } from '../filter/rating';
import type { Counted } from './particle-count';

/** Penetration of a filter by a particle count. Shares, 0 and up. */
export interface PenetrationLimits {
  readonly ratio: number;
  /** At least so much passes, one-sided 95 %. */
  readonly low: number;
  /** At most so much passes, one-sided 95 %; Infinity where nothing was counted in the challenge. */
  readonly high: number;
  /** The best a count of this length could ever show: its upper limit with nothing through. */
  readonly best: number;
}

const odds = (p: number): number => (p >= 1 ? Number.POSITIVE_INFINITY : p / (1 - p));

/**
 * Confidence limits of the ratio of two Poisson rates, particles through over particles in the challenge: given the
 * sum, the count through is binomial; its Clopper-Pearson limits are turned back into the ratio. Each limit is
 * one-sided at 95 %. Source: Przyborowski and Wilenski 1940 (conditional test); Clopper and Pearson 1934. With nothing
 * through, the upper limit is about 3.0/N of equal samples. Valid: whole counts of 0 or more, volumes above 0; throws
 * RangeError otherwise.
 * @example penetrationLimits({ through: { count: 0, volumeM3: 1 }, challenge: { count: 900, volumeM3: 1 } }).high //
 * 0.00333
 */
export const penetrationLimits = ({
  through,
  challenge,
}: {
  readonly through: Counted;
  readonly challenge: Counted;
}): PenetrationLimits => {
  for (const { count, volumeM3 } of [through, challenge]) {
    if (!(Number.isInteger(count) && count >= 0))
      throw new RangeError(`count ${count} is not a whole number of 0 or more`);
    if (!(volumeM3 > 0)) throw new RangeError(`counted volume ${volumeM3} m3 is not above 0`);
  }
  const perVolume = challenge.volumeM3 / through.volumeM3;
  const [n, big] = [through.count, challenge.count];
  const upper = (k: number): number =>
    big === 0 ? Number.POSITIVE_INFINITY : odds(betaQuantile(CONFIDENCE.value, k + 1, big)) * perVolume;
  return {
    ratio: big === 0 ? Number.NaN : (n / big) * perVolume,
    low: n === 0 ? 0 : odds(betaQuantile(1 - CONFIDENCE.value, n, big + 1)) * perVolume,
    high: upper(n),
    best: upper(0),
  };
};

/** The share of room particles in the exhaust, compared with the limit of the loosest class of dust machines. */
export interface RoomCount extends PenetrationLimits {
  /** Penetration allowed for an L class machine; every other class allows less. */
  readonly loosestLimit: number;
  /** More than that is shown to pass. */
  readonly leaks: boolean;
}

/**
 * Judges a count in the exhaust against the room's for any machine: it leaks when its lower limit is above what the
 * loosest class allows; fewer than the room alone clears nothing. Source: limits as `penetrationLimits`; EN/IEC 60335-2-69
 * Annex AA, class L, from memory of the table. Throws as `penetrationLimits`.
 */
export const judgeRoomCount = ({ exhaust, room }: { readonly exhaust: Counted; readonly room: Counted }): RoomCount => {
  const limits = penetrationLimits({ through: exhaust, challenge: room });
  return { ...limits, loosestLimit: DUST_CLASS_PENETRATION.L, leaks: limits.low > DUST_CLASS_PENETRATION.L };
};

/** Most that a screening count may leave open for an H or HEPA filter to count as screened: a gross leak would show. */
export const SCREENING_FIGURE: Constant = {
  value: 0.005,
  unit: '1',
  source: 'Moorwind default, a modelling choice: room air is a weak challenge, so a count screens and does not prove',
};

export interface ScreeningVerdict extends PenetrationLimits {
  /**
   * `fails`: more than the class allows is shown to pass. `screened`: at most the stated figure passes. Else undecided.
   */
  readonly outcome: 'fails' | 'screened' | 'notShown';
  readonly figure: number;
  readonly limit: number;
  /** Whether this count could prove the class limit itself. */
  readonly provesLimit: boolean;
}

/**
 * Judges a count by its limits: it fails a filter when the lower limit is above what the class allows, and screens it
 * when the upper limit is at or below the stated figure. It never proves a class: only a penetration test by a
 * competent person does. Source: limits as `penetrationLimits`; class limits EN/IEC 60335-2-69 Annex AA; guarded by
 * JCGM 106.
 */
export const judgeScreening = (
  counted: { readonly through: Counted; readonly challenge: Counted },
  { limit, figure = SCREENING_FIGURE.value }: { readonly limit: number; readonly figure?: number },
): ScreeningVerdict => {
  const limits = penetrationLimits(counted);
  const stated = Math.max(figure, limit);
  const outcome = limits.low > limit ? 'fails' : limits.high <= stated ? 'screened' : 'notShown';
  return { ...limits, outcome, figure: stated, limit, provesLimit: limits.high <= limit };
};
