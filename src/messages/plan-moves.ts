import type { MoveReason } from '@/core/plan/promises';
import { capital } from './words';

const DAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });
const dayOf = (date: string): string => DAY.format(new Date(`${date}T12:00:00Z`));

const BECAUSE: Readonly<Record<MoveReason, string>> = {
  passed: 'it is not recorded as done',
  hand: 'it was fixed by hand',
  closed: 'nobody works on that day',
  absent: 'nobody who may do it has time on that day',
  away: 'the machine is away on that day',
  partLater: 'its part comes later',
  partSooner: 'its part comes earlier',
  record: 'a new record changed its forecast',
  company: 'it goes with other work on the machine',
  sooner: 'an earlier day became possible',
  room: 'more urgent work takes the time',
};

interface Move {
  readonly tag: string;
  readonly stage: string;
  readonly from: string;
  readonly to: string;
  readonly because: MoveReason;
}

/** A promised day that moved, and why. */
export const sayMove = ({ tag, stage, from, to, because }: Move): string =>
  `${tag}, ${capital(stage)}: moved from ${dayOf(from)} to ${dayOf(to)}; ${BECAUSE[because]}.`;
