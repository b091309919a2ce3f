import type { Random } from '../../../demo/random';

// When a yard works, and what each machine is put to. Everything is told in days from the first; the last days lie ahead.

/** Days a machine has behind it at the most, and days that are lived on to see what becomes of it. */
export const PAST = 1000;
export const AHEAD = 1300;
/** The last day that is behind: today, in the evening. */
export const LAST = PAST - 1;
const ALL = PAST + AHEAD;
const WEEK = 7;
const YEAR = 365;

export interface Calendar {
  /** Days of the week that are worked: 0 is a Sunday, as day 0 is. */
  readonly weekdays: readonly number[];
  readonly holidays: ReadonlySet<number>;
  /** Holidays the yard has written down: what lies far ahead or long behind is mostly not. */
  readonly told: ReadonlySet<number>;
}

const between = (r: Random, low: number, high: number): number => low + (high - low) * r.uniform();
const whole = (r: Random, low: number, high: number): number => Math.floor(between(r, low, high + 1));
export const chanceOf = (r: Random, p: number): boolean => r.uniform() < p;
export { between, whole };

/** A yard's calendar: two weeks in winter, two or three in summer, single days in between. */
export const yardCalendar = (r: Random): Calendar => {
  const holidays = new Set<number>();
  const shut = (from: number, days: number) => {
    for (let d = from; d < from + days; d += 1) holidays.add(d);
  };
  const summer = whole(r, 10, 21);
  for (let year = -1; year * YEAR < ALL; year += 1) {
    shut(year * YEAR + 20, whole(r, 10, 15));
    shut(year * YEAR + 210 + whole(r, -8, 8), summer);
    for (let k = 0; k < 6; k += 1) shut(year * YEAR + whole(r, 60, 360), 1);
  }
  const [back, ahead] = [chanceOf(r, 0.6) ? 400 : 0, chanceOf(r, 0.8) ? 370 : 60];
  return {
    weekdays: chanceOf(r, 0.25) ? [1, 2, 3, 4, 5, 6] : [1, 2, 3, 4, 5],
    holidays,
    told: new Set([...holidays].filter((d) => d > PAST - back && d < PAST + ahead)),
  };
};

export const worksOnDay = ({ weekdays, holidays }: Calendar, day: number): boolean =>
  weekdays.includes(day % WEEK) && !holidays.has(day);

/** A dust as it is at the machine: grams an hour, and the share of it that is fine enough to reach the filter. */
interface Dust {
  readonly name: string;
  readonly gramsPerHour: number;
  readonly fine: number;
}

const NAMES = ['softwood dust', 'filler dust', 'epoxy sanding dust', 'plaster dust', 'hardwood dust'];

export interface WorkDay {
  readonly hours: number;
  readonly dust: string;
  readonly grams: number;
  /** Grams of it that get past the bag. */
  readonly fines: number;
}

interface Pace {
  readonly dusts: readonly Dust[];
  readonly newestOnly: number;
  readonly hours: number;
  readonly drift: number;
  readonly step: { readonly day: number; readonly by: number };
  readonly pauses: readonly (readonly [number, number])[];
  readonly season: number;
}

const paceOf = (r: Random): Pace => {
  const base = 100 * Math.exp(0.4 * r.normal());
  const many = chanceOf(r, 0.4) ? 1 : chanceOf(r, 0.66) ? 2 : 3;
  const first = whole(r, 0, 4);
  const dusts = Array.from({ length: many }, (_, i) => ({
    name: NAMES[(first + i) % NAMES.length] ?? '',
    gramsPerHour: base * Math.exp(0.5 * r.normal()),
    fine: 0.012 * Math.exp(0.35 * r.normal()),
  }));
  const pauses: (readonly [number, number])[] = [];
  for (let day = whole(r, 0, 500); day < ALL; day += whole(r, 250, 1100)) pauses.push([day, day + whole(r, 18, 75)]);
  return {
    dusts,
    // From a day on only the last of its dusts is left: the work changed for good.
    newestOnly: many > 1 && chanceOf(r, 0.25) ? whole(r, 400, 950) : Infinity,
    hours: between(r, 0.7, 4.5),
    drift: 0.28 * r.normal(),
    step: { day: chanceOf(r, 0.3) ? whole(r, 300, 1200) : Infinity, by: Math.exp(0.45 * r.normal()) },
    pauses: chanceOf(r, 0.45) ? pauses : [],
    season: between(r, 0, 0.25),
  };
};

/** What one machine does day by day: one job after another, a while without one, a loan to another yard. */
export const workOf = (r: Random, calendar: Calendar): readonly WorkDay[] => {
  const pace = paceOf(r);
  let [left, idle] = [0, 0];
  let [strength, dust]: [number, Dust | undefined] = [1, pace.dusts[0]];
  // What nobody can see: another tool, another grit.
  let unseen = 0;
  return Array.from({ length: ALL }, (_, day): WorkDay => {
    const off = pace.pauses.some(([from, to]) => day >= from && day < to);
    if (day % 30 === 0) unseen = 0.9 * unseen + 0.09 * r.normal();
    if (off || !worksOnDay(calendar, day)) return { hours: 0, dust: '', grams: 0, fines: 0 };
    if (left <= 0 && idle <= 0) {
      left = whole(r, 3, 30);
      idle = chanceOf(r, 0.35) ? whole(r, 1, 9) : 0;
      strength = between(r, 0.4, 1.7);
      const choice = day >= pace.newestOnly ? pace.dusts.length - 1 : whole(r, 0, pace.dusts.length - 1);
      dust = pace.dusts[choice];
    }
    if (left <= 0) {
      idle -= 1;
      if (chanceOf(r, 0.8)) return { hours: 0, dust: '', grams: 0, fines: 0 };
    } else left -= 1;
    if (!dust || chanceOf(r, 0.08)) return { hours: 0, dust: '', grams: 0, fines: 0 };
    const level =
      pace.hours *
      Math.exp((pace.drift * (day - PAST / 2)) / YEAR) *
      (day >= pace.step.day ? pace.step.by : 1) *
      (1 + pace.season * Math.sin((2 * Math.PI * day) / YEAR));
    const hours = Math.min(9, Math.max(0.2, level * strength * between(r, 0.45, 1.55)));
    const grams = hours * dust.gramsPerHour * Math.exp(unseen + 0.3 * r.normal());
    return { hours, dust: dust.name, grams, fines: grams * dust.fine };
  });
};
