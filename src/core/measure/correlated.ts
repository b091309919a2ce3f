import type { Repeats } from './repeats';

/** One side of a comparison. All in the unit of the result. */
export interface Side {
  readonly repeatUncertainty: number;
  /** n - 1, or Infinity where the display's step replaces the spread. */
  readonly repeatDegrees: number;
  readonly instrumentUncertainty: number | null;
  readonly rigUncertainty: number;
}

/** What both sides share, so that its error moves them together. */
export interface Common {
  readonly instrument: boolean;
  readonly rig: boolean;
}

export interface Sensitivities {
  readonly first: number;
  readonly second: number;
}

/**
 * Combined standard uncertainty of c1 x1 + c2 x2. An instrument or rig common to both sides moves them together, so its
 * parts add with their signs; two of them add in quadrature.
 * Source: GUM 5.2.2 eq. 13 (r = 1 or 0), G.4 for the degrees of freedom, the instruments' taken as infinite.
 */
export const combineSides = (input: {
  readonly first: Side;
  readonly second: Side;
  readonly sensitivities: Sensitivities;
  readonly same: Common;
}): { readonly uncertainty: number; readonly degreesOfFreedom: number } => {
  const { first, second, sensitivities: c } = input;
  const repeats = [Math.abs(c.first) * first.repeatUncertainty, Math.abs(c.second) * second.repeatUncertainty] as const;
  const together = (u1: number, u2: number, common: boolean) =>
    common ? Math.abs(c.first * u1 + c.second * u2) : Math.hypot(c.first * u1, c.second * u2);
  const instrument = together(
    first.instrumentUncertainty ?? 0,
    second.instrumentUncertainty ?? 0,
    input.same.instrument,
  );
  const rig = together(first.rigUncertainty, second.rigUncertainty, input.same.rig);
  const uncertainty = Math.hypot(repeats[0], repeats[1], instrument, rig);
  const weight = repeats[0] ** 4 / first.repeatDegrees + repeats[1] ** 4 / second.repeatDegrees;
  return { uncertainty, degreesOfFreedom: weight > 0 ? uncertainty ** 4 / weight : Number.POSITIVE_INFINITY };
};

/** The side of a comparison that repeats make; null under three repeats, where nothing is compared. Source: three repeats at least, a Moorwind default. */
export const sideOf = (repeats: Repeats): Side | null =>
  repeats.expanded === null || repeats.repeatUncertainty === null
    ? null
    : {
        repeatUncertainty: repeats.repeatUncertainty,
        repeatDegrees: repeats.displayLimited ? Number.POSITIVE_INFINITY : repeats.n - 1,
        instrumentUncertainty: repeats.instrumentUncertainty,
        rigUncertainty: repeats.rigUncertainty,
      };
