import type { PlanReason, ShortPart, WayOut } from '@/core/plan/explain';
import { capital } from './words';
import { andMore, money } from './format';

interface Named {
  readonly currency: string;
  readonly nameOf: (task: string) => string;
  readonly dateOf: (day: number) => string;
  readonly partOf: (code: string) => string;
}

/** Why a task sits where it sits. */
export const sayReason = (reason: PlanReason, { nameOf, dateOf, currency }: Named): string => {
  switch (reason.kind) {
    case 'locked':
      return 'Fixed on this day by hand.';
    case 'own':
      return 'Its own cheapest day: part life wasted against the risk of running overdue.';
    case 'shared':
      return `With the ${reason.with.map(nameOf).join(' and the ')} in one opening instead of on its own on ${dateOf(reason.ownDay)}: saves ${money(reason.saves, currency)}.`;
    case 'minutes':
      return `No time left on its own day, ${dateOf(reason.ownDay)}.`;
    case 'part':
      return `Its part is not in stock on ${dateOf(reason.ownDay)}.`;
    case 'lastDay':
      return `It must be done by ${dateOf(reason.lastDay)}.`;
    case 'late':
      return `It comes after its last day, ${dateOf(reason.lastDay)}.`;
    case 'kept':
      return `Kept on the day of the last plan; alone it would now be ${dateOf(reason.ownDay)}.`;
    case 'traded':
      return `Moved from ${dateOf(reason.ownDay)} to make room for another machine.`;
  }
};

const NAMED = 3;

/** A part that tasks wait for: how many, by when, and who waits. */
export const sayShortPart = ({ part, pieces, by, tasks }: ShortPart, { nameOf, dateOf, partOf }: Named): string => {
  const named = tasks.slice(0, NAMED).map(nameOf);
  const more = tasks.length - named.length;
  const who = `${named.join(', ')}${andMore(more)}`;
  return `${capital(who)}: ${pieces} more ${partOf(part)} ${pieces === 1 ? 'is' : 'are'} needed${tasks.length === 1 ? '' : ', the first'} ${by === 0 ? 'now' : `by ${dateOf(by)}`}.`;
};

/** Which limit keeps a task out, and the cheapest way out. */
export const sayWayOut = (way: WayOut, { nameOf, dateOf, partOf }: Named): string => {
  const what = capital(nameOf(way.task));
  switch (way.kind) {
    case 'noDay':
      return `${what}: no free day on its machine.`;
    case 'moreMinutes':
      return `${what}: needs ${way.minutes} more minutes on ${dateOf(way.day)}.`;
    case 'papers':
      return `${what}: contained work needs ${way.minutes} more minutes on ${dateOf(way.day)} of a person with training and a fit test in date.`;
    case 'part':
      return `${what}: needs ${way.pieces} more ${partOf(way.part)} ${way.by === 0 ? 'now' : `by ${dateOf(way.by)}`}.`;
    case 'partner':
      return `${what}: it is changed with the ${nameOf(way.partner)}, which has no day yet.`;
  }
};
