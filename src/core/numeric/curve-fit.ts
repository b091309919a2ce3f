import { inverse } from './matrix';

export interface CurveFitProblem {
  readonly start: readonly number[];
  /** Weighted residuals (already over their standard uncertainty) at the parameters; null where the model has none. */
  readonly residuals: (parameters: readonly number[]) => readonly number[] | null;
  readonly maxSteps?: number;
}

export interface CurveFit {
  readonly parameters: readonly number[];
  readonly residuals: readonly number[];
  readonly sumOfSquares: number;
  /** Covariance of the parameters for residuals of unit variance; null when the data cannot separate them. */
  readonly covariance: readonly (readonly number[])[] | null;
  /** Weighted residual by parameter. */
  readonly jacobian: readonly (readonly number[])[];
  readonly iterations: number;
  readonly converged: boolean;
}

const STEP = 1e-5;
const FLAT = 1e-10;

const square = (r: readonly number[]): number => r.reduce((sum, v) => sum + v * v, 0);

const jacobianAt = (problem: CurveFitProblem, p: readonly number[]): readonly (readonly number[])[] | null => {
  const columns = p.map((_, j) => {
    const nudged = (by: number) => problem.residuals(p.map((v, k) => (k === j ? v + by : v)));
    const [up, down] = [nudged(STEP), nudged(-STEP)];
    return up && down ? up.map((u, i) => (u - (down[i] ?? 0)) / (2 * STEP)) : null;
  });
  if (columns.some((c) => c === null)) return null;
  return (columns[0] ?? []).map((_, i) => columns.map((c) => c?.[i] ?? 0));
};

const normalOf = (jacobian: readonly (readonly number[])[], damping: number): number[][] => {
  const k = jacobian[0]?.length ?? 0;
  return Array.from({ length: k }, (_, a) =>
    Array.from({ length: k }, (_unused, b) => {
      const sum = jacobian.reduce((s, row) => s + (row[a] ?? 0) * (row[b] ?? 0), 0);
      return a === b ? sum * (1 + damping) + 1e-12 : sum;
    }),
  );
};

const stepOf = (
  jacobian: readonly (readonly number[])[],
  residuals: readonly number[],
  damping: number,
): readonly number[] | null => {
  const solved = inverse(normalOf(jacobian, damping));
  if (!solved) return null;
  const gradient = (jacobian[0] ?? []).map((_, j) =>
    jacobian.reduce((s, row, i) => s + (row[j] ?? 0) * (residuals[i] ?? 0), 0),
  );
  return solved.map((row) => -row.reduce((s, v, j) => s + v * (gradient[j] ?? 0), 0));
};

interface State {
  readonly p: readonly number[];
  readonly r: readonly number[];
  readonly damping: number;
}

/** One accepted step, or null when no damping makes the sum smaller. */
const improve = (
  problem: CurveFitProblem,
  { p, r, damping: first }: State,
  jacobian: readonly (readonly number[])[],
): State | null => {
  for (let damping = first; damping < 1e9; damping *= 5) {
    const step = stepOf(jacobian, r, damping);
    const next = step?.map((s, i) => (p[i] ?? 0) + Math.max(-1, Math.min(1, s)));
    const trial = next ? problem.residuals(next) : null;
    if (next && trial && square(trial) < square(r)) return { p: next, r: trial, damping: Math.max(1e-9, damping / 10) };
  }
  return null;
};

/**
 * Weighted least squares of a curved model by Levenberg-Marquardt with central differences; parameters should be of
 * order one (logarithms, say), and a step is held to 1 in each.
 * Source: Marquardt 1963; Press et al., Numerical Recipes, 15.5. Valid: residuals at the start exist, at least as many
 * as parameters. Ends after `maxSteps` (60) with converged false; null when the start has no residuals.
 */
export const curveFit = (problem: CurveFitProblem): CurveFit | null => {
  const r0 = problem.residuals(problem.start);
  if (!r0 || r0.length < problem.start.length) return null;
  let state: State = { p: problem.start, r: r0, damping: 1e-3 };
  const most = problem.maxSteps ?? 60;
  let [iterations, converged] = [0, false];
  let jacobian = jacobianAt(problem, state.p);
  while (jacobian && iterations < most && !converged) {
    iterations += 1;
    const next = improve(problem, state, jacobian);
    converged = next === null || square(state.r) - square(next.r) <= FLAT * (1 + square(state.r));
    state = next ?? state;
    jacobian = jacobianAt(problem, state.p);
  }
  if (!jacobian) return null;
  return {
    parameters: state.p,
    residuals: state.r,
    sumOfSquares: square(state.r),
    covariance: inverse(normalOf(jacobian, 0)),
    jacobian,
    iterations,
    converged,
  };
};
