import type { StageLasting } from './lasting';

/** Whether a stage is more likely past its limit than not. */
export const probablyPast = ({ hoursLeft }: Pick<StageLasting, 'hoursLeft'>): boolean => hoursLeft[1] <= 0;
