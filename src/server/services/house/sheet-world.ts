import type { Dust } from '@/core/dust/dust';
import { dayAt } from '@/core/calendar/calendar-date';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Machine } from '@/core/machine/machine';
import type { Instrument } from '@/core/record/records';
import type { Column, SheetRow } from '@/core/sheet/read';
import type { Site } from '@/core/site/site';
import type { Db } from '../../db/connect';
import { findMachine } from '../../repositories/machines';
import { checkMoment } from '../measuring/check-moment';

/** What every row of a sheet is written with; read once. */
export interface SheetWorld {
  readonly tx: Db;
  readonly at: string;
  readonly by: string;
  readonly site: Site;
  readonly parts: ReadonlyMap<string, number>;
  readonly meters: readonly Instrument[];
  readonly dusts: readonly Dust[];
  readonly vouched: boolean;
  readonly columns: readonly Column[];
  /** Machines by the tag in the sheet, loaded on first use. */
  readonly machines: Map<string, Machine | null>;
  /** What earlier rows brought. */
  readonly seen: Set<string>;
}

export type Done = Result<null>;
export const done: Done = ok(null);

export const textOf = (row: SheetRow, key: string): string => {
  const value = row[key];
  return typeof value === 'string' ? value : '';
};
export const numberOf = (row: SheetRow, key: string): number | null => {
  const value = row[key];
  return typeof value === 'number' ? value : null;
};
export const oneOf = <T extends string>(names: readonly T[], value: string, usual: T): T =>
  names.find((n) => n === value) ?? usual;

export const twice = (w: SheetWorld, what: string, key: string): Done => {
  const known = what.toUpperCase();
  if (w.seen.has(known)) return fail(failure('sheet.twice', key, { what }));
  w.seen.add(known);
  return done;
};

export const machineOf = async (w: SheetWorld, row: SheetRow): Promise<Result<Machine>> => {
  const tag = textOf(row, 'tag');
  const known = w.machines.get(tag) ?? (w.machines.has(tag) ? null : await findMachine(w.tx, tag));
  w.machines.set(tag, known);
  return known ? ok(known) : fail(failure('sheet.tag', 'tag', { tag }));
};

/** A moment of the day of a row: noon there, or now where that is still to come. */
const momentOf = ({ site, at }: SheetWorld, day: string): string => {
  const [noon] = [12, 0, 23, 6, 18]
    .map((h) => `${day}T${String(h).padStart(2, '0')}:00:00.000Z`)
    .filter((m) => dayAt(m, site.timeZone) === day);
  const moment = noon ?? `${day}T12:00:00.000Z`;
  return moment > at && dayAt(at, site.timeZone) === day ? at : moment;
};

export const dayChecked = (w: SheetWorld, machine: Machine, day: string): Result<string> => {
  const performedAt = momentOf(w, day);
  const wrong = checkMoment({ performedAt, now: w.at, machine, timeZone: w.site.timeZone });
  return wrong.length > 0 ? fail(...wrong.map((f) => ({ ...f, path: 'day' }))) : ok(performedAt);
};
