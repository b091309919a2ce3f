import { type RawBuilder, sql, type SqlBool } from 'kysely';
import type { z } from 'zod';
import type * as Replies from '@/contracts/reads';
import { addDays } from '@/core/calendar/calendar-date';

/** The output type of a list answer of `contracts/reads`. */
export type Page<K extends keyof typeof Replies> = (typeof Replies)[K] extends z.ZodType<infer T> ? T : never;

/** A page of rows that were read with one row too many: that row shows whether another page follows. */
export const cut = <Row extends { readonly id: number }>(rows: readonly Row[], limit: number) => {
  const items = rows.slice(0, limit);
  return { items, next: rows.length > limit ? (items.at(-1)?.id ?? null) : null };
};

const LAST_DAY = '9999-12-30';

/** Restricts a column of days or UTC moments to days, both included. */
export const within = (
  column: string,
  { from = '', to = LAST_DAY }: { readonly from?: string | undefined; readonly to?: string | undefined },
): RawBuilder<SqlBool> => sql<SqlBool>`${sql.ref(column)} >= ${from} and ${sql.ref(column)} < ${addDays(to, 1)}`;
