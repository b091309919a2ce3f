import { CONFIDENCE } from '../constants/limits';
import { fail, failure, ok, type Result } from '../failure/failure';
import { type LinearFit, leastSquares } from '../numeric/least-squares';
import { studentFactor } from '../numeric/student';
import { peakFlowM3s } from './peak-flow';

/** One point of the machine's own curve: suction behind an orifice and the flow through it. */
export interface CurvePoint {
  readonly flowM3s: number;
  readonly suctionPa: number;
}

export interface SuctionCurve {
  /** suction = p0 - b Q - c Q^2, Pa with Q in m3/s; b and c are never below 0. */
  readonly p0Pa: number;
  readonly bPaSM3: number;
  readonly cPaS2M6: number;
  readonly residualsPa: readonly number[];
  readonly deviationPa: number | null;
  /** The curve is used between these flows only. */
  readonly rangeM3s: readonly [number, number];
  readonly peak: {
    readonly airPowerW: number;
    readonly flowM3s: number;
    readonly suctionPa: number;
    /** Half the 95 % interval of the power; null when the points leave no spread. */
    readonly expandedW: number | null;
    /** False when the power still rises at the edge of the points: the true peak lies outside. */
    readonly inside: boolean;
  };
}

const LEAST_POINTS = 3;
/** Flows nearer than this, 0.01 L/s, are one opening. */
const FLOW_STEP_M3S = 1e-5;

/** The faces of the bounds on which a falling curve can lie: both terms, or one of them at 0. */
const FACES: readonly (readonly ('b' | 'c')[])[] = [['b', 'c'], ['b'], ['c']];

interface Shaped {
  readonly fit: LinearFit;
  readonly terms: readonly ('b' | 'c')[];
  readonly scaleM3s: number;
}

const squares = ({ fit }: Shaped): number => fit.residuals.reduce((sum, r) => sum + r * r, 0);

/** The falling curve of least squares: the sum is convex, so it is the best of the faces' own where they keep the bounds. */
const falling = (points: readonly CurvePoint[], scaleM3s: number): Shaped | null => {
  const kept = FACES.flatMap((terms): readonly Shaped[] => {
    const rows = points.map(({ flowM3s }) => [
      1,
      ...terms.map((t) => (t === 'b' ? -flowM3s / scaleM3s : -((flowM3s / scaleM3s) ** 2))),
    ]);
    const fit = leastSquares(
      rows,
      points.map((p) => p.suctionPa),
    );
    const keeps = fit?.coefficients.slice(1).every((c) => c >= 0) && fit.coefficients.slice(1).some((c) => c > 0);
    return fit && keeps ? [{ fit, terms, scaleM3s }] : [];
  });
  return kept.reduce<Shaped | null>((best, s) => (best && squares(best) <= squares(s) ? best : s), null);
};

const gradient = ({ terms, scaleM3s }: Shaped, flowM3s: number): readonly number[] => {
  const x = flowM3s / scaleM3s;
  return [1, ...terms.map((t) => (t === 'b' ? -x : -(x ** 2)))].map((g) => g * flowM3s);
};

const powerUncertainty = (shaped: Shaped, flowM3s: number, n: number): number | null => {
  const { fit } = shaped;
  if (fit.deviation === null) return null;
  const g = gradient(shaped, flowM3s);
  const variance = g.reduce(
    (sum, gi, i) => sum + g.reduce((s, gj, j) => s + gi * gj * (fit.unscaledCovariance[i]?.[j] ?? 0), 0),
    0,
  );
  const factor = studentFactor({ confidence: CONFIDENCE.value, degreesOfFreedom: n - g.length });
  return factor * fit.deviation * Math.sqrt(Math.max(0, variance));
};

/**
 * Fits the machine's suction-against-flow curve to points at several orifices, bounded to falling curves, and finds
 * its peak air power p Q inside the measured range.
 * Source: least squares under bounds (Lawson and Hanson, Solving Least Squares Problems, ch. 23); air power as in ASTM
 * F558, computed in SI. Valid: three or more points at different flows whose suction falls as the flow grows.
 * Returns `curve.too-few`, or `curve.no-fit` where the suction does not fall.
 */
export const fitSuctionCurve = (points: readonly CurvePoint[]): Result<SuctionCurve> => {
  const flows = points.map((p) => p.flowM3s);
  const [low, high] = [Math.min(...flows), Math.max(...flows)];
  const different = new Set(flows.map((q) => Math.round(q / FLOW_STEP_M3S))).size;
  if (different < LEAST_POINTS)
    return fail(failure('curve.too-few', 'readings', { have: different, need: LEAST_POINTS }));
  const shaped = falling(points, high);
  const p0 = shaped?.fit.coefficients[0] ?? 0;
  if (!shaped || !(p0 > 0)) return fail(failure('curve.no-fit', 'readings'));
  const of = (term: 'b' | 'c') => shaped.fit.coefficients[1 + shaped.terms.indexOf(term)] ?? 0;
  const b = shaped.terms.includes('b') ? of('b') / high : 0;
  const c = shaped.terms.includes('c') ? of('c') / high ** 2 : 0;
  const free = peakFlowM3s({ p0Pa: p0, bPaSM3: b, cPaS2M6: c });
  const flowM3s = Math.min(high, Math.max(low, free));
  const suctionPa = p0 - b * flowM3s - c * flowM3s ** 2;
  return ok({
    p0Pa: p0,
    bPaSM3: b,
    cPaS2M6: c,
    residualsPa: shaped.fit.residuals,
    deviationPa: shaped.fit.deviation,
    rangeM3s: [low, high],
    peak: {
      airPowerW: suctionPa * flowM3s,
      flowM3s,
      suctionPa,
      expandedW: powerUncertainty(shaped, flowM3s, points.length),
      inside: free >= low && free <= high,
    },
  });
};

/** The point that lies furthest beyond what the meter allows, by its place in the list. */
export interface OffCurve {
  readonly point: number;
  readonly residualPa: number;
  readonly allowedPa: number;
}

/**
 * The worst point of a fitted curve that the meter's own doubt does not explain; null when there is none. `allowedPa`
 * is half the meter's 95 % interval at a suction. Source: residuals against the interval, NIST/SEMATECH e-Handbook 4.4.4.
 * Valid: the points the curve was fitted to.
 */
export const offCurve = (
  curve: SuctionCurve,
  points: readonly CurvePoint[],
  allowedPa: (suctionPa: number) => number,
): OffCurve | null =>
  curve.residualsPa.reduce<OffCurve | null>((worst, residualPa, point) => {
    const allowed = allowedPa(points[point]?.suctionPa ?? 0);
    const beyond = Math.abs(residualPa) - allowed;
    return beyond > 0 && beyond > (worst ? Math.abs(worst.residualPa) - worst.allowedPa : 0)
      ? { point, residualPa, allowedPa: allowed }
      : worst;
  }, null);

/** Air power in W from suction in Pa and flow in m3/s. Source: ASTM F558, in SI. Valid: suction and flow of 0 or more. @example airPowerW({ suctionPa: 12000, flowM3s: 0.03 }) // 360 */
export const airPowerW = ({ suctionPa, flowM3s }: CurvePoint): number => suctionPa * flowM3s;
