import { chanceWord, inTenths } from '@/core/numeric/chance-word';
import type { StageLasting } from '@/core/forecast/lasting';
import { probablyPast } from '@/core/forecast/probably-past';
import { capital } from './words';
import { runHours } from './format';

// The remaining life of a bag or filter, in words.

const lasts = (chance: number, asked: number): string => {
  switch (chanceWord(chance)) {
    case 'surely':
      return `almost surely lasts ${runHours(asked)}`;
    case 'hardly':
      return `almost surely does not last ${runHours(asked)}`;
    case 'figure':
      return `lasts ${runHours(asked)} in ${inTenths(chance)} cases of 10`;
  }
};

/** The remaining life of a bag or filter, and whether it lasts the work. */
export const sayLasting = (name: string, l: StageLasting, asked: number | null): string => {
  if (l.intervals + l.looks === 0 && l.hoursLeft[0] !== l.hoursLeft[2])
    return `${capital(name)}: nothing on record says how long it lasts. Look at it before you start.`;
  const [low, middle, high] = l.hoursLeft;
  const left = probablyPast(l)
    ? 'probably past its limit'
    : low === high
      ? `${runHours(middle)} left`
      : `about ${runHours(middle)} left (${runHours(Math.max(0, low))} to ${runHours(Math.max(0, high))}, 8 times in 10)`;
  const job = asked === null || l.lasts === null ? '' : `; ${lasts(l.lasts, asked)}`;
  const basis = l.hoursKnown ? '' : ' No run hours on record: a usual day was taken.';
  return `${capital(name)}: ${left}${job}.${basis}`;
};
