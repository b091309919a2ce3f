/** How much a machine is used, day by day. */
export interface Use {
  /** Load of each of the last days, oldest first, today last; days without work count 0. */
  readonly recent: readonly number[];
  /** Whether the yard works on a day from now (1 is tomorrow). */
  readonly works: (day: number) => boolean;
  /** How unsure the level of use is, as a spread of its logarithm: larger where hours are only estimated. */
  readonly unsure: number;
}

const WEEK = 7;
/** Weeks of use that are drawn from. */
const WEEKS = 10;

/** Loads of whole recent weeks, newest first; at least one. Hours, or days where hours are not logged. Source: the log of use. Valid: at least one day. */
export const recentWeeks = ({ recent }: Pick<Use, 'recent'>): readonly number[] => {
  const weeks: number[] = [];
  for (let end = recent.length; end >= WEEK && weeks.length < WEEKS; end -= WEEK)
    weeks.push(recent.slice(end - WEEK, end).reduce((a, b) => a + b, 0));
  const few =
    recent.length > 0 && weeks.length === 0 ? [(recent.reduce((a, b) => a + b, 0) / recent.length) * WEEK] : [];
  return [...weeks, ...few];
};

/** A day of use stands for at least this share of the mean, so that an idle month does not promise for ever. */
const LEAST = 0.05;

export interface Chance {
  /** 0 to 1. */
  readonly uniform: () => number;
  /** Mean 0, spread 1. */
  readonly normal: () => number;
}

/** Days further on than this are not drawn. */
export const FURTHEST_DAYS = 1500;

/** Weight of each newer week against the one before it: what is done now goes on for a while. */
const FADE = 0.85;
/** Days a usual week is worked. */
const USUAL_DAYS = 5;

/** Load per worked day, and the worked days, of the weeks to come. */
const weekAhead = (works: Use['works'], start: number): readonly number[] =>
  [0, 1, 2, 3, 4, 5, 6].filter((d) => works(start + d));

/**
 * Draws when loads are used up: whole weeks of recent use, one after the other, on a level that is itself unsure; closed
 * days stand still. Answers days from now, at most `FURTHEST_DAYS`. Source: block bootstrap, Kunsch 1989, by weeks.
 * Valid: loads of 0 or more.
 */
export const daysDrawer = (use: Use): ((load: number, chance: Chance) => number) => {
  const weeks = recentWeeks(use);
  const mean = weeks.length === 0 ? 0 : weeks.reduce((a, b) => a + b, 0) / weeks.length;
  const cumulative = weeks.map((_, i) => (1 - FADE ** (i + 1)) / (1 - FADE ** weeks.length));
  const ahead: (readonly number[])[] = [];
  const openIn = (week: number): readonly number[] => (ahead[week] ??= weekAhead(use.works, 1 + WEEK * week));
  const pick = (u: number): number =>
    Math.max(weeks[cumulative.findIndex((c) => u <= c)] ?? weeks.at(-1) ?? 0, LEAST * mean);
  return (load, { uniform, normal }) => {
    if (load <= 0) return 0;
    if (mean <= 0) return FURTHEST_DAYS;
    let left = load / Math.exp(use.unsure * normal() - (use.unsure * use.unsure) / 2);
    for (let week = 0; week * WEEK < FURTHEST_DAYS; week += 1) {
      const open = openIn(week);
      const each = pick(uniform()) / Math.max(USUAL_DAYS, open.length);
      if (left > each * open.length) {
        left -= each * open.length;
        continue;
      }
      const full = Math.floor(left / each);
      const at = Math.min(full, open.length - 1);
      return Math.min(FURTHEST_DAYS, WEEK * week + (open[at] ?? 0) + left / each - at);
    }
    return FURTHEST_DAYS;
  };
};

/** Days ago at which the load since then was so much: the other way round, along what was used. Source: the log of use. Valid: a load of 0 or more. */
export const daysSince = (load: number, { recent }: Pick<Use, 'recent'>): number => {
  let left = load;
  for (let ago = 0; ago < recent.length; ago += 1) {
    const here = recent[recent.length - 1 - ago] ?? 0;
    if (here > 0 && left <= here) return ago + left / here;
    left -= here;
  }
  const weeks = recentWeeks({ recent });
  const daily = weeks.length === 0 ? 0 : weeks.reduce((a, b) => a + b, 0) / weeks.length / WEEK;
  return daily > 0 ? recent.length + left / daily : FURTHEST_DAYS;
};
