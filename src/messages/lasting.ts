import { chanceWord, inTenths } from '@/core/numeric/chance-word';
import type { StageLasting } from '@/core/forecast/lasting';
import { capital } from './words';

// The remaining life of a bag or filter, in words.

const hours = (h: number): string => `${Number(h.toPrecision(h < 10 ? 1 : 2))} h`;
const lasts = (chance: number, asked: number): string => {
  switch (chanceWord(chance)) {
    case 'surely':
      return `almost surely lasts ${hours(asked)}`;
    case 'hardly':
      return `almost surely does not last ${hours(asked)}`;
    case 'figure':
      return `lasts ${hours(asked)} in ${inTenths(chance)} cases of 10`;
  }
};

/** The remaining life of a bag or filter, and whether it lasts the work. */
export const sayLasting = (name: string, l: StageLasting, asked: number | null): string => {
  if (l.intervals + l.looks === 0 && l.hoursLeft[0] !== l.hoursLeft[2])
    return `${capital(name)}: nothing on record says how long it lasts. Look at it before you start.`;
  const [low, middle, high] = l.hoursLeft;
  const left =
    middle <= 0
      ? 'probably past its limit'
      : low === high
        ? `${hours(middle)} left`
        : `about ${hours(middle)} left (${hours(Math.max(0, low))} to ${hours(Math.max(0, high))}, 8 times in 10)`;
  const job = asked === null || l.lasts === null ? '' : `; ${lasts(l.lasts, asked)}`;
  const basis = l.hoursKnown ? '' : ' No run hours on record: a usual day was taken.';
  return `${capital(name)}: ${left}${job}.${basis}`;
};
