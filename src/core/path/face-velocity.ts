import { COLLECTOR_PLEAT_ADVICE_MS, MEDIA, type Medium } from '../constants/media';

export interface FaceVelocity {
  readonly velocityMs: number;
  /** Below the first: area to spare. Above the second: short of area. */
  readonly adviceMs: readonly [number, number];
  readonly verdict: 'easy' | 'usual' | 'high';
}

/**
 * Air-to-cloth ratio of a medium with its advice: flow over area, m/s from m3/s and m2.
 * Source: EPA Air Pollution Control Cost Manual, section 6, ch. 1, for collectors; Moorwind defaults for vacuums.
 * Valid: flow 0 or more, area above 0; throws RangeError otherwise.
 */
export const faceVelocity = ({
  flowM3s,
  areaM2,
  medium,
  collector,
}: {
  flowM3s: number;
  areaM2: number;
  medium: Medium;
  collector: boolean;
}): FaceVelocity => {
  if (!(flowM3s >= 0 && areaM2 > 0)) throw new RangeError(`flow ${flowM3s} m3/s through ${areaM2} m2`);
  const velocityMs = flowM3s / areaM2;
  const adviceMs = collector && medium === 'pleatedPolyester' ? COLLECTOR_PLEAT_ADVICE_MS : MEDIA[medium].adviceMs;
  const [low, high] = adviceMs;
  return { velocityMs, adviceMs, verdict: velocityMs < low ? 'easy' : velocityMs <= high ? 'usual' : 'high' };
};
