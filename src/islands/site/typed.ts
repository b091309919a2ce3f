import { toDecimals } from '@/core/units';
import { isCalendarDate } from '@/core/calendar/calendar-date';
import type { Site } from '@/core/site/site';

export type SetSite = (over: Partial<Site>) => void;

const percent = (share: number): string => String(toDecimals(share * 100, 1));

/** The form as typed. */
export interface Typed {
  readonly warn: string;
  readonly act: string;
  readonly closed: string;
  readonly minutes: string;
  readonly currency: string;
  readonly late: string;
  readonly plain: string;
  readonly controlled: string;
  readonly contained: string;
  readonly plainMinutes: string;
  readonly controlledMinutes: string;
  readonly containedMinutes: string;
}

export const typedOf = (site: Site): Typed => ({
  warn: percent(site.thresholds.warnLoss),
  act: percent(site.thresholds.actLoss),
  closed: site.working.closed.join('\n'),
  minutes: String(site.minutesADay),
  currency: site.prices.currency,
  late: String(site.prices.lateFactor),
  plain: String(site.prices.openingCost.plain),
  controlled: String(site.prices.openingCost.controlled),
  contained: String(site.prices.openingCost.contained),
  plainMinutes: String(site.prices.openingMinutes.plain),
  controlledMinutes: String(site.prices.openingMinutes.controlled),
  containedMinutes: String(site.prices.openingMinutes.contained),
});

/** Days, however they are set apart. */
export const daysOf = (text: string): readonly string[] => text.split(/[\s,;]+/).filter((d) => d !== '');

const shareOf = (percentText: string): number => Number(percentText.replace(',', '.')) / 100;

/** The limits as typed, as shares. */
export const lossesOf = ({ warn, act }: Typed): Site['thresholds'] => ({
  warnLoss: shareOf(warn),
  actLoss: shareOf(act),
});

const figure = (text: string): number => (text.trim() === '' ? NaN : Number(text.trim().replace(',', '.')));

/** The plan's prices, as typed. */
export const pricesOf = (typed: Typed): Site['prices'] => ({
  currency: typed.currency.trim(),
  lateFactor: figure(typed.late),
  openingCost: {
    plain: figure(typed.plain),
    controlled: figure(typed.controlled),
    contained: figure(typed.contained),
  },
  openingMinutes: {
    plain: figure(typed.plainMinutes),
    controlled: figure(typed.controlledMinutes),
    contained: figure(typed.containedMinutes),
  },
});

/** What of the typed figures cannot be read, in a sentence; '' when all can. */
export const unreadable = (typed: Typed): string => {
  const { warn, act, closed, minutes } = typed;
  const [w, a] = [shareOf(warn), shareOf(act)];
  if (!(w >= 0.02 && a <= 0.9 && w < a))
    return 'The loss that warns lies below the loss that acts, between 2 and 90 %.';
  const bad = daysOf(closed).find((d) => !isCalendarDate(d));
  if (bad !== undefined) return `"${bad}" is not a date. Write dates like 2026-12-25.`;
  const { lateFactor, openingCost, openingMinutes } = pricesOf(typed);
  if (!(lateFactor >= 0.1 && lateFactor <= 100)) return 'How much dearer a late day is lies between 0.1 and 100.';
  if (!Object.values(openingCost).every((c) => c >= 0 && c <= 1e6))
    return 'The cost of an opening must be an amount of money.';
  if (!Object.values(openingMinutes).every((m) => m >= 0 && m <= 1440))
    return 'The minutes of an opening lie between 0 and 1440.';
  return /^\d+$/.test(minutes.trim()) && Number(minutes) <= 1440 ? '' : 'Minutes a day are a whole number up to 1440.';
};
