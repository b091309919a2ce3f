import type { Constant } from '../constants/constant';

export const HOOD_FORMS = ['hood', 'slot'] as const;
export type HoodForm = (typeof HOOD_FORMS)[number];

export const CAPTURE_VELOCITY: Constant = {
  value: 1,
  unit: 'm/s',
  source:
    'ACGIH Industrial Ventilation, capture velocities: 0.5 to 1 m/s (100 to 200 fpm) where dust is let go slowly into nearly still air; the upper end, from memory',
};

/** Where nobody said how far a hood stands from the dust, m: a hand and a half. A Moorwind default. */
export const USUAL_AWAY_M = 0.15;

/**
 * Air a plain hood or a slot wants to draw dust in from a distance, m3/s: Q = V (10 x2 + A) for an opening of area A,
 * Q = 3.7 L V x for a slot of length L; no flange. Falls with the square of the distance, so the hood is moved, not the
 * fan. Source: ACGIH Industrial Ventilation after DallaValle and Silverman, from memory. Valid: diameter or length, and
 * distance above 0 m, distance within 1.5 diameters of a hood; throws RangeError for what is not above 0.
 * @example captureNeedM3s({ form: 'hood', sizeM: 0.1524, awayM: 0.1524, velocityMs: 0.508 }) // 270 cfm
 */
export const captureNeedM3s = ({
  form,
  sizeM,
  awayM,
  velocityMs = CAPTURE_VELOCITY.value,
}: {
  readonly form: HoodForm;
  readonly sizeM: number;
  readonly awayM: number;
  readonly velocityMs?: number;
}): number => {
  if (!(sizeM > 0 && awayM > 0 && velocityMs > 0))
    throw new RangeError(`hood of ${sizeM} m, ${awayM} m away at ${velocityMs} m/s`);
  return form === 'hood'
    ? velocityMs * (10 * awayM ** 2 + (Math.PI * sizeM ** 2) / 4)
    : 3.7 * sizeM * velocityMs * awayM;
};
