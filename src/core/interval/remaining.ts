/** Below this share of its life a part is shown as coming up. A Moorwind default, a modelling choice. */
export const COMING_UP = 0.15;

/** How remaining life, 1 new to 0 due, is marked. NaN is not due. */
export const remainingMark = (remaining: number): 'due' | 'comingUp' | 'fine' =>
  remaining <= 0 ? 'due' : remaining < COMING_UP ? 'comingUp' : 'fine';
