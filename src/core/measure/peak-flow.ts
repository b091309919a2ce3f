/**
 * Flow in m3/s at which the air power of a falling curve, p0 Q - b Q^2 - c Q^3, is greatest. Written so that a small c
 * leaves p0 / 2b, not a difference of two near numbers. Definition: zero of the derivative. Valid: p0 above 0, b and c 0 or
 * more and not both 0.
 */
export const peakFlowM3s = ({
  p0Pa,
  bPaSM3: b,
  cPaS2M6: c,
}: {
  readonly p0Pa: number;
  readonly bPaSM3: number;
  readonly cPaS2M6: number;
}): number => p0Pa / (b + Math.sqrt(b * b + 3 * c * p0Pa));
