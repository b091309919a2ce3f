/** A smooth threshold: half at `at`, `width` on either side for the change. In the unit of the observed value. */
interface Threshold {
  readonly at: number;
  readonly width: number;
}

const threshold = (at: number, width: number): Threshold => ({ at, width });

/**
 * How likely each word is when something is looked at, felt or heard. Weights and shares of 1, thresholds as ratios to
 * the sound machine. Choice: Moorwind defaults, modelling choices, except where a line says otherwise.
 */
export const INSPECTION_WORDS = {
  /** Flow over the usual flow at which a hand feels some, a normal and a stronger air. A hand cannot feel 10 to 20 % (common practice, no published source). */
  hand: { some: threshold(0.12, 0.036), normal: threshold(0.6, 0.08), strong: threshold(1.25, 0.15) },
  /** Fan flow over the sound one at which it is heard to labour, or to run free. */
  sound: {
    labours: threshold(0.72, 0.08),
    laboursMost: 0.85,
    laboursWhenSlow: 0.15,
    free: threshold(1.1, 0.04),
    freeMost: 0.8,
    normalLeast: 0.08,
    rumbleWithBearings: 6,
    rumbleWithout: 0.02,
  },
  /** A false light is lit this often; without a hose on record nothing is known; the threshold is this wide, as a share of it. */
  lamp: { falseLit: 0.85, unknownHose: 0.5, width: 0.08, wrongSelectorTimes: 1.33 },
  gauge: { width: 0.1 },
  /** Share of the amber and red that a purge frees when the filter is not caked. */
  purge: { frees: 0.9 },
  bag: {
    full: { base: 1.2, bySeverity: 6, without: 0.05 },
    looseDirt: { base: 5, bySeverity: 3, withTear: 1.5, without: 0.03 },
    torn: { base: 3, bySeverity: 4 },
    missing: 60,
  },
  particles: {
    past: { below: 0.6, notShown: 1, above: 6, bySeverity: 4 },
    sound: { below: 7, notShown: 1.6, above: 0.12 },
  },
  cleanSide: { cleanWithFault: 0.3, cleanWithout: 8, own: 1, other: 0.3, without: 0.15, missing: 60, reversed: 40 },
  weight: { heavyBase: 0.4, heavyBySeverity: 0.6, heavyWithout: 0.02, near: 0.8, heavier: 0.25, several: 0.85 },
  settings: { wrong: 5 },
  /** Dirt is left when the nozzle is lifted: from this loss of flow on, by so much of it, and by a blocked nozzle. */
  underNozzle: { without: 0.04, fromLoss: 0.25, byLoss: 0.8, byBlocked: 0.35, most: 0.9 },
  /** A rod or a ball stops in a blocked hose. */
  throughHose: { base: 0.62, bySeverity: 0.35, without: 0.03 },
  smoke: { without: 0.04, seal: 0.6, sealBySeverity: 0.3, seat: 0.1, hole: 0.15, most: 0.93 },
  disc: { goodWithFault: 0.1, goodWithout: 0.95 },
  smell: { spent: 0.85, without: 0.05 },
} as const;
