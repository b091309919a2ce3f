import type { StageLasting } from '@/core/forecast/lasting';
import { capital } from './words';

// How long a bag or filter goes on, in words.

const hours = (h: number): string => `${Number(h.toPrecision(h < 10 ? 1 : 2))} h`;
const tenths = (chance: number): string =>
  chance >= 0.95
    ? 'almost surely lasts'
    : chance <= 0.05
      ? 'almost surely does not last'
      : `lasts in ${Math.round(10 * chance)} of 10 cases`;

/** How long a bag or filter goes on, and whether it lasts the work. */
export const sayLasting = (name: string, l: StageLasting, asked: number | null): string => {
  const [low, middle, high] = l.hoursLeft;
  const left =
    middle <= 0
      ? 'its limit is behind, most likely'
      : low === high
        ? `${hours(middle)} left`
        : `about ${hours(middle)} left (${hours(Math.max(0, low))} to ${hours(Math.max(0, high))}, 8 times in 10)`;
  const job = asked === null || l.lasts === null ? '' : `; ${tenths(l.lasts)} ${hours(asked)}`;
  const basis = l.hoursKnown ? '' : ' No run hours on record: a usual day was taken.';
  return `${capital(name)}: ${left}${job}.${l.intervals < 2 ? ` Known from ${l.intervals === 0 ? 'its kind alone' : 'one interval'}.` : ''}${basis}`;
};
