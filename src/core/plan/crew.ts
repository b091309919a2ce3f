import { type CalendarDate, weekdayOf } from '../calendar/calendar-date';

// The people of the plan: how many minutes each has on a day, who is away, and who may do contained work.

/** Something recorded about a person's time; the newest word stands. */
export type CrewEntry =
  /** Usual minutes for this work by weekday, Sunday first. */
  | { readonly kind: 'times'; readonly minutes: readonly number[] }
  | { readonly kind: 'absent'; readonly from: CalendarDate; readonly to: CalendarDate; readonly why: string }
  | { readonly kind: 'present'; readonly from: CalendarDate; readonly to: CalendarDate }
  /** Another person does this one's work of a day; null takes it back. */
  | { readonly kind: 'handsOver'; readonly day: CalendarDate; readonly to: number | null };

export interface CrewPerson {
  readonly id: number;
  readonly initials: string;
  /** Oldest first. */
  readonly entries: readonly CrewEntry[];
  /** Whether the papers for contained work are in order on a day. */
  readonly mayContainOn: (day: CalendarDate) => boolean;
}

/** One person on one day. */
export interface PersonDay {
  readonly id: number;
  readonly initials: string;
  readonly minutes: number;
  readonly mayContain: boolean;
}

/** The minutes of a day: of everybody, and of those who may do contained work. */
export interface CrewDay {
  readonly minutes: number;
  readonly containedMinutes: number;
  readonly people: readonly PersonDay[];
}

/** The usual minutes of a person by weekday, Sunday first; null where nobody has said them. Definition: the newest entry. Total. */
export const usualMinutes = ({ entries }: CrewPerson): readonly number[] | null =>
  entries.findLast((e) => e.kind === 'times')?.minutes ?? null;

const isAbsent = ({ entries }: CrewPerson, day: CalendarDate): boolean =>
  entries.findLast((e) => (e.kind === 'absent' || e.kind === 'present') && e.from <= day && day <= e.to)?.kind ===
  'absent';

/** The person who does this one's work on a day; null where nobody else does. */
const standIn = ({ entries }: CrewPerson, day: CalendarDate): number | null => {
  const said = entries.findLast((e) => e.kind === 'handsOver' && e.day === day);
  return said?.kind === 'handsOver' ? said.to : null;
};

const ownMinutes = (p: CrewPerson, day: CalendarDate): number =>
  isAbsent(p, day) ? 0 : (usualMinutes(p)?.[weekdayOf(day)] ?? 0);

/**
 * The people of each day, in minutes. Work that is handed over gives its minutes to the other person, unless that one is
 * away. null where nobody's usual minutes are on record: then the yard has one figure for a day. Definition: the newest
 * word about each day. Valid: days of one calendar.
 */
export const crewDays = (people: readonly CrewPerson[], days: readonly CalendarDate[]): readonly CrewDay[] | null => {
  if (people.every((p) => usualMinutes(p) === null)) return null;
  return days.map((day) => {
    const given = people.map((p) => {
      const to = people.find((x) => x.id === standIn(p, day));
      return to && to.id !== p.id && !isAbsent(to, day) ? to.id : null;
    });
    const all = people.map((p, i): PersonDay => {
      const taken = people.reduce((sum, x, k) => sum + (given[k] === p.id ? ownMinutes(x, day) : 0), 0);
      return {
        id: p.id,
        initials: p.initials,
        minutes: (given[i] === null ? ownMinutes(p, day) : 0) + taken,
        mayContain: p.mayContainOn(day),
      };
    });
    const sum = (of: readonly PersonDay[]): number => of.reduce((n, p) => n + p.minutes, 0);
    return { minutes: sum(all), containedMinutes: sum(all.filter((p) => p.mayContain)), people: all };
  });
};

/** One opening of a day's plan. */
export interface OpeningOfDay {
  readonly key: string;
  readonly minutes: number;
  /** Whether only people with papers for contained work may do it. */
  readonly contained: boolean;
}

/**
 * Who does which opening of a day, by its key: contained work first and only by people with papers, then the longest; each
 * goes to the person with the most minutes left. null where nobody may. A person's share may be longer than the minutes where no other way to
 * share it out is left. Choice: a modelling choice. Valid: people of that day.
 */
export const sharedOut = (
  openings: readonly OpeningOfDay[],
  people: readonly PersonDay[],
): ReadonlyMap<string, PersonDay | null> => {
  const left = new Map(people.map((p) => [p.id, p.minutes]));
  const order = [...openings].sort(
    (a, b) => Number(b.contained) - Number(a.contained) || b.minutes - a.minutes || (a.key < b.key ? -1 : 1),
  );
  return new Map(
    order.map(({ key, minutes, contained }) => {
      const able = people.filter((p) => p.minutes > 0 && (p.mayContain || !contained));
      const who = able.reduce<PersonDay | null>((best, p) => {
        const mine = left.get(p.id) ?? 0;
        return best === null || mine > (left.get(best.id) ?? 0) ? p : best;
      }, null);
      if (who) left.set(who.id, (left.get(who.id) ?? 0) - minutes);
      return [key, who] as const;
    }),
  );
};
