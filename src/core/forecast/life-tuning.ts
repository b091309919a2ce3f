/** Spreads and biases of the life of a stage, as logarithms. Moorwind defaults, tuned on made-up yards. */
export interface LifeTuning {
  /** Spread between intervals of the same machine, and the prior weight of each. */
  readonly spreads: readonly (readonly [spread: number, weight: number])[];
  /** How differently late people are. */
  readonly lateSpread: number;
  /** An early change comes at about this share of the life, so differently. */
  readonly earlyShare: number;
  readonly earlySpread: number;
  /** Chance that it has nothing to do with the life. */
  readonly earlyAnyhow: number;
  /** Spread between the life on a new path and on the old one. */
  readonly regime: number;
  /** Drift from one interval to the next. */
  readonly drift: number;
  /** Chance that an interval is of no account: a bag put in wrong, a date typed wrong. */
  readonly odd: number;
  /**
   * Usual spread of lives of one machine, and the multiple of it that the newest two must differ by to show an
   * unrecorded change of regime.
   */
  readonly apart: number;
  readonly surprise: number;
}

export const LIFE_TUNING: LifeTuning = {
  spreads: [
    [0.13, 0.25],
    [0.22, 0.35],
    [0.36, 0.28],
    [0.6, 0.12],
  ],
  lateSpread: 0.18,
  earlyShare: 0.75,
  earlySpread: 0.35,
  earlyAnyhow: 0.2,
  regime: 0.6,
  drift: 0.05,
  odd: 0.05,
  apart: 0.3,
  surprise: 2.5,
};
