import type { CalendarDate } from '../calendar/calendar-date';
import { daysBetween } from '../calendar/calendar-date';

/** A continuity reading of the path a charge leaves by: hose, contacts, frame, lead, bonded point. */
export interface BondingReading {
  readonly id: number;
  readonly on: CalendarDate;
  /** Ohm; null where the meter read open: no way for a charge. */
  readonly ohm: number | null;
  /** From where to where. */
  readonly between: string;
  readonly at: string;
  readonly by: string;
}

export type BondingStanding =
  | { readonly kind: 'never' }
  | { readonly kind: 'open' | 'reads'; readonly reading: BondingReading; readonly daysAgo: number };

/**
 * The state of each bonding path by its newest continuity reading, the worst of them: one that reads open comes first.
 * The maker sets the limit in ohm: none is claimed here. Source: common practice, no published source (handbook of the
 * trade, section 15). Valid: readings of one machine, oldest first.
 */
export const bondingStanding = (readings: readonly BondingReading[], today: CalendarDate): BondingStanding => {
  const newest = [...new Map(readings.map((r) => [r.between.trim().toLowerCase(), r])).values()];
  const worst = newest.find((r) => r.ohm === null) ?? readings.at(-1);
  return worst
    ? {
        kind: worst.ohm === null ? 'open' : 'reads',
        reading: worst,
        daysAgo: daysBetween({ from: worst.on, to: today }),
      }
    : { kind: 'never' };
};
