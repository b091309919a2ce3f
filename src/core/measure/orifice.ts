import { AIR_ISENTROPIC_EXPONENT, PLATE_COEFFICIENT } from '../constants/rig';
import { fail, failure, ok, type Result } from '../failure/failure';
import { boreAreaM2 } from './bore-flow';

/** A plate and the air before it. Pressures in Pa, absolute upstream; density of the air that enters, kg/m3. */
export interface OrificeState {
  readonly orificeM: number;
  readonly coefficient: number;
  readonly differentialPa: number;
  readonly upstreamPa: number;
  readonly densityKgM3: number;
  /** Inside diameter of the pipe, null for a plate that draws from the free room. */
  readonly pipeM: number | null;
}

/** Diameter ratio; 0 for the free room. Throws RangeError for an orifice as wide as its pipe or wider. Source: ISO 5167-1, beta = d/D. Valid: an orifice smaller than its pipe. */
export const diameterRatio = ({ orificeM, pipeM }: Pick<OrificeState, 'orificeM' | 'pipeM'>): number => {
  if (!(orificeM > 0)) throw new RangeError(`orifice ${orificeM} m is not above 0`);
  if (pipeM === null) return 0;
  if (!(orificeM < pipeM)) throw new RangeError(`orifice ${orificeM} m is not smaller than its pipe ${pipeM} m`);
  return orificeM / pipeM;
};

/**
 * Expansibility factor of a plate: 1 - (0.351 + 0.256 b^4 + 0.93 b^8)(1 - (p2/p1)^(1/k)).
 * Source: ISO 5167-2:2003 eq. 5. Valid: p2/p1 from 0.75 to 1; throws RangeError outside. At 20 kPa from the free room
 * it is 0.949: the incompressible formula reads 5.4 % high.
 */
export const expansibility = (beta: number, pressureRatio: number): number => {
  if (!(pressureRatio >= 0.75 && pressureRatio <= 1))
    throw new RangeError(`pressure ratio ${pressureRatio} is not 0.75 to 1`);
  const shape = 0.351 + 0.256 * beta ** 4 + 0.93 * beta ** 8;
  return 1 - shape * (1 - pressureRatio ** (1 / AIR_ISENTROPIC_EXPONENT.value));
};

/**
 * Volume flow through a plate at the density of the air that enters, m3/s: Q = C e A sqrt(2 dp / rho), with
 * 1/sqrt(1 - b^4) for a plate in a pipe.
 * Source: ISO 5167-2:2003 eq. 1; free room as in the ASTM F558 family. Valid: dp 0 or more and under a quarter of the
 * upstream pressure; throws RangeError otherwise.
 * @example orificeFlowM3s({ orificeM: 0.03, coefficient: 0.61, differentialPa: 5000, upstreamPa: 101325, densityKgM3: 1.2, pipeM: null }) // 0.0389
 */
export const orificeFlowM3s = (state: OrificeState): number => {
  const { differentialPa, upstreamPa, densityKgM3, coefficient } = state;
  if (!(differentialPa >= 0)) throw new RangeError(`differential pressure ${differentialPa} Pa is below 0`);
  const beta = diameterRatio(state);
  const epsilon = expansibility(beta, (upstreamPa - differentialPa) / upstreamPa);
  const approach = 1 / Math.sqrt(1 - beta ** 4);
  return coefficient * approach * epsilon * boreAreaM2(state.orificeM) * Math.sqrt((2 * differentialPa) / densityKgM3);
};

const PIPE_M = { low: 0.05, high: 1 } as const;
/** Diameter ratio; the ends are typed as two lengths, whose ratio may miss them by a rounding. */
const BETA = { low: 0.1 - 1e-9, high: 0.75 + 1e-9 } as const;
const LEAST_HOLE_M = 0.0125;
/** Up to this diameter ratio 5000 is enough; above it the Reynolds number has to grow with its square. */
const MILD_BETA = 0.56;
/** Under this bore the roughness of the edge tells. */
const SMALL_PIPE_M = 0.07112;

/** Whether the equation of `pipePlateCoefficient` is stated for a plate. Source: ISO 5167-2:2003, 5.3.1 (from memory). */
export const equationHolds = ({ orificeM, pipeM }: { readonly orificeM: number; readonly pipeM: number }): boolean => {
  const beta = orificeM / pipeM;
  return (
    orificeM >= LEAST_HOLE_M && pipeM >= PIPE_M.low && pipeM <= PIPE_M.high && beta >= BETA.low && beta <= BETA.high
  );
};

/** Least Reynolds number of the pipe for the equation. Source: ISO 5167-2:2003, 5.3.1, corner tappings (from memory). Valid: a diameter ratio of 0.1 to 0.75. */
export const leastReynolds = (beta: number): number => (beta <= MILD_BETA ? 5000 : 16_000 * beta ** 2);

export interface PipePlate {
  readonly orificeM: number;
  readonly pipeM: number;
  /** Reynolds number of the pipe. */
  readonly reynolds: number;
}

/**
 * Discharge coefficient of a plate in a pipe with corner tappings; a bore under 71.12 mm has its own term,
 * 0.011 (0.75 - b)(2.8 - D/25.4 mm).
 * Source: Reader-Harris/Gallagher, ISO 5167-2:2003 eq. 4 (L1 = L2 = 0). Valid: hole from 12.5 mm, pipe 50 mm to 1 m,
 * b 0.1 to 0.75, Reynolds number of the pipe from 5000, above b = 0.56 from 16000 b^2; throws RangeError outside.
 */
export const pipePlateCoefficient = ({ orificeM, pipeM, reynolds: pipeReynolds }: PipePlate): number => {
  const beta = orificeM / pipeM;
  if (!equationHolds({ orificeM, pipeM }))
    throw new RangeError(`a hole of ${orificeM} m in a pipe of ${pipeM} m is outside the equation`);
  if (!(pipeReynolds >= leastReynolds(beta)))
    throw new RangeError(`Reynolds number ${pipeReynolds} is below ${leastReynolds(beta)}`);
  const a = ((19_000 * beta) / pipeReynolds) ** 0.8;
  const small = pipeM < SMALL_PIPE_M ? 0.011 * (0.75 - beta) * (2.8 - pipeM / 0.0254) : 0;
  return (
    small +
    0.5961 +
    0.0261 * beta ** 2 -
    0.216 * beta ** 8 +
    0.000521 * ((1e6 * beta) / pipeReynolds) ** 0.7 +
    (0.0188 + 0.0063 * a) * beta ** 3.5 * (1e6 / pipeReynolds) ** 0.3
  );
};

/** Rounds of Reynolds number and coefficient: they agree to 1e-6 after three. */
const ROUNDS = 6;

/**
 * Volume flow through a plate with the coefficient that belongs to it: the one that was given; without one that of
 * ISO 5167-2 eq. 4 at the flow's own Reynolds number, for a plate in a pipe. Viscosity in Pa s.
 * Source, validity and errors as `orificeFlowM3s` and `pipePlateCoefficient`.
 * Valid: as `orificeFlowM3s`; without a coefficient as `pipePlateCoefficient`. Returns `orifice.coefficient` where it
 * is not given and the equation does not hold, at no flow `ok(0)`.
 */
export const plateFlowM3s = (
  { coefficient, ...state }: Omit<OrificeState, 'coefficient'> & { readonly coefficient: number | null },
  viscosityPaS: number,
): Result<number> => {
  if (coefficient !== null) return ok(orificeFlowM3s({ ...state, coefficient }));
  const { orificeM, pipeM } = state;
  if (pipeM === null || !equationHolds({ orificeM, pipeM })) return fail(failure('orifice.coefficient', 'detail'));
  if (state.differentialPa === 0) return ok(0);
  const reynoldsOf = (flowM3s: number) => (4 * flowM3s * state.densityKgM3) / (Math.PI * pipeM * viscosityPaS);
  const least = leastReynolds(orificeM / pipeM);
  let flow = orificeFlowM3s({ ...state, coefficient: PLATE_COEFFICIENT.value });
  for (let i = 0; i < ROUNDS; i += 1) {
    const reynolds = Math.max(least, reynoldsOf(flow));
    flow = orificeFlowM3s({ ...state, coefficient: pipePlateCoefficient({ orificeM, pipeM, reynolds }) });
  }
  return reynoldsOf(flow) >= least ? ok(flow) : fail(failure('orifice.coefficient', 'detail'));
};
