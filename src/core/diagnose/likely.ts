/** From these probabilities up a cause is called so. Shares; Moorwind defaults, modelling choices. */
const BANDS = [
  { from: 0.9, word: 'allButSure' },
  { from: 0.65, word: 'likely' },
  { from: 0.35, word: 'even' },
  { from: 0.1, word: 'possible' },
] as const;

export type Likelihood = (typeof BANDS)[number]['word'] | 'unlikely';

/** The word for a probability, 0 to 1; NaN is unlikely. */
export const likelihoodWord = (p: number): Likelihood => BANDS.find((b) => p >= b.from)?.word ?? 'unlikely';

/** Probabilities beyond these are shown as "over" or "under", never as 0 or 100 %. Shares. */
export const LEAST_SAID = 0.01;
export const MOST_SAID = 0.99;

/** Whether a cause is likely enough to be named as the meaning of an outcome. */
export const standsOut = (p: number): boolean => likelihoodWord(p) !== 'unlikely';

/** Whether a stage is suspected enough to be marked. */
export const isSuspect = (p: number): boolean => ['even', 'likely', 'allButSure'].includes(likelihoodWord(p));
