/** Quantile of the standard normal at 97.5 %: half of a central 95 % interval. Source: tables of the normal distribution. */
export const NORMAL_95 = 1.959963984540054;

/** Quantile of the standard normal at 90 %: half of a central 80 % interval. Source: tables of the normal distribution. */
export const NORMAL_80 = 1.2815515655446004;
