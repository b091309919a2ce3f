declare module 'jstat' {
  interface Student {
    inv(p: number, degreesOfFreedom: number): number;
    cdf(t: number, degreesOfFreedom: number): number;
  }
  interface Poisson {
    cdf(count: number, mean: number): number;
  }
  interface FisherF {
    inv(p: number, over: number, under: number): number;
  }
  interface NoncentralT {
    cdf(t: number, degreesOfFreedom: number, shift: number): number;
  }
  export const jStat: {
    noncentralt: NoncentralT;
    studentt: Student;
    poisson: Poisson;
    centralF: FisherF;
    gammaln(x: number): number;
  };
}
