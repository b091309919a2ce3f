import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import Sqlite from 'better-sqlite3';
import { type Db, makeFolders, migrate, openDatabase } from './connect';
import { MIGRATIONS } from './migrations';

/** Exit codes of a start that is refused. Source: sysexits.h, BSD. */
export const EXIT = { data: 65, cannotCreate: 73, busy: 75, config: 78, unavailable: 69 } as const;

/** A start that is refused, in a sentence for the person at the console, with the code the process ends with. */
export class StartError extends Error {
  constructor(
    message: string,
    readonly exitCode: number,
  ) {
    super(message);
  }
}

const codeOf = (error: unknown): string =>
  error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : '';

/** An error of SQLite or the system about a file, as a sentence; an unknown error is thrown unchanged. */
const refusal = (file: string, error: unknown): unknown => {
  const code = codeOf(error);
  if (code.startsWith('SQLITE_NOTADB'))
    return new StartError(`${file} is no database of Moorwind. Name another file in MOORWIND_DATA.`, EXIT.data);
  if (code.startsWith('SQLITE_CORRUPT'))
    return new StartError(`${file} is damaged. Nothing was changed: restore your newest backup.`, EXIT.data);
  if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED'))
    return new StartError(`${file} is held by another program. Close it and start again.`, EXIT.busy);
  if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC')
    return new StartError(
      `The disk of ${file} is full. Make room and start again: nothing was changed.`,
      EXIT.cannotCreate,
    );
  if (code.startsWith('SQLITE_READONLY') || code.startsWith('SQLITE_CANTOPEN') || code.startsWith('SQLITE_IOERR'))
    return new StartError(`${file} cannot be opened for writing. Check who may write there.`, EXIT.cannotCreate);
  return error;
};

const makeFolder = (file: string): void => {
  if (existsSync(file) && statSync(file).isDirectory())
    throw new StartError(`${file} is a folder. Name a file in MOORWIND_DATA.`, EXIT.config);
  try {
    makeFolders(dirname(file));
  } catch (error) {
    throw new StartError(
      `The folder ${dirname(file)} cannot be made (${codeOf(error)}). Name another file in MOORWIND_DATA.`,
      EXIT.cannotCreate,
    );
  }
};

/** Looks at the file before anything is written to it: a whole one, and of a schema this Moorwind knows. Answers which of its migrations are done. */
const inspect = (file: string, waitMs: number): readonly string[] => {
  const raw = new Sqlite(file, { timeout: waitMs });
  try {
    const found: unknown = raw.pragma('quick_check(1)', { simple: true });
    if (found !== 'ok')
      throw new StartError(`${file} is damaged. Nothing was changed: restore your newest backup.`, EXIT.data);
    const tables = raw.prepare("select name from sqlite_master where type = 'table'").pluck().all() as string[];
    if (tables.length === 0) return [];
    if (!tables.includes('kysely_migration'))
      throw new StartError(`${file} is a database of something else. Name another file in MOORWIND_DATA.`, EXIT.data);
    return raw.prepare('select name from kysely_migration order by name').pluck().all() as string[];
  } finally {
    raw.close();
  }
};

/** A whole copy of the file beside it, before its schema changes; an existing copy is kept. */
const keepCopy = (file: string, done: readonly string[], waitMs: number): void => {
  const copy = `${file}.before-${basename(Object.keys(MIGRATIONS).at(-1) ?? 'change')}`;
  if (done.length === 0 || existsSync(copy)) return;
  // Gets its name when it is whole: an incomplete one must not count as a backup at the next start.
  const making = `${copy}.part`;
  rmSync(making, { force: true });
  const raw = new Sqlite(file, { timeout: waitMs });
  try {
    raw.prepare('vacuum into ?').run(making);
  } finally {
    raw.close();
  }
  renameSync(making, copy);
};

/**
 * Opens the records at a start: refuses a file that is foreign, damaged, locked, or newer than this Moorwind, and makes
 * a backup before a schema changes. Throws StartError.
 */
export const openRecords = async (file: string, waitMs = 5000): Promise<Db> => {
  makeFolder(file);
  try {
    const done = inspect(file, waitMs);
    const unknown = done.find((name) => !(name in MIGRATIONS));
    if (unknown !== undefined)
      throw new StartError(
        `${file} was written by a newer Moorwind (${unknown}). Start that one; this one would not understand it.`,
        EXIT.data,
      );
    if (Object.keys(MIGRATIONS).some((name) => !done.includes(name))) keepCopy(file, done, waitMs);
    const db = openDatabase(file);
    await migrate(db);
    return db;
  } catch (error) {
    throw refusal(file, error);
  }
};
