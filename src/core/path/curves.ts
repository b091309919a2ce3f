import { fanCurveOf, type MachineModel, type PathParameters, type PathState } from './machine-path';
import { REFERENCE_AIR } from './model/air';
import { type FanCurve, fanCoefficients, fanLiftPa, freeFlowM3s, NOMINAL_DRIVE } from './model/fan';
import { pressureProfile } from './pressure-profile';

export type CurveXY = readonly (readonly [flowM3s: number, liftPa: number])[];

const STEPS = 40;

const withParameters = (curve: FanCurve, { p0Pa, qMaxM3s }: PathParameters): FanCurve =>
  curve.kind === 'points' ? curve : { ...curve, p0Pa, qMaxM3s };

/** The fan's own curve at nominal drive, from sealed (or its first point) to free. Empty for a path without a fan. */
export const fanXY = (model: MachineModel, parameters: PathParameters): CurveXY => {
  const curve = fanCurveOf(model);
  const fan = curve ? fanCoefficients(withParameters(curve, parameters), NOMINAL_DRIVE, REFERENCE_AIR) : null;
  if (!fan?.ok) return [];
  const [low, high] = fan.value.rangeM3s;
  const end = Math.min(high, freeFlowM3s(fan.value));
  return Array.from({ length: STEPS + 1 }, (_, i) => {
    const q = low + ((end - low) * i) / STEPS;
    return [q, Math.max(0, fanLiftPa(fan.value, q))] as const;
  });
};

/**
 * The system curve, pressure against flow: the working points of ever weaker and stronger fans. Source: the system
 * curve of a fan selection (ASHRAE HVAC Systems and Equipment, ch. Fans). Points that cannot be solved are left out.
 */
export const systemXY = (model: MachineModel, parameters: PathParameters, state: PathState): CurveXY =>
  Array.from({ length: STEPS + 1 }, (_, i) => 0.02 + (1.25 * i) / STEPS).flatMap((share) => {
    const p0Pa = Math.min(100_000, parameters.p0Pa * share ** 2);
    const solved = pressureProfile({
      model,
      parameters: { ...parameters, p0Pa, qMaxM3s: parameters.qMaxM3s * share },
      state,
    });
    return solved.ok && solved.value.fanLiftPa <= parameters.p0Pa * 1.02
      ? [[solved.value.fanFlowM3s, solved.value.fanLiftPa] as const]
      : [];
  });
