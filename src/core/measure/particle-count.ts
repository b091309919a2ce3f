import binomialCdf from '@stdlib/stats-base-dists-binomial-cdf';
import chiSquareQuantile from '@stdlib/stats-base-dists-chisquare-quantile';
import { CONFIDENCE } from '../constants/limits';

/** Particles counted in a known volume of air. */
export interface Counted {
  /** Whole number, 0 or more. */
  readonly count: number;
  /** Volume drawn through the counter, m3, above 0. */
  readonly volumeM3: number;
}

export interface Interval {
  readonly low: number;
  readonly high: number;
}

const TAIL = (1 - CONFIDENCE.value) / 2;

/**
 * Exact 95 % limits of a Poisson mean from one count. Source: Garwood 1936 (chi-square form); 0 counts still allow 3.69.
 * Valid: whole counts of 0 or more; throws RangeError otherwise.
 */
export const poissonLimits = (count: number): Interval => {
  if (!(Number.isInteger(count) && count >= 0))
    throw new RangeError(`count ${count} is not a whole number of 0 or more`);
  return {
    low: count === 0 ? 0 : chiSquareQuantile(TAIL, 2 * count) / 2,
    high: chiSquareQuantile(1 - TAIL, 2 * count + 2) / 2,
  };
};

export interface ParticleVerdict {
  /** `notShown`: neither above nor below the room can be claimed from these counts. */
  readonly outcome: 'belowRoom' | 'aboveRoom' | 'notShown';
  readonly exhaustPerM3: number;
  readonly roomPerM3: number;
  readonly exhaustLimits: Interval;
  readonly roomLimits: Interval;
  readonly netPerM3: number;
  readonly netLimits: Interval;
  /** Two-sided p of equal rates. */
  readonly p: number;
}

const rateLimits = ({ count, volumeM3 }: Counted): Interval => {
  const limits = poissonLimits(count);
  return { low: limits.low / volumeM3, high: limits.high / volumeM3 };
};

/**
 * Compares the exhaust with the room: rates by exact Poisson limits, their equality by the conditional binomial test,
 * the interval of the net rate from the two sets of limits (MOVER). Source: Garwood 1936; Przyborowski and Wilenski
 * 1940 (conditional test); Zou and Donner 2008 (MOVER). Valid: whole counts, volumes above 0; throws RangeError
 * otherwise.
 */
export const judgeParticles = (input: { readonly exhaust: Counted; readonly room: Counted }): ParticleVerdict => {
  const { exhaust, room } = input;
  if (!(exhaust.volumeM3 > 0 && room.volumeM3 > 0)) throw new RangeError('counted volumes must be above 0 m3');
  const [e, r] = [rateLimits(exhaust), rateLimits(room)];
  const [exhaustPerM3, roomPerM3] = [exhaust.count / exhaust.volumeM3, room.count / room.volumeM3];
  const total = exhaust.count + room.count;
  const share = exhaust.volumeM3 / (exhaust.volumeM3 + room.volumeM3);
  const lower = total === 0 ? 1 : binomialCdf(exhaust.count, total, share);
  const upper = total === 0 || exhaust.count === 0 ? 1 : 1 - binomialCdf(exhaust.count - 1, total, share);
  const p = Math.min(1, 2 * Math.min(lower, upper));
  const netPerM3 = exhaustPerM3 - roomPerM3;
  return {
    outcome: p >= 1 - CONFIDENCE.value ? 'notShown' : lower < upper ? 'belowRoom' : 'aboveRoom',
    exhaustPerM3,
    roomPerM3,
    exhaustLimits: e,
    roomLimits: r,
    netPerM3,
    netLimits: {
      low: netPerM3 - Math.hypot(exhaustPerM3 - e.low, r.high - roomPerM3),
      high: netPerM3 + Math.hypot(e.high - exhaustPerM3, roomPerM3 - r.low),
    },
    p,
  };
};
