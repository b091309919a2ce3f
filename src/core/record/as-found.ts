import { HOUR_MS } from '../calendar/time';
/** A test older than this says nothing of how a machine was found when work on it began. Hours; common practice, no published source. */
export const AS_FOUND_HOURS = 48;

/** Whether a test, taken before the work and at most two days old by then, shows the machine as found. Moments in UTC, ISO. */
export const isAsFound = ({ testAt, workAt }: { readonly testAt: string; readonly workAt: string }): boolean => {
  const age = Date.parse(workAt) - Date.parse(testAt);
  return age >= 0 && age <= AS_FOUND_HOURS * HOUR_MS;
};
