import type { PlanReason, WayOut } from '@/core/plan/explain';
import { capital } from './words';

/** A sum of money, without a currency: the yard knows its own. */
export const money = (value: number): string => value.toFixed(value < 100 ? 1 : 0);

interface Named {
  readonly nameOf: (task: string) => string;
  readonly dateOf: (day: number) => string;
  readonly partOf: (code: string) => string;
}

/** Why a task sits where it sits. */
export const sayReason = (reason: PlanReason, { nameOf, dateOf }: Named): string => {
  switch (reason.kind) {
    case 'locked':
      return 'Fixed on this day by hand.';
    case 'own':
      return 'Its own cheapest day: life thrown away against the risk of running past the limit.';
    case 'shared':
      return `With the ${reason.with.map(nameOf).join(' and the ')} in one opening, instead of by itself on ${dateOf(reason.ownDay)}: saves ${money(reason.saves)}.`;
    case 'minutes':
      return `Its own day, ${dateOf(reason.ownDay)}, has no minutes left.`;
    case 'part':
      return `On ${dateOf(reason.ownDay)} its part is not there.`;
    case 'blocked':
      return `On ${dateOf(reason.ownDay)} its machine is not free.`;
    case 'traded':
      return `Moved from ${dateOf(reason.ownDay)}, so that another machine fits.`;
  }
};

/** Which limit keeps a task out, and the cheapest way out. */
export const sayWayOut = (way: WayOut, { nameOf, dateOf, partOf }: Named): string => {
  const what = capital(nameOf(way.task));
  switch (way.kind) {
    case 'noDay':
      return `${what}: no day of its machine is free.`;
    case 'moreMinutes':
      return `${what}: ${way.minutes} more minutes on ${dateOf(way.day)} would let it in.`;
    case 'part':
      return `${what}: ${way.pieces} more ${partOf(way.part)}, ${way.by === 0 ? 'now' : `by ${dateOf(way.by)}`}.`;
    case 'partner':
      return `${what}: only with the ${nameOf(way.partner)}, which has no day either.`;
  }
};
