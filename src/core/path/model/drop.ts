import type { DropOf } from './drop-of';
import { STANDARD_DENSITY } from '../../constants/air';
import { REFERENCE_VISCOSITY } from '../../constants/path';
import type { PathAir } from './air';
import type { Element } from './element';
import { frictionGroup } from './friction';
import { inSeries, waysOf } from './side-by-side';

const PI_4 = Math.PI / 4;
/** A flap is fully open at this flow, m3/s: a ramp keeps the drop a rising function of the flow. */
const CRACK_RAMP = 1e-5;

const quadratic =
  (r1: number, r2: number): DropOf =>
  (flow, out) => {
    const size = Math.abs(flow);
    out.pa = flow * (r1 + r2 * size);
    out.slope = r1 + 2 * r2 * size;
  };

/** R2 of K velocity pressures in an area: K rho / (2 A^2). */
const velocityLoss = (lossK: number, areaM2: number, densityKgM3: number): number =>
  (lossK * densityKgM3) / (2 * areaM2 ** 2);

const roughLine = (
  e: Extract<Element, { kind: 'line' }>,
  roughnessM: number,
  { densityKgM3: rho, viscosityPaS: mu }: PathAir,
): DropOf => {
  const area = PI_4 * e.boreM ** 2;
  const reynoldsPerFlow = (rho * e.boreM) / (mu * area);
  const scale = ((e.lengthM / e.boreM) * mu ** 2) / (2 * rho * e.boreM ** 2);
  const ends = velocityLoss(e.entryK + e.exitK, area, rho);
  const roughTerm = roughnessM / e.boreM / 3.7;
  const group = { value: 0, slope: 0, root: 0 };
  return (flow, out) => {
    const size = Math.abs(flow);
    frictionGroup(reynoldsPerFlow * size, roughTerm, group);
    const drop = scale * group.value + ends * size * size;
    out.pa = flow < 0 ? -drop : drop;
    out.slope = scale * group.slope * reynoldsPerFlow + 2 * ends * size;
  };
};

const flap =
  (crackPa: number, r2: number): DropOf =>
  (flow, out) => {
    const size = Math.abs(flow);
    const open = Math.min(1, size / CRACK_RAMP);
    out.pa = Math.sign(flow) * (crackPa * open + r2 * size * size);
    out.slope = 2 * r2 * size + (open < 1 ? crackPa / CRACK_RAMP : 0);
  };

/**
 * Ways side by side that come to one parabola: like ones share the flow evenly, purely viscous ones add their
 * conductances, purely inertial ones the roots of theirs. Others have no such shortcut.
 */
const likeWays = (ways: readonly (readonly Element[])[], air: PathAir): readonly [number, number] | null => {
  const parabolas = ways.map((way) => parabolaOf({ kind: 'series', parts: way }, air));
  const [first] = parabolas;
  if (!first) return null;
  if (parabolas.every((p) => p?.[0] === first[0] && p[1] === first[1]))
    return [first[0] / ways.length, first[1] / ways.length ** 2];
  if (parabolas.every((p) => p !== null && p[1] === 0 && p[0] > 0))
    return [1 / parabolas.reduce((sum, p) => sum + 1 / (p?.[0] ?? 1), 0), 0];
  if (parabolas.every((p) => p !== null && p[0] === 0 && p[1] > 0))
    return [0, parabolas.reduce((sum, p) => sum + 1 / Math.sqrt(p?.[1] ?? 1), 0) ** -2];
  return null;
};

/** R1 and R2 of an element that is a plain parabola in the given air; null for the others. */
export const parabolaOf = (
  e: Element,
  { densityKgM3: rho, viscosityPaS: mu }: PathAir,
): readonly [r1: number, r2: number] | null => {
  const thick = mu / REFERENCE_VISCOSITY.value;
  switch (e.kind) {
    case 'medium':
      return [((e.k1PaSM + (e.k2PaSMKg * e.dustKg) / e.areaM2) * thick) / e.areaM2, 0];
    case 'fitting':
      return [0, velocityLoss(e.lossK, PI_4 * e.boreM ** 2, rho)];
    case 'cyclone':
      return [0, velocityLoss(e.lossK, e.inletAreaM2, rho)];
    case 'nozzle':
      return [0, velocityLoss(1 / e.coefficient ** 2, e.areaM2, rho)];
    case 'resistance':
      return [e.r1PaSM3 * thick, (e.r2PaS2M6 * rho) / STANDARD_DENSITY.value];
    case 'line': {
      if (e.friction.by !== 'factor') return null;
      const lossK = (e.friction.factor * e.lengthM) / e.boreM + e.entryK + e.exitK;
      return [0, velocityLoss(lossK, PI_4 * e.boreM ** 2, rho)];
    }
    case 'series':
      return e.parts.reduce<readonly [number, number] | null>(
        (sum, part) => {
          const one = parabolaOf(part, { densityKgM3: rho, viscosityPaS: mu });
          return sum && one ? [sum[0] + one[0], sum[1] + one[1]] : null;
        },
        [0, 0],
      );
    case 'parallel':
      return likeWays(e.ways, { densityKgM3: rho, viscosityPaS: mu });
    case 'check':
    case 'fan':
      return null;
  }
};

/**
 * An element's pressure drop as a function of flow, in the given air: media scale with viscosity, inertial losses with
 * density. Source: Darcy-Weisbach and the filter drag model S = S_E + K2 W (EPA Air Pollution Control Cost Manual).
 * Valid: an element that `checkElement` passes; throws for a fan, which lifts and does not drop.
 */
export const dropOf = (e: Element, air: PathAir): DropOf => {
  const parabola = parabolaOf(e, air);
  if (parabola) return quadratic(...parabola);
  switch (e.kind) {
    case 'line':
      return roughLine(e, e.friction.by === 'roughness' ? e.friction.roughnessM : 0, air);
    case 'check':
      return flap(e.crackPa, (e.r2PaS2M6 * air.densityKgM3) / STANDARD_DENSITY.value);
    case 'series':
      return inSeries(e.parts.map((part) => dropOf(part, air)));
    case 'parallel':
      return waysOf(e.ways.map((way) => way.map((inner) => dropOf(inner, air))));
    default:
      throw new Error(`a ${e.kind} has no drop of its own`);
  }
};
