import type { ReachQuantiles } from '../forecast/limit-distribution';

/** The day that the last plan named, from today on, and the price of a later day and of an earlier one, in money. */
export interface PromisedDay {
  readonly day: number;
  readonly later: number;
  readonly sooner: number;
}

/** One thing to be done once within the horizon: one turn of a stage. */
export interface PlanTask {
  readonly id: string;
  /** Position of its machine in the list of machines. */
  readonly machine: number;
  readonly minutes: number;
  readonly reached: ReachQuantiles;
  readonly lifeValuePerDay: number;
  readonly overrunCostPerDay: number;
  /** Position of its part in the list of parts, and how many; null when it takes none. */
  readonly part: { readonly index: number; readonly quantity: number } | null;
  /** Pieces it takes of a part that can still be ordered in time: it does not wait for them. Left out: none. */
  readonly orders?: { readonly index: number; readonly quantity: number };
  /** Must be on the same day as this task, of the same machine; null for an independent task. */
  readonly onlyWith: string | null;
  /** The fixed day; null when it is free. */
  readonly lockedDay: number | null;
  /** The last day it should be done on: an examination's day, or the day from which it is surely late. null where late is only dear. */
  readonly lastDay: number | null;
  /** The day the last plan named, and the price of another one, in money; null where no plan named one. */
  readonly promised: PromisedDay | null;
  /** Days it must lie within, both counted, so that the turns of one stage stay in order; left out, any. */
  readonly within?: readonly [first: number, last: number];
}

/** Whether a task may lie on a day, by what fixed it and where it must lie. Source: the problem as stated here. Valid: a day of the horizon. */
export const mayLie = (t: PlanTask, day: number): boolean =>
  (t.lockedDay === null || t.lockedDay === day) && (!t.within || (day >= t.within[0] && day <= t.within[1]));

export interface PlanMachine {
  readonly id: string;
  readonly openingCost: number;
  readonly openingMinutes: number;
  readonly blockedDays: ReadonlySet<number>;
  /** Whether only people with papers for contained work may open it. */
  readonly contained: boolean;
}

export interface PlanPart {
  readonly id: string;
  readonly onHand: number;
  /** What arrives, by day; usable on that day. */
  readonly deliveries: readonly { readonly day: number; readonly quantity: number }[];
}

/**
 * The planning problem: what is done on which day, at the least cost in money. Days count from 0; a machine opened once
 * on a day for any number of its tasks is one opening.
 */
export interface PlanProblem {
  /** Minutes there are on each day of the horizon. */
  readonly minutes: readonly number[];
  /** The minutes of people who may do contained work, of each day; null where nobody's time is on record. */
  readonly containedMinutes: readonly number[] | null;
  readonly machines: readonly PlanMachine[];
  readonly tasks: readonly PlanTask[];
  readonly parts: readonly PlanPart[];
}

/** The day of each task, by its position; null while it has none. */
export type PlanDays = readonly (number | null)[];

/** The minutes a machine may be given on a day: of everybody, or of those with papers for contained work. Definition: the problem as stated here. Valid: a day of the horizon. */
export const minutesFor = (
  { minutes, containedMinutes }: Pick<PlanProblem, 'minutes' | 'containedMinutes'>,
  { contained }: Pick<PlanMachine, 'contained'>,
  day: number,
): number => Math.min(minutes[day] ?? 0, contained && containedMinutes ? (containedMinutes[day] ?? 0) : Infinity);

export interface PlanCost {
  readonly total: number;
  readonly openings: number;
  readonly openingCost: number;
  readonly wasteCost: number;
  readonly overrunCost: number;
  /** Price of days past a last day. */
  readonly lateCost: number;
  /** Price of moved promises. */
  readonly moveCost: number;
  /** Mean over the tasks of P(T < x). */
  readonly overrunChance: number;
}
