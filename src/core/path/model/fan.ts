import { STANDARD_DENSITY } from '../../constants/air';
import { fail, failure, ok, type Result } from '../../failure/failure';
import { peakFlowM3s } from '../../measure/peak-flow';
import type { SuctionCurve } from '../../measure/suction-curve';
import type { PathAir } from './air';

/** Fan pressure against flow, at its nominal speed and 1.2 kg/m3. */
export type FanCurve =
  /** dp = p0 (1 - a x - (1-a) x|x|), x = Q/Qmax; a 0.7 to 1 for a universal motor. */
  | { readonly kind: 'universal'; readonly p0Pa: number; readonly qMaxM3s: number; readonly a: number }
  /** dp = p0 (1 - x^2). */
  | { readonly kind: 'centrifugal'; readonly p0Pa: number; readonly qMaxM3s: number }
  /** Compressed air drives it: lift follows the supply pressure, flow its square root. */
  | { readonly kind: 'pneumatic'; readonly p0Pa: number; readonly qMaxM3s: number; readonly nominalSupplyPa: number }
  /** dp = p0 - b Q - c Q^2 fitted to measured points, used between their flows only. */
  | {
      readonly kind: 'points';
      readonly p0Pa: number;
      readonly bPaSM3: number;
      readonly cPaS2M6: number;
      readonly rangeM3s: readonly [number, number];
    };

/** How the fan is driven now; 1 where nothing is known. */
export interface Drive {
  /** Speed over nominal speed. */
  readonly speedRatio: number;
  /** Gauge pressure of the compressed air, Pa; null for its nominal. */
  readonly supplyPa: number | null;
}

export const NOMINAL_DRIVE: Drive = { speedRatio: 1, supplyPa: null };

/** lift = c0 - c1 Q - c2 Q|Q|, Pa with Q in m3/s. Every curve is one of these. */
export interface FanCoefficients {
  readonly c0: number;
  readonly c1: number;
  readonly c2: number;
  /** Flows between which the curve is known. */
  readonly rangeM3s: readonly [number, number];
}

const ANYWHERE: readonly [number, number] = [0, Number.POSITIVE_INFINITY];

const nominal = (curve: FanCurve): FanCoefficients => {
  if (curve.kind === 'points') return { c0: curve.p0Pa, c1: curve.bPaSM3, c2: curve.cPaS2M6, rangeM3s: curve.rangeM3s };
  const a = curve.kind === 'universal' ? curve.a : curve.kind === 'pneumatic' ? 1 : 0;
  const { p0Pa: p0, qMaxM3s: q } = curve;
  return { c0: p0, c1: (p0 * a) / q, c2: (p0 * (1 - a)) / q ** 2, rangeM3s: ANYWHERE };
};

const wrongFan = (field: string, value: number) => fail(failure('path.fan', field, { value }));

/** Under them it is no fan of a vacuum: a slip of the unit. A Moorwind limit. */
const LEAST_P0_PA = 1;
const LEAST_Q_M3S = 1e-6;

const checkCurve = (curve: FanCurve): Result<true> => {
  if (!(curve.p0Pa >= LEAST_P0_PA && curve.p0Pa <= 101_325)) return wrongFan('p0Pa', curve.p0Pa);
  if (curve.kind === 'points') {
    const falling =
      curve.bPaSM3 >= 0 &&
      curve.cPaS2M6 >= 0 &&
      curve.bPaSM3 + curve.cPaS2M6 > 0 &&
      Number.isFinite(curve.bPaSM3 + curve.cPaS2M6);
    return falling ? ok(true) : fail(failure('path.fan-rises'));
  }
  if (!(curve.qMaxM3s >= LEAST_Q_M3S && curve.qMaxM3s <= 100)) return wrongFan('qMaxM3s', curve.qMaxM3s);
  if (curve.kind === 'universal' && !(curve.a >= 0 && curve.a <= 1)) return wrongFan('a', curve.a);
  if (curve.kind === 'pneumatic' && !(curve.nominalSupplyPa > 0 && curve.nominalSupplyPa <= 2e6))
    return wrongFan('nominalSupplyPa', curve.nominalSupplyPa);
  return ok(true);
};

/**
 * The fan's lift as c0 - c1 Q - c2 Q|Q| under its present drive and air: flow goes with speed, lift with density and
 * speed squared. An air-driven generator scales its lift with the supply pressure and its flow with the root of it.
 * Source: fan laws (AMCA 201; ASHRAE HVAC Systems and Equipment, ch. Fans); the pneumatic rule is a Moorwind default.
 * Valid: speed ratio 0.05 to 2. Returns `path.fan`, `path.fan-rises` or `path.drive`.
 */
export const fanCoefficients = (
  curve: FanCurve,
  { speedRatio, supplyPa }: Drive,
  air: PathAir,
): Result<FanCoefficients> => {
  const checked = checkCurve(curve);
  if (!checked.ok) return checked;
  if (!(speedRatio >= 0.05 && speedRatio <= 2)) return fail(failure('path.drive', 'speedRatio', { value: speedRatio }));
  const supply = curve.kind === 'pneumatic' && supplyPa !== null ? supplyPa / curve.nominalSupplyPa : 1;
  if (!(supply >= 0.02 && supply <= 2)) return fail(failure('path.drive', 'supplyPa', { value: supply }));
  const lift = speedRatio ** 2 * supply * (air.densityKgM3 / STANDARD_DENSITY.value);
  const flow = speedRatio * Math.sqrt(supply);
  const {
    c0,
    c1,
    c2,
    rangeM3s: [low, high],
  } = nominal(curve);
  return ok({
    c0: c0 * lift,
    c1: (c1 * lift) / flow,
    c2: (c2 * lift) / flow ** 2,
    rangeM3s: [low * flow, high * flow],
  });
};

/** Lift in Pa at a flow in m3/s. Source: as `fanCoefficients`. Valid: inside the curve's range. */
export const fanLiftPa = ({ c0, c1, c2 }: FanCoefficients, flowM3s: number): number =>
  c0 - c1 * flowM3s - c2 * flowM3s * Math.abs(flowM3s);

/** Flow at which the lift is gone, m3/s. Source: root of the falling curve. Valid: coefficients from `fanCoefficients`. */
export const freeFlowM3s = ({ c0, c1, c2 }: FanCoefficients): number =>
  (2 * c0) / (c1 + Math.sqrt(c1 * c1 + 4 * c2 * c0));

export interface FanPeak {
  readonly airPowerW: number;
  readonly flowM3s: number;
  readonly liftPa: number;
  /** False where a fitted curve's power still rises at the edge of its points. */
  readonly inside: boolean;
}

/** The most air power of a fan, W, on its curve as driven. Source: ASTM F558's air power, in SI. Valid: coefficients from `fanCoefficients`. */
export const fanPeak = (fan: FanCoefficients): FanPeak => {
  const free = peakFlowM3s({ p0Pa: fan.c0, bPaSM3: fan.c1, cPaS2M6: fan.c2 });
  const [low, high] = fan.rangeM3s;
  const flowM3s = Math.min(high, Math.max(low, free));
  const liftPa = fanLiftPa(fan, flowM3s);
  return { airPowerW: liftPa * flowM3s, flowM3s, liftPa, inside: free >= low && free <= high };
};

/**
 * Speed ratio of a series motor on a fan load from its line voltage.
 * Choice: Moorwind default, a modelling choice: speed goes with the root of the voltage. Valid: volts above 0;
 * throws RangeError otherwise. More than 2 % off nominal, prefer to measure again.
 */
export const speedRatioOfVoltage = ({ volts, nominalVolts }: { volts: number; nominalVolts: number }): number => {
  if (!(volts > 0 && nominalVolts > 0)) throw new RangeError(`voltages ${volts} and ${nominalVolts} V are not above 0`);
  return Math.sqrt(volts / nominalVolts);
};

/** A fan curve from a curve fitted to orifice points. Source: `fitSuctionCurve`. Valid: points taken at the fan itself. */
export const fanOfPoints = (curve: SuctionCurve): FanCurve => ({
  kind: 'points',
  p0Pa: curve.p0Pa,
  bPaSM3: curve.bPaSM3,
  cPaS2M6: curve.cPaS2M6,
  rangeM3s: curve.rangeM3s,
});
