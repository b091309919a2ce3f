import type { GroupSet } from './groups';
import type { PlanProblem } from './problem';

const never = (): boolean => false;

/** How a day is chosen among those an opening fits on. */
export interface Choosing {
  /** Passes over a day now and then. */
  readonly lookPast?: () => boolean;
  /** Value of a minute of each day to the other machines; null where none is short. */
  readonly prices?: Float64Array | null;
}

/** Minutes and parts left while a plan is made. */
export class Capacity {
  readonly minutes: Float64Array;
  /** Minutes of people who may do contained work; null where that limits nothing. */
  private readonly containedMinutes: Float64Array | null;
  /** Pieces of each part that may still be used up to each day. */
  private readonly parts: readonly Float64Array[];

  constructor({ minutes, containedMinutes, parts }: PlanProblem) {
    this.minutes = Float64Array.from(minutes);
    this.containedMinutes = containedMinutes && Float64Array.from(containedMinutes);
    this.parts = parts.map((p) =>
      Float64Array.from(
        minutes,
        (_, day) => p.onHand + p.deliveries.reduce((sum, d) => sum + (d.day <= day ? d.quantity : 0), 0),
      ),
    );
  }

  /** Whether an opening fits on a day. Parts used on a day are gone on every later one too. */
  fits(set: GroupSet, day: number): boolean {
    if (!((this.minutes[day] ?? 0) >= set.minutes)) return false;
    if (set.contained && this.containedMinutes && !((this.containedMinutes[day] ?? 0) >= set.minutes)) return false;
    return set.parts.every(({ index, quantity }) => {
      const there = this.parts[index];
      if (!there) return false;
      for (let d = day; d < there.length; d += 1) if ((there[d] ?? 0) < quantity) return false;
      return true;
    });
  }

  /** Takes, or with -1 gives back, what an opening uses. */
  take(set: GroupSet, day: number, sign: 1 | -1 = 1): void {
    this.minutes[day] = (this.minutes[day] ?? 0) - sign * set.minutes;
    if (set.contained && this.containedMinutes)
      this.containedMinutes[day] = (this.containedMinutes[day] ?? 0) - sign * set.minutes;
    for (const { index, quantity } of set.parts) {
      const there = this.parts[index];
      if (there) for (let d = day; d < there.length; d += 1) there[d] = (there[d] ?? 0) - sign * quantity;
    }
  }

  /** The cheapest day an opening fits on, but for those that are looked past; null when there is none. */
  cheapest(set: GroupSet, { lookPast = never, prices = null }: Choosing = {}): number | null {
    if (prices === null) {
      for (const day of set.order) if (this.fits(set, day) && !lookPast()) return day;
      return null;
    }
    let best: number | null = null;
    let least = Infinity;
    for (const day of set.order) {
      const cost = set.cost[day] ?? Infinity;
      // Days come cheapest first: from here on none can be better.
      if (cost >= least) break;
      const priced = cost + (prices[day] ?? 0) * set.minutes;
      if (priced < least && this.fits(set, day) && !lookPast()) [best, least] = [day, priced];
    }
    return best;
  }
}
