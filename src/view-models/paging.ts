/** One page of a list. */
export interface Page<T> {
  readonly items: readonly T[];
  /** From 1. */
  readonly number: number;
  readonly pages: number;
}

/** The page that an address asks for; the first where it asks for none there is. */
export const pageOf = <T>(
  list: readonly T[],
  { asked, size }: { readonly asked: string | null; readonly size: number },
): Page<T> => {
  const pages = Math.max(1, Math.ceil(list.length / size));
  const wanted = Number(asked ?? '1');
  const number = Number.isInteger(wanted) && wanted >= 1 && wanted <= pages ? wanted : 1;
  return { items: list.slice((number - 1) * size, number * size), number, pages };
};

/** Whole months of a list, newest first, and where the next earlier one begins. */
export interface Months<T> {
  readonly items: readonly T[];
  /** The month the next part begins with, such as 2026-03; null when this was the last. */
  readonly earlier: string | null;
}

const MONTH = /^\d{4}-(0[1-9]|1[0-2])$/;
/** The month of a day: 2026-03 of 2026-03-14. */
export const monthOf = (day: string): string => day.slice(0, 'yyyy-mm'.length);

/** Whole months back from one that is asked for, until there is a page of lines. The list is newest first. */
export const monthsOf = <T extends { readonly day: string }>(
  list: readonly T[],
  { asked, least }: { readonly asked: string | null; readonly least: number },
): Months<T> => {
  const wanted = asked !== null && MONTH.test(asked) ? asked : null;
  const rest = wanted === null ? list : list.filter((l) => monthOf(l.day) <= wanted);
  const last = rest[Math.min(least, rest.length) - 1];
  const items = last ? rest.filter((l) => monthOf(l.day) >= monthOf(last.day)) : [];
  const next = rest[items.length];
  return { items, earlier: next ? monthOf(next.day) : null };
};
