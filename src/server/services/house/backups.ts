import { DAY_MS, HOUR_MS } from '@/core/calendar/time';
import { dayAt } from '@/core/calendar/calendar-date';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { type CopyReason, outdatedCopies } from '@/core/record/rotation';
import { type Copy, copyFault, listCopies, removeCopies, rowsOfFile, takeCopy } from '../../db/copies';
import { loadSite } from '../../repositories/site';
import type { Context } from '../yard/user-action';

/** The records, and the file they lie in. */
export interface Kept extends Pick<Context, 'db' | 'now'> {
  readonly file: string;
}

/** The board reports a backup older than this. */
const OLD_DAYS = 7;

const refused = (error: unknown): Result<never> => {
  const fault = copyFault(error);
  if (fault) return fail(failure(fault));
  throw error;
};

/** One at a time for a file: who asks while one is being taken is handed that one. */
const taking = new Map<string, Promise<Result<Copy>>>();

const take = async ({ db, now, file }: Kept, why: CopyReason): Promise<Result<Copy>> => {
  try {
    const made = await takeCopy(file, { at: now(), why });
    const { timeZone } = await loadSite(db);
    const dated = listCopies(file).map((c) => ({ ...c, day: dayAt(c.at, timeZone) }));
    removeCopies(file, outdatedCopies(dated));
    return ok(made);
  } catch (error) {
    return refused(error);
  }
};

/** Makes a checked backup and deletes outdated ones. */
export const backUp = async (kept: Kept, why: CopyReason): Promise<Result<Copy>> => {
  const underWay = taking.get(kept.file);
  if (underWay) return underWay;
  const made = take(kept, why);
  taking.set(kept.file, made);
  try {
    return await made;
  } finally {
    taking.delete(kept.file);
  }
};

/** Takes the day's copy where the day has none yet. */
export const backUpDaily = async (kept: Kept): Promise<Result<Copy | null>> => {
  const { timeZone } = await loadSite(kept.db);
  const today = dayAt(kept.now(), timeZone);
  return listCopies(kept.file).some((c) => dayAt(c.at, timeZone) === today) ? ok(null) : backUp(kept, 'daily');
};

/** Days since the newest copy, when that is longer than it should be; null where all is well. Records younger than that need none yet. */
export const daysWithoutCopy = async ({ db, now, file }: Kept): Promise<number | null> => {
  const [newest] = listCopies(file);
  const first = await db
    .selectFrom('user_action')
    .select(({ fn }) => fn.min('at').as('at'))
    .executeTakeFirst();
  const since = newest?.at ?? first?.at ?? null;
  if (since === null) return null;
  const days = Math.floor((Date.parse(now()) - Date.parse(since)) / DAY_MS);
  return days >= OLD_DAYS ? days : null;
};

/** Looks every hour whether the day has its copy; the first time when the start is over. Answers how to end it. */
export const keepCopies = (kept: Kept): (() => void) => {
  const look = () => {
    backUpDaily(kept)
      .then((r) => {
        if (!r.ok) console.error(`No copy of the records was taken: ${r.failures.map((f) => f.code).join(', ')}`);
      })
      .catch((error: unknown) => console.error(error));
  };
  const first = setTimeout(look, HOUR_MS / 60).unref();
  const hourly = setInterval(look, HOUR_MS).unref();
  return () => {
    clearTimeout(first);
    clearInterval(hourly);
  };
};

/** The copies there are, newest first, and how long there was none where that is too long. */
export const loadBackups = async (
  kept: Kept,
): Promise<{
  readonly copies: readonly Copy[];
  readonly old: number | null;
  /** Rows of each table the records hold now. */
  readonly rows: Readonly<Record<string, number>>;
}> => ({
  copies: listCopies(kept.file),
  old: await daysWithoutCopy(kept),
  rows: rowsOfFile(kept.file),
});
