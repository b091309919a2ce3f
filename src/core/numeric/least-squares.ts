import { inverse } from './matrix';

/** A least-squares fit of y on the columns of a small design matrix. */
export interface LinearFit {
  readonly coefficients: readonly number[];
  readonly residuals: readonly number[];
  /** Residual standard deviation, n - k degrees of freedom; null when n = k. */
  readonly deviation: number | null;
  /** (X'X)^-1, to be multiplied by the residual variance. */
  readonly unscaledCovariance: readonly (readonly number[])[];
}

const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, v, i) => sum + v * (b[i] ?? 0), 0);

/**
 * Ordinary least squares by the normal equations; columns should be scaled near 1 by the caller.
 * Source: NIST/SEMATECH e-Handbook 4.4.3.1. Valid: n >= k, columns independent. Returns null when they are not.
 */
export const leastSquares = (rows: readonly (readonly number[])[], y: readonly number[]): LinearFit | null => {
  const k = rows[0]?.length ?? 0;
  if (rows.length < k || rows.length !== y.length || k === 0) return null;
  const column = (j: number) => rows.map((r) => r[j] ?? 0);
  const normal = Array.from({ length: k }, (_, i) =>
    Array.from({ length: k }, (_unused, j) => dot(column(i), column(j))),
  );
  const covariance = inverse(normal);
  if (!covariance) return null;
  const moment = Array.from({ length: k }, (_, j) => dot(column(j), y));
  const coefficients = covariance.map((row) => dot(row, moment));
  const residuals = rows.map((row, i) => (y[i] ?? 0) - dot(row, coefficients));
  const degrees = rows.length - k;
  return {
    coefficients,
    residuals,
    deviation: degrees > 0 ? Math.sqrt(dot(residuals, residuals) / degrees) : null,
    unscaledCovariance: covariance,
  };
};
