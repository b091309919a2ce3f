/** Chances from which a sentence drops the figure, shares. Choice: 1 in 100, so that "surely" is wrong once in a hundred. */
const SURE = 0.99;
const HARDLY = 0.01;

/** The one scale of words for chances: surely, hardly, or with its figure. Choice: see `SURE`. Valid: 0 to 1; NaN takes its figure. */
export const chanceWord = (chance: number): 'surely' | 'hardly' | 'figure' =>
  chance >= SURE ? 'surely' : chance <= HARDLY ? 'hardly' : 'figure';

/** A chance in tenths for a sentence, 1 to 9: 0 and 10 of 10 would claim certainty. Valid 0 to 1. Definition: rounding. */
export const inTenths = (chance: number): number => Math.min(9, Math.max(1, Math.round(10 * chance)));
