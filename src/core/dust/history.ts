import type { CalendarDate } from '../calendar/calendar-date';
import { assessDust, type DustStanding, type DustStatement, stated, together } from './assess';
import type { Dust } from './dust';
import { normalised } from './text';

/** One statement of the dust a machine has collected. Never overwritten. */
export interface CollectedEntry extends DustStatement {
  readonly id: number;
  /** The first day of that dust, as far as known; null when unknown. */
  readonly since: CalendarDate | null;
  /** When it was said, UTC ISO. */
  readonly at: string;
  readonly by: string;
}

/** Run hours written down with a dust: a fact of its own. */
export interface CollectedHours {
  readonly day: CalendarDate;
  readonly dust: string;
}

export const DECONTAMINATED_BY = ['job', 'contractor'] as const;

/** A recorded decontamination: a job of its own walked to its end, or a contractor's with his paper. */
export interface Decontamination {
  readonly id: number;
  readonly at: string;
  readonly on: CalendarDate;
  readonly by: string;
  readonly how: (typeof DECONTAMINATED_BY)[number];
  /** Who did it and on which paper; '' for a job of one's own. */
  readonly paper: string;
  readonly jobId: number | null;
}

export interface DustHistory {
  readonly entries: readonly CollectedEntry[];
  readonly hours: readonly CollectedHours[];
  readonly decontaminations: readonly Decontamination[];
}

/** One dust text of a machine since its last decontamination, with what follows from it. */
export interface CollectedDust {
  readonly text: string;
  readonly from: CalendarDate | null;
  readonly to: CalendarDate | null;
  readonly said: CollectedEntry | null;
  readonly standing: DustStanding;
}

export interface MachineDust {
  /** Newest first. */
  readonly collected: readonly CollectedDust[];
  /** The worst of all of it governs. */
  readonly standing: DustStanding;
  readonly last: Decontamination | null;
}

/** The same words for the same dust are one line, with the latest answers. */
const lines = (
  history: DustHistory,
  last: Decontamination | null,
): ReadonlyMap<
  string,
  { readonly said: CollectedEntry | null; readonly text: string; readonly days: readonly (CalendarDate | null)[] }
> => {
  const entries = history.entries.filter((e) => last === null || e.at > last.at);
  // Hours on the day of a decontamination count: their order on that day is not recorded.
  const hours = history.hours.filter((h) => h.dust.trim() !== '' && (last === null || h.day >= last.on));
  const found = new Map<
    string,
    { said: CollectedEntry | null; text: string; days: readonly (CalendarDate | null)[] }
  >();
  for (const e of entries) {
    const key = normalised(e.text);
    found.set(key, { said: e, text: e.text, days: [...(found.get(key)?.days ?? []), e.since] });
  }
  // Earlier answers about the same words are kept, also from before a decontamination.
  const saidBefore = (key: string) => history.entries.findLast((e) => normalised(e.text) === key) ?? null;
  // Years of hours name a handful of dusts: each is read once.
  const keys = new Map<string, string>();
  const keyOf = (text: string): string => {
    const known = keys.get(text) ?? normalised(text);
    keys.set(text, known);
    return known;
  };
  for (const h of hours) {
    const key = keyOf(h.dust);
    const known = found.get(key);
    found.set(key, {
      said: known?.said ?? saidBefore(key),
      text: known?.text ?? h.dust,
      days: [...(known?.days ?? []), h.day],
    });
  }
  return found;
};

const edge = (days: readonly (CalendarDate | null)[], which: 'first' | 'last'): CalendarDate | null => {
  const sorted = days.filter((d) => d !== null).sort();
  return (which === 'first' ? sorted[0] : sorted.at(-1)) ?? null;
};

/**
 * The dust a machine has collected since its last decontamination; the strictest governs. Only a recorded
 * decontamination clears it. A machine without statements has collected nothing. Source: common practice, no published
 * source.
 */
export const machineDust = (register: readonly Dust[], history: DustHistory): MachineDust => {
  const last = history.decontaminations.at(-1) ?? null;
  const collected = [...lines(history, last).values()]
    .map(({ said, text, days }): CollectedDust => ({
      text,
      said,
      from: edge(days, 'first'),
      to: edge(days, 'last'),
      standing: assessDust(register, said ?? stated(text)),
    }))
    .sort((a, b) => ((b.said?.at ?? b.to ?? '') < (a.said?.at ?? a.to ?? '') ? -1 : 1));
  return { collected, standing: together(collected.map((c) => c.standing)), last };
};

export const NO_DUST: MachineDust = { collected: [], standing: together([]), last: null };

/** A machine's dust with one more statement: shown while it is typed. */
export const withStatement = (
  register: readonly Dust[],
  { collected, last }: MachineDust,
  statement: DustStatement,
): MachineDust => {
  const key = normalised(statement.text);
  const said: CollectedDust = {
    text: statement.text,
    said: null,
    from: null,
    to: null,
    standing: assessDust(register, statement),
  };
  const all = [said, ...collected.filter((c) => normalised(c.text) !== key)];
  return { collected: all, standing: together(all.map((c) => c.standing)), last };
};

/** The last statement about a machine with its answers, to repeat or change it. */
export const lastStatement = ({ collected }: MachineDust, words: string): DustStatement => {
  const newest = collected[0];
  if (!newest?.said) return stated(newest?.text ?? words);
  const { text, confirmed, denied, answers, own, lowerBecause } = newest.said;
  return { text, confirmed, denied, answers, own, lowerBecause };
};
