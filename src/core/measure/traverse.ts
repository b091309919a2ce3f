import { fail, failure, ok, type Result } from '../failure/failure';
import { mean } from '../numeric/moments';

/** A duct crossed point by point. Lengths in m. */
export type TraversePlan =
  | {
      readonly shape: 'round';
      readonly diameterM: number;
      readonly pointsPerDiameter: 6 | 10;
      readonly diameters: 1 | 2 | 3;
    }
  | {
      readonly shape: 'rectangular';
      readonly widthM: number;
      readonly heightM: number;
      readonly linesAcross: 5 | 6 | 7;
      readonly linesUp: 5 | 6 | 7;
    };

/** Fractions of the diameter from the wall. Source: ISO 3966 / ASHRAE 111, log-linear rule. */
export const LOG_LINEAR: Record<6 | 10, readonly number[]> = {
  6: [0.032, 0.135, 0.321, 0.679, 0.865, 0.968],
  10: [0.019, 0.077, 0.153, 0.217, 0.361, 0.639, 0.783, 0.847, 0.923, 0.981],
};

/** Fractions of the side. Source: ISO 3966, log-Tchebycheff rule. */
export const LOG_TCHEBYCHEFF: Record<5 | 6 | 7, readonly number[]> = {
  5: [0.074, 0.288, 0.5, 0.712, 0.926],
  6: [0.061, 0.235, 0.437, 0.563, 0.765, 0.939],
  7: [0.053, 0.203, 0.366, 0.5, 0.634, 0.797, 0.947],
};

export interface TraversePoint {
  /** Which diameter (0, 1, 2) or which line up the duct. */
  readonly line: number;
  /** Distance from the wall along the line, m. */
  readonly fromWallM: number;
  /** Height of the line above the floor of a rectangular duct, m; 0 for a round one. */
  readonly lineAtM: number;
}

/** The points of one traverse, in the order they are taken. Source: ISO 3966. */
export const traversePoints = (plan: TraversePlan): readonly TraversePoint[] => {
  if (plan.shape === 'round') {
    const fractions = LOG_LINEAR[plan.pointsPerDiameter];
    return Array.from({ length: plan.diameters }, (_, line) =>
      fractions.map((f) => ({ line, fromWallM: f * plan.diameterM, lineAtM: 0 })),
    ).flat();
  }
  const across = LOG_TCHEBYCHEFF[plan.linesAcross];
  return LOG_TCHEBYCHEFF[plan.linesUp].flatMap((up, line) =>
    across.map((f) => ({ line, fromWallM: f * plan.widthM, lineAtM: up * plan.heightM })),
  );
};

/** Cross-section of the duct, m2. Definition: geometry. Throws RangeError unless every length is above 0. Valid: lengths above 0. */
export const traverseAreaM2 = (plan: TraversePlan): number => {
  const area = plan.shape === 'round' ? (Math.PI / 4) * plan.diameterM ** 2 : plan.widthM * plan.heightM;
  const sides = plan.shape === 'round' ? [plan.diameterM] : [plan.widthM, plan.heightM];
  if (!sides.every((s) => s > 0)) throw new RangeError('a duct needs sides above 0 m');
  return area;
};

/** A velocity at a point of the plan: `slot` counts the points of the first traverse, then of the second, and so on. */
export interface SlottedVelocity {
  readonly slot: number;
  readonly velocityMs: number;
}

/**
 * Mean velocity of each whole traverse, m/s: both rules weigh their points alike, and velocities are averaged, never
 * pressures. Source: ISO 3966 9.2 (arithmetic mean of the local velocities).
 * Returns `traverse.incomplete` when a started traverse lacks points, `traverse.repeated-point` when one is there twice.
 */
export const traverseMeansMs = (
  plan: TraversePlan,
  readings: readonly SlottedVelocity[],
): Result<readonly number[]> => {
  const points = traversePoints(plan).length;
  const rounds = new Map<number, SlottedVelocity[]>();
  for (const r of readings) {
    const round = Math.floor(r.slot / points);
    rounds.set(round, [...(rounds.get(round) ?? []), r]);
  }
  const means: number[] = [];
  for (const [round, list] of [...rounds].sort((a, b) => a[0] - b[0])) {
    const slots = new Set(list.map((r) => r.slot));
    if (slots.size !== list.length)
      return fail(failure('traverse.repeated-point', 'readings', { traverse: round + 1 }));
    if (slots.size < points)
      return fail(failure('traverse.incomplete', 'readings', { traverse: round + 1, have: slots.size, points }));
    means.push(mean(list.map((r) => r.velocityMs)));
  }
  return means.length > 0 ? ok(means) : fail(failure('readings.none', 'readings'));
};
