/** Numbers a forecast draws from. */
export interface Chance {
  /** 0 to 1. */
  readonly uniform: () => number;
  /** Mean 0, spread 1. */
  readonly normal: () => number;
}
