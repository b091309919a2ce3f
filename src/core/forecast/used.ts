import { median } from '../numeric/moments';

/** Recorded run hours; days as numbers. */
export interface WrittenUse {
  readonly day: number;
  readonly hours: number;
  readonly dust: string;
}

/** How a machine was used, day by day, from its first day to today. */
export interface Used {
  readonly first: number;
  readonly today: number;
  readonly counts: 'hours' | 'days';
  /** Load of each day: run hours, or 1 for each day of work where none are on record. */
  readonly load: Float64Array;
  /** 1 where the day was filled in; between 0 and 1 where a sum was spread over it. */
  readonly filled: Float64Array;
  /** Which of the dusts each day was of. */
  readonly dust: Uint8Array;
  readonly dusts: readonly string[];
}

export interface UsedInput {
  readonly first: number;
  readonly today: number;
  /** Oldest first. */
  readonly written: readonly WrittenUse[];
  /** Days on which something else was recorded of the machine: it was in use around them. */
  readonly seen: readonly number[];
  /** Whether the yard worked on a day. */
  readonly worked: (day: number) => boolean;
}

/** More than this in a day is a sum of several, hours; so are entries this many working days apart. Modelling choices. */
const MOST_OF_A_DAY = 11;
const SUM_GAP = 3;
/** Uncertainty of days within a long sum: this much, from this many days on. Modelling choices. */
const SUM_GUESSED = 0.7;
const LONG_SUM = 12;
/** Longest reach of a sum, days. */
const LONGEST_SUM = 70;
/** A hole in a diary is this many working days long at least, and this many usual gaps. Modelling choices. */
const HOLE = 5;
const HOLE_GAPS = 4;
/** A sum may leave this many working days out, or this many usual gaps, before they count as idle. Modelling choices. */
const SUM_HOLE = 12;
/** Chance that a hole was worked and not written down, before anything is known of it. A modelling choice. */
const UNWRITTEN = 0.5;
/** Hours that make a record, in entries; with fewer, days are counted. */
const LEAST_ENTRIES = 4;
/** Number of dusts with their own class; rarer ones share one. */
const MOST_DUSTS = 4;

const merged = (written: readonly WrittenUse[]): readonly WrittenUse[] => {
  const all: WrittenUse[] = [];
  for (const w of written) {
    const last = all.at(-1);
    // A day holds 24 hours: what a meter had gone on beyond was put on the day before.
    if (last && w.day - last.day === 1 && last.hours + w.hours > 2 * MOST_OF_A_DAY)
      all[all.length - 1] = { ...w, hours: last.hours + w.hours };
    else all.push(w);
  }
  return all;
};

const dustsOf = (written: readonly WrittenUse[]): readonly string[] => {
  const hours = new Map<string, number>();
  for (const w of written) hours.set(w.dust, (hours.get(w.dust) ?? 0) + w.hours);
  const ranked = [...hours].sort((a, b) => b[1] - a[1]).map(([dust]) => dust);
  const newest = written.at(-1)?.dust;
  const kept = ranked.slice(0, MOST_DUSTS);
  // The newest dust is always kept as its own class, because future use continues with it.
  return newest === undefined || kept.includes(newest) ? kept : [...kept.slice(0, MOST_DUSTS - 1), newest];
};

interface Days {
  readonly first: number;
  readonly load: Float64Array;
  readonly filled: Float64Array;
  readonly dust: Uint8Array;
  readonly worked: (day: number) => boolean;
}

/** Working days after one day up to another. */
const openDays = (worked: (day: number) => boolean, after: number, to: number): readonly number[] => {
  const open: number[] = [];
  for (let day = after + 1; day <= to; day += 1) if (worked(day)) open.push(day);
  return open;
};

const spread = (
  days: Days,
  on: readonly number[],
  {
    each,
    dust,
    filled,
  }: {
    readonly each: number;
    readonly dust: number;
    readonly filled: number;
  },
): void => {
  for (const day of on) {
    const i = day - days.first;
    if (i < 0 || i >= days.load.length) continue;
    days.load[i] = (days.load[i] ?? 0) + each;
    days.dust[i] = dust;
    days.filled[i] = filled;
  }
};

/** Working days only: without recorded hours. */
const byDays = ({ first, today, worked }: UsedInput): Used => {
  const length = Math.max(1, today - first + 1);
  return {
    first,
    today,
    counts: 'days',
    load: Float64Array.from({ length }, (_, i) => (worked(first + i) ? 1 : 0)),
    filled: new Float64Array(length),
    dust: new Uint8Array(length),
    dusts: [''],
  };
};

interface Holes {
  /** Hours of a working day outside the holes. */
  readonly usual: number;
  /** Chance that a hole of so many working days, in which nothing else was recorded, was worked and not written down. */
  readonly chanceOf: (openDays: number) => number;
}

/** The holes of a diary. A machine of which something is recorded in most weeks was hardly worked in a week without a record. Source: Bayes; records that come at random, Poisson. */
const holesOf = (
  { worked, seen }: UsedInput,
  { written, hole }: { readonly written: readonly WrittenUse[]; readonly hole: number },
): Holes => {
  const stretches = written.slice(1).map((w, i) => openDays(worked, written[i]?.day ?? w.day, w.day));
  const kept = stretches.filter((open) => open.length <= hole).flat();
  const inside = new Set(kept);
  const hours = written.slice(1).reduce((sum, w) => sum + w.hours, 0);
  const rate = seen.filter((day) => inside.has(day)).length / Math.max(1, kept.length);
  return {
    usual: hours / Math.max(1, kept.length),
    chanceOf: (days) => {
      const silent = UNWRITTEN * Math.exp(-rate * days);
      return silent / (silent + 1 - UNWRITTEN);
    },
  };
};

/**
 * Daily use of a machine from its entries: a day's hours on their day, a sum of a week or a meter over the days it
 * covers, and days before the first entry or after the last sum as usual days. A hole of a diary was worked if something
 * else was recorded in it. Otherwise each of its days counts by the chance that it was worked and not written down.
 * Choice: a modelling choice. Valid: days as whole numbers.
 */
export const usedOf = (input: UsedInput): Used => {
  const { first, today, worked, seen } = input;
  const written = merged(input.written.filter((w) => w.day >= first && w.day <= today));
  const [from, last] = [written[0], written.at(-1)];
  if (written.length < LEAST_ENTRIES || !from || !last) return byDays(input);
  const length = Math.max(1, today - first + 1);
  const dusts = dustsOf(written);
  const at = (dust: string): number => Math.max(0, dusts.indexOf(dust));
  const days: Days = {
    first,
    load: new Float64Array(length),
    filled: new Float64Array(length),
    dust: new Uint8Array(length),
    worked,
  };
  const gaps = written.slice(1).map((w, i) => Math.max(1, openDays(worked, written[i]?.day ?? w.day, w.day).length));
  const gap = median(gaps);
  const sums = gap >= SUM_GAP;
  const hole = Math.max(sums ? SUM_HOLE : HOLE, HOLE_GAPS * gap);
  // A sum may cover less than the days since the entry before: a skipped week does not belong to it.
  const reach = Math.max(1, Math.round(1.5 * gap));
  const total = written.reduce((sum, w) => sum + w.hours, 0);
  const open = Math.max(1, openDays(worked, from.day - 1, last.day).length);
  const usual = total / open;
  const unwritten = holesOf(input, { written, hole });
  /** Chance that days without an entry were worked, after one day and before another. */
  const workedIn = (rest: readonly number[], after: number, before: number): number => {
    const busy = seen.some((day) => day > after && day < before && rest.includes(day));
    if (sums) return rest.length < hole || busy ? 1 : 0;
    return rest.length < hole ? 0 : busy ? 1 : unwritten.chanceOf(rest.length);
  };
  written.forEach((w, i) => {
    const before = written[i - 1];
    const after = Math.max(before?.day ?? w.day - Math.max(1, Math.round((gap * 7) / 5)), w.day - LONGEST_SUM);
    const between = openDays(worked, after, w.day);
    const isSum = sums || w.hours > MOST_OF_A_DAY;
    const own = isSum ? (w.hours > MOST_OF_A_DAY * reach ? between : between.slice(-reach)) : [w.day];
    const on = own.length > 0 ? own : [w.day];
    const guessed = SUM_GUESSED * Math.min(1, (on.length - 1) / LONG_SUM);
    spread(days, on, { each: w.hours / on.length, dust: at(w.dust), filled: guessed });
    const rest = before ? between.filter((day) => day > before.day && !on.includes(day) && day !== w.day) : [];
    const chance = rest.length > 0 ? workedIn(rest, after, w.day) : 0;
    const each = chance * (sums ? usual : unwritten.usual);
    if (chance > 0) spread(days, rest, { each, dust: at(w.dust), filled: 1 });
  });
  const ahead = openDays(worked, from.day - 1 - Math.max(0, from.day - first), from.day - (sums ? reach : 1));
  spread(days, ahead, { each: usual, dust: at(from.dust), filled: 1 });
  const tail = openDays(worked, last.day, today);
  const recent = recentUsual(days, last.day) ?? usual;
  const chance = tail.length === 0 ? 0 : sums ? 1 : workedIn(tail, last.day, today + 1);
  if (chance > 0) spread(days, tail, { each: chance * recent, dust: at(last.dust), filled: 1 });
  return { first, today, counts: 'hours', load: days.load, filled: days.filled, dust: days.dust, dusts };
};

/** The usual day of the last months that are on record. */
const RECENT_DAYS = 56;
const recentUsual = ({ first, load, worked }: Days, to: number): number | null => {
  const open = openDays(worked, to - RECENT_DAYS, to).filter((day) => day >= first);
  if (open.length === 0) return null;
  return open.reduce((sum, day) => sum + (load[day - first] ?? 0), 0) / open.length;
};

/** Running sums of load to the middle of each day, so that an interval is a difference. */
export interface LoadClock {
  /** Load from the first day to the middle of a day; days outside are taken as the nearest. */
  readonly at: (day: number) => number;
  /** Share of a stretch that was filled in, 0 to 1. */
  readonly filledBetween: (from: number, to: number) => number;
  /** Days ago (from the end of today) at which so much load lay ahead. */
  readonly daysSince: (load: number) => number;
  readonly now: number;
}

/** The clock of a machine on a scale where each dust counts its own weight. Loads in hours or working days, weighted. Definition: sums. Valid: one weight a dust, above 0. */
export const loadClock = ({ first, today, load, filled, dust }: Used, weights: readonly number[]): LoadClock => {
  const n = load.length;
  const sum = new Float64Array(n + 1);
  const filledSum = new Float64Array(n + 1);
  for (let i = 0; i < n; i += 1) {
    const here = (load[i] ?? 0) * (weights[dust[i] ?? 0] ?? 1);
    sum[i + 1] = (sum[i] ?? 0) + here;
    filledSum[i + 1] = (filledSum[i] ?? 0) + (filled[i] ?? 0) * here;
  }
  const total = sum[n] ?? 0;
  const middle = (sums: Float64Array, day: number): number => {
    const i = Math.max(0, Math.min(n - 1, day - first));
    return ((sums[i] ?? 0) + (sums[i + 1] ?? 0)) / 2;
  };
  const daily = total / Math.max(1, n);
  return {
    at: (day) => middle(sum, day),
    now: total,
    filledBetween: (from, to) => {
      const whole = middle(sum, to) - middle(sum, from);
      return whole > 0 ? (middle(filledSum, to) - middle(filledSum, from)) / whole : 0;
    },
    daysSince: (left) => {
      if (left <= 0) return 0;
      const wanted = total - left;
      if (wanted <= 0) return n + (daily > 0 ? -wanted / daily : 0);
      let [low, high] = [0, n];
      while (high - low > 1) {
        const mid = (low + high) >> 1;
        if ((sum[mid] ?? 0) <= wanted) low = mid;
        else high = mid;
      }
      const step = (sum[low + 1] ?? 0) - (sum[low] ?? 0);
      return today - first + 1 - low - (step > 0 ? (wanted - (sum[low] ?? 0)) / step : 0);
    },
  };
};
