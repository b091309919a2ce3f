import { AIR_ISENTROPIC_EXPONENT } from '../constants/rig';
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

/**
 * Discharge coefficient of a plate in a pipe with corner tappings.
 * Source: Reader-Harris/Gallagher, ISO 5167-2:2003 eq. 4 (L1 = L2 = 0). Valid: pipe 50 mm to 1 m, b 0.1 to 0.75,
 * Reynolds number of the pipe from 5000; throws RangeError outside b and Reynolds number.
 */
export const pipePlateCoefficient = (beta: number, pipeReynolds: number): number => {
  if (!(beta >= 0.1 && beta <= 0.75)) throw new RangeError(`diameter ratio ${beta} is not 0.1 to 0.75`);
  if (!(pipeReynolds >= 5000)) throw new RangeError(`Reynolds number ${pipeReynolds} is below 5000`);
  const a = ((19_000 * beta) / pipeReynolds) ** 0.8;
  return (
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
 * Volume flow through a plate with the coefficient that belongs to it: the given one from the free room; in a pipe
 * that of ISO 5167-2 eq. 4 at the flow's own Reynolds number, where eq. 4 holds. Viscosity in Pa s.
 * Source, validity and errors as `orificeFlowM3s` and `pipePlateCoefficient`.
 * Valid: as `orificeFlowM3s`.
 */
export const plateFlowM3s = (state: OrificeState, viscosityPaS: number): number => {
  const { pipeM } = state;
  const beta = diameterRatio(state);
  if (pipeM === null || !(beta >= 0.1 && beta <= 0.75)) return orificeFlowM3s(state);
  let { coefficient } = state;
  for (let i = 0; i < ROUNDS; i += 1) {
    const flow = orificeFlowM3s({ ...state, coefficient });
    const reynolds = (4 * flow * state.densityKgM3) / (Math.PI * pipeM * viscosityPaS);
    if (!(reynolds >= 5000)) return orificeFlowM3s(state);
    coefficient = pipePlateCoefficient(beta, reynolds);
  }
  return orificeFlowM3s({ ...state, coefficient });
};
