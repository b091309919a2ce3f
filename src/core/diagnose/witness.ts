import type { Operation } from './operation';

/**
 * The source of a test's outcome. Readings of one meter or one hand on one day share a bias: three flows are not three
 * independent witnesses.
 */
export const WITNESSES = ['meter', 'gauge', 'hand'] as const;
export type Witness = (typeof WITNESSES)[number];

/** How far a meter with its rig, a pressure gauge, or a hand, is off for a whole day: one standard deviation, as a share. Moorwind defaults, modelling choices. */
export const BIAS: Record<Witness, number> = { meter: 0.035, gauge: 0.025, hand: 0.18 };

/** A normal bias in three steps with the weights of each. Source: Gauss-Hermite quadrature of three nodes (Abramowitz and Stegun, 25.4.46): 0 and the root of 3 deviations, weights 2/3 and 1/6. */
export const BIAS_STEPS = [-Math.sqrt(3), 0, Math.sqrt(3)] as const;
export const BIAS_WEIGHTS = [1 / 6, 2 / 3, 1 / 6] as const;

/**
 * The witness of a test's outcome; null for an independent one. Source: common practice, no published source. Valid:
 * every test.
 */
export const witnessOf = ({ kind }: Operation): Witness | null =>
  kind === 'flow' || kind === 'takeOut' || kind === 'swap'
    ? 'meter'
    : kind === 'sealed'
      ? 'gauge'
      : kind === 'hand'
        ? 'hand'
        : null;
