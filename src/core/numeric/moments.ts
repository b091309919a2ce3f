/** Arithmetic mean of one or more numbers, in their own unit. Throws RangeError on an empty list. Source: JCGM 100, 4.2.1. Valid: one value or more. */
export const mean = (values: readonly number[]): number => {
  if (values.length === 0) throw new RangeError('mean of no values');
  return values.reduce((sum, v) => sum + v, 0) / values.length;
};

/**
 * Sample standard deviation (n - 1), in the values' unit. Source: GUM eq. 4. Throws RangeError under two values.
 * Two passes, so that a small spread on a large mean keeps its digits.
 * Valid: two values or more.
 */
export const sampleDeviation = (values: readonly number[]): number => {
  if (values.length < 2) throw new RangeError('standard deviation of fewer than two values');
  const m = mean(values);
  return Math.sqrt(values.reduce((sum, v) => sum + (v - m) ** 2, 0) / (values.length - 1));
};

/** The middle value, the mean of the two middle ones of an even number, in the values' unit. Throws RangeError on an empty list. Source: common definition of the median. Valid: one value or more. */
export const median = (values: readonly number[]): number => {
  if (values.length === 0) throw new RangeError('median of no values');
  const sorted = [...values].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  const [below, above] = [sorted[half - 1] ?? 0, sorted[half] ?? 0];
  return sorted.length % 2 === 1 ? above : (below + above) / 2;
};
