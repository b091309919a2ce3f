import type { ProfileStep } from './pressure-profile';

/** Whether a step raises the pressure, as the fan does. */
export const lifts = (step: Pick<ProfileStep, 'dropPa'>): boolean => step.dropPa < 0;
