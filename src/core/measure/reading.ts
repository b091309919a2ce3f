/** Typed by hand, held as a settled mean from a streaming meter, or the meter's maximum. */
export const READING_HOWS = ['typed', 'hold', 'max'] as const;
export type ReadingHow = (typeof READING_HOWS)[number];

export interface Reading {
  readonly typed: string;
  readonly unit: string;
  readonly valueSi: number;
  readonly resolutionSi: number;
  readonly slot: number;
  readonly how: ReadingHow;
  /** Why it does not count; null when it does. */
  readonly struckBecause: string | null;
}
