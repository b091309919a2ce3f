import { expectedOverrun, type ReachQuantiles } from './limit-distribution';

/** Below this chance a rule is not named as one that may bind. Share; a Moorwind default, a modelling choice. */
export const LEAST_BINDING = 0.05;

/**
 * Above this chance the screen says that a limit may be past already. Share; a Moorwind default, a modelling choice.
 */
export const SAID_PAST = 0.05;

/** Whether a rule with this chance of being the first may be named. Valid 0 to 1; NaN is not named. */
export const mayBind = (chance: number): boolean => chance >= LEAST_BINDING;

/** Whether it is worth saying that the limit may be past already. Valid 0 to 1; NaN is not said. */
export const mayBePast = (chance: number): boolean => chance > SAID_PAST;

/** Show "look today" when the chance of being past the limit reaches LOOK_FROM, a share, or the expected overrun reaches LOOK_FROM_DAYS. Moorwind defaults, tuned on made-up yards. */
const LOOK_FROM = 0.4;
const LOOK_FROM_DAYS = 6;

/**
 * Whether a limit needs a look today: it may be past with enough chance, or for long enough. Days from now, as
 * `ReachQuantiles`.
 */
export const lookToday = ({
  overdue,
  reached,
}: {
  readonly overdue: number;
  readonly reached: ReachQuantiles;
}): boolean => overdue >= LOOK_FROM || expectedOverrun(reached, 0) >= LOOK_FROM_DAYS;

/** Whether a limit is past by everything on record, such as a fixed day that went by: its 100 % quantile lies before today. Days from now, as `ReachQuantiles`. */
export const isPastByRecord = (reached: ReachQuantiles): boolean => reached[4] < 0;

/** Whether a limit is reached today by everything on record, such as a fixed day. Days from now, as `ReachQuantiles`. */
export const isReachedToday = (reached: ReachQuantiles): boolean => reached[4] >= 0 && reached[4] < 1;

/** Whether a limit is probably past: its 90 % quantile lies before today. This proves nothing: a change may not be on record. Days from now, as `ReachQuantiles`. */
export const isProbablyPast = (reached: ReachQuantiles): boolean => reached[3] < 0;

/** A limit that was seen reached is called overdue from this chance on. Share; a Moorwind default, a modelling choice. */
const SURE_ENOUGH = 0.85;

/**
 * Whether a limit of wear is overdue: somebody saw it reached on an earlier day, and it is most likely not changed since.
 * A chance alone never says so: on made-up yards, chances above 0.95 came true in 6 of 10, for want of recorded changes.
 */
export const isOverdue = ({
  seenPast,
  overdue,
}: {
  readonly seenPast: { readonly daysAgo: number } | null;
  readonly overdue: number;
}): boolean => seenPast !== null && seenPast.daysAgo > 0 && overdue >= SURE_ENOUGH;
