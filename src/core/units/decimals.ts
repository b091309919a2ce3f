/** A number with a fixed count of decimals: 1.50. Total. */
export const fixed = (value: number, decimals: number): string => value.toFixed(decimals);

/** A number with a count of significant digits, zeros kept: 1.50. Valid: 1 digit or more. */
export const significant = (value: number, digits: number): string => value.toPrecision(digits);

/** A number rounded to significant digits, without idle zeros: 1.5. Definition: rounding. Valid: 1 digit or more. */
export const toDigits = (value: number, digits: number): number => Number(value.toPrecision(digits));

/** A number rounded to decimals, without idle zeros: 1.5. Definition: rounding. Valid: 0 decimals or more. */
export const toDecimals = (value: number, decimals: number): number => Number(value.toFixed(decimals));
