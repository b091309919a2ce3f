/** Inverse of a small square matrix by Gauss-Jordan with pivoting; null when it is singular to working precision. Source: Press et al., Numerical Recipes, 2.1. */
export const inverse = (matrix: readonly (readonly number[])[]): number[][] | null => {
  const n = matrix.length;
  const a = matrix.map((row, i) => [...row, ...row.map((_, j) => (i === j ? 1 : 0))]);
  for (let col = 0; col < n; col += 1) {
    const pivot = a
      .slice(col)
      .reduce((best, row, i) => (Math.abs(row[col] ?? 0) > Math.abs(a[best]?.[col] ?? 0) ? i + col : best), col);
    [a[col], a[pivot]] = [a[pivot] ?? [], a[col] ?? []];
    const head = a[col]?.[col] ?? 0;
    if (!(Math.abs(head) > 1e-14)) return null;
    a[col] = (a[col] ?? []).map((v) => v / head);
    for (let row = 0; row < n; row += 1) {
      const factor = a[row]?.[col] ?? 0;
      if (row !== col) a[row] = (a[row] ?? []).map((v, j) => v - factor * (a[col]?.[j] ?? 0));
    }
  }
  return a.map((row) => row.slice(n));
};
