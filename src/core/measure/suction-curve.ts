import { CONFIDENCE } from '../constants/limits';
import { fail, failure, ok, type Result } from '../failure/failure';
import { type LinearFit, leastSquares } from '../numeric/least-squares';
import { studentFactor } from '../numeric/student';

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

/** Which of the falling terms are in the fit; a rising one is left out and its coefficient is 0. */
const SHAPES: readonly (readonly ('b' | 'c')[])[] = [['b', 'c'], ['c'], ['b'], []];

interface Shaped {
  readonly fit: LinearFit;
  readonly terms: readonly ('b' | 'c')[];
  readonly scaleM3s: number;
}

const falling = (points: readonly CurvePoint[], scaleM3s: number): Shaped | null => {
  for (const terms of SHAPES) {
    const rows = points.map(({ flowM3s }) => [
      1,
      ...terms.map((t) => (t === 'b' ? -flowM3s / scaleM3s : -((flowM3s / scaleM3s) ** 2))),
    ]);
    const fit = leastSquares(
      rows,
      points.map((p) => p.suctionPa),
    );
    if (fit?.coefficients.slice(1).every((c) => c >= 0)) return { fit, terms, scaleM3s };
  }
  return null;
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

/** Flow at which p0 Q - b Q^2 - c Q^3 is greatest; Infinity for a curve that does not fall. */
const peakFlowM3s = (p0: number, b: number, c: number): number => {
  if (c > 0) return (-b + Math.sqrt(b * b + 3 * c * p0)) / (3 * c);
  return b > 0 ? p0 / (2 * b) : Number.POSITIVE_INFINITY;
};

/**
 * Fits the machine's suction-against-flow curve to points at several orifices, bounded to falling curves, and finds
 * its peak air power p Q inside the measured range.
 * Source: least squares; air power as in ASTM F558, computed in SI. Valid: three or more points at different flows.
 * Returns `curve.too-few` or `curve.no-fit`.
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
  const free = peakFlowM3s(p0, b, c);
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

/** Air power in W from suction in Pa and flow in m3/s. Source: ASTM F558, in SI. Valid: suction and flow of 0 or more. @example airPowerW({ suctionPa: 12000, flowM3s: 0.03 }) // 360 */
export const airPowerW = ({ suctionPa, flowM3s }: CurvePoint): number => suctionPa * flowM3s;
