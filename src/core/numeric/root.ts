/** A falling function's value and slope, written into. */
export interface Evaluated {
  value: number;
  slope: number;
}

export interface RootProblem {
  /** value(low) >= 0 >= value(high). */
  readonly low: number;
  readonly high: number;
  readonly start: number;
  /** Stop when |value| is this or less. */
  readonly tolerance: number;
  readonly evaluate: (x: number, out: Evaluated) => void;
  readonly maxSteps?: number;
}

export interface Root {
  readonly root: number;
  readonly residual: number;
  readonly iterations: number;
  readonly converged: boolean;
}

/**
 * Root of a falling function inside a bracket: Newton's step where it stays inside, the middle where it does not.
 * Source: safe Newton (Press et al., Numerical Recipes, 9.4 rtsafe). Valid: a falling function with a sign change.
 * Always ends: it stops at the tolerance, at neighbouring numbers, or after `maxSteps` (200) with converged false.
 */
export const bracketedNewton = ({ low, high, start, tolerance, evaluate, maxSteps = 200 }: RootProblem): Root => {
  const at: Evaluated = { value: 0, slope: 0 };
  let [a, b, x] = [low, high, start > low && start < high ? start : (low + high) / 2];
  let previous = Number.POSITIVE_INFINITY;
  for (let iterations = 1; iterations <= maxSteps; iterations += 1) {
    evaluate(x, at);
    const { value, slope } = at;
    if (Math.abs(value) <= tolerance) return { root: x, residual: value, iterations, converged: true };
    if (value > 0) a = x;
    else b = x;
    const newton = x - value / slope;
    // Newton that stalls (a root with a corner in it) gives way to halving.
    const useful = newton > a && newton < b && Math.abs(value) < 0.5 * previous;
    previous = useful ? Math.abs(value) : Number.POSITIVE_INFINITY;
    const next = useful ? newton : (a + b) / 2;
    if (next === x || b - a <= 1e-15 * Math.max(Math.abs(a), Math.abs(b)))
      return { root: x, residual: value, iterations, converged: true };
    x = next;
  }
  return { root: x, residual: at.value, iterations: maxSteps, converged: false };
};
