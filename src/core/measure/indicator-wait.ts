import { INDICATOR_FROM } from '../constants/limits';

/** Whether a light was looked at too soon after the start to say anything. Seconds; NaN is too soon. Source: common practice, no published source. */
export const isTooEarly = (afterS: number): boolean => !(afterS >= INDICATOR_FROM.value);
