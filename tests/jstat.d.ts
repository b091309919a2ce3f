declare module 'jstat' {
  interface Student {
    inv(p: number, degreesOfFreedom: number): number;
    cdf(t: number, degreesOfFreedom: number): number;
  }
  interface Poisson {
    cdf(count: number, mean: number): number;
  }
  export const jStat: { studentt: Student; poisson: Poisson };
}
