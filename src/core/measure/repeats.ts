import { CONFIDENCE, VERDICT_REPEATS } from '../constants/limits';
import { mean, sampleDeviation } from '../numeric/moments';
import { studentFactor } from '../numeric/student';

export interface RepeatsInput {
  /** Readings of one set-up, all in the same SI unit; one or more. */
  readonly values: readonly number[];
  /** One step of the display in the same unit: replaces a spread of exactly zero. */
  readonly resolution: number;
  /** Standard uncertainty of the instrument in the same unit; null when nothing is known of it. */
  readonly instrumentUncertainty: number | null;
  /** Standard uncertainty of the rig (bore, profile, plate), same unit; 0 for a method without one. */
  readonly rigUncertainty?: number;
}

/** One interval of a mean, with the way it came about. Everything in the readings' unit. */
export interface Repeats {
  readonly n: number;
  readonly mean: number;
  /** null under two readings. */
  readonly deviation: number | null;
  /** Standard uncertainty of the mean from the repeats alone; null under two readings. */
  readonly repeatUncertainty: number | null;
  readonly instrumentUncertainty: number | null;
  readonly rigUncertainty: number;
  readonly standardUncertainty: number | null;
  readonly degreesOfFreedom: number | null;
  readonly studentFactor: number | null;
  /** Half the 95 % interval; null under three readings, where no verdict is given. */
  readonly expanded: number | null;
  /** True when all readings were the same and the display's step was used in place of the spread. */
  readonly displayLimited: boolean;
}

const meanOnly = (input: RepeatsInput): Repeats => ({
  n: input.values.length,
  mean: mean(input.values),
  deviation: input.values.length >= 2 ? sampleDeviation(input.values) : null,
  repeatUncertainty: null,
  instrumentUncertainty: input.instrumentUncertainty,
  rigUncertainty: input.rigUncertainty ?? 0,
  standardUncertainty: null,
  degreesOfFreedom: null,
  studentFactor: null,
  expanded: null,
  displayLimited: false,
});

/**
 * Mean, spread and 95 % interval of repeats: u = sqrt(s^2/n + u_instrument^2 + u_rig^2), expanded with Student's factor at
 * the Welch-Satterthwaite degrees of freedom, those of instrument and rig taken as infinite.
 * Source: GUM (JCGM 100:2008) 4.2.3, G.4 eq. G.2b. Identical readings: resolution/sqrt 12 (GUM F.2.2.1) is added.
 * Valid: one or more finite values, resolution 0 or more. Throws RangeError on an empty list.
 */
export const summariseRepeats = (input: RepeatsInput): Repeats => {
  const { values, resolution } = input;
  const n = values.length;
  if (n < VERDICT_REPEATS.value) return meanOnly(input);
  const deviation = sampleDeviation(values);
  const m = mean(values);
  const displayLimited = deviation <= Math.abs(m) * 1e-12;
  const repeatUncertainty = displayLimited ? 0 : deviation / Math.sqrt(n);
  const displayUncertainty = displayLimited ? resolution / Math.sqrt(12) : 0;
  const rigUncertainty = input.rigUncertainty ?? 0;
  const u = Math.hypot(repeatUncertainty, displayUncertainty, input.instrumentUncertainty ?? 0, rigUncertainty);
  const degreesOfFreedom =
    repeatUncertainty === 0 ? Number.POSITIVE_INFINITY : ((n - 1) * u ** 4) / repeatUncertainty ** 4;
  const factor = studentFactor({ confidence: CONFIDENCE.value, degreesOfFreedom });
  return {
    n,
    mean: m,
    deviation,
    repeatUncertainty: Math.hypot(repeatUncertainty, displayUncertainty),
    instrumentUncertainty: input.instrumentUncertainty,
    rigUncertainty,
    standardUncertainty: u,
    degreesOfFreedom,
    studentFactor: factor,
    expanded: factor * u,
    displayLimited,
  };
};
