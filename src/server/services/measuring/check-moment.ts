import { failure, type Failure } from '@/core/failure/failure';
import { dayAt } from '@/core/calendar/calendar-date';
import type { Machine } from '@/core/machine/machine';

/** A few minutes of grace: a tablet's clock may run ahead of the server's. */
const GRACE_MS = 10 * 60_000;

/** Failures of the stated moment of a piece of work; empty when it is valid. */
export const checkMoment = (input: {
  readonly performedAt: string;
  readonly now: string;
  readonly machine: Machine;
  readonly timeZone: string;
}): readonly Failure[] => {
  if (Date.parse(input.performedAt) > Date.parse(input.now) + GRACE_MS) {
    return [failure('date.future', 'performedAt', { day: dayAt(input.performedAt, input.timeZone) })];
  }
  const day = dayAt(input.performedAt, input.timeZone);
  return day < input.machine.inServiceOn
    ? [failure('date.before-service', 'performedAt', { day, inServiceOn: input.machine.inServiceOn })]
    : [];
};
