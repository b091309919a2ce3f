/** The maker's stated accuracy of a meter. Quantities in the SI unit of its reading. */
export interface Accuracy {
  /** How the figure is meant: outer limits, an expanded uncertainty, or one standard uncertainty. */
  readonly meaning: 'limits' | 'expanded' | 'standard';
  /** k of an expanded figure; ignored otherwise. */
  readonly coverageFactor: number;
  /** Share of the reading, 0.02 for 2 %. */
  readonly relative: number;
  readonly absoluteSi: number;
  /** One step of the display. */
  readonly resolutionSi: number;
}

const divisor = (accuracy: Accuracy): number => {
  switch (accuracy.meaning) {
    case 'limits':
      return Math.sqrt(3);
    case 'expanded':
      return accuracy.coverageFactor;
    case 'standard':
      return 1;
  }
};

/**
 * Standard uncertainty of an instrument at a reading, in the reading's SI unit.
 * Source: GUM 4.3.7 (limits, rectangular, divide by sqrt 3) and 4.3.3 (an expanded figure, divide by its k).
 * Valid: figures of 0 or more; an expanded one with its k above 0.
 */
export const instrumentUncertainty = (accuracy: Accuracy, readingSi: number): number =>
  (accuracy.relative * Math.abs(readingSi) + accuracy.absoluteSi) / divisor(accuracy);
