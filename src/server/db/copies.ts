import { createHash } from 'node:crypto';
import {
  closeSync,
  copyFileSync,
  createReadStream,
  existsSync,
  fsyncSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import Sqlite from 'better-sqlite3';
import { type CopyFacts, CopyFactsJson } from '@/contracts/backup';
import { faultOf, makeFolders } from './connect';
import { MIGRATIONS } from './migrations';

// Whole copies of the records: taken while the server runs, checked before they count, restored when it does not.

export interface Copy extends CopyFacts {
  readonly name: string;
}

/** Where the copies of a file of records lie: beside it. */
export const copiesFolder = (file: string): string => `${file}.backups`;

/** Made from the records, or of no weight in them: they are no measure of whether a copy is whole. */
const NOT_RECORDS = new Set([
  'machine_digest',
  'machine_forecast',
  'stock_on_hand',
  'plan_promise',
  'yard_revision',
  'session',
  'kysely_migration_lock',
]);

const openAsIs = (file: string): Sqlite.Database => new Sqlite(file, { readonly: true, fileMustExist: true });

/** Rows of each table of records. */
export const rowsIn = (raw: Sqlite.Database): Record<string, number> => {
  const tables = raw.prepare("select name from sqlite_master where type = 'table'").pluck().all() as string[];
  return Object.fromEntries(
    tables
      .filter((t) => !t.startsWith('sqlite_') && !NOT_RECORDS.has(t))
      .map((t) => [t, raw.prepare(`select count(*) from "${t}"`).pluck().get() as number]),
  );
};

const schemaOf = (raw: Sqlite.Database): string => {
  const last: unknown = raw.prepare('select max(name) from kysely_migration').pluck().get();
  return typeof last === 'string' ? last : '';
};

const sha256 = async (file: string): Promise<string> => {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
};

const toDisk = (path: string): void => {
  const handle = openSync(path, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
};

/** Thrown for a backup that is damaged, or has fewer rows than the records. */
/** Whether this Moorwind understands records of that schema. */
export const knowsSchema = (schema: string): boolean => schema in MIGRATIONS;

/** Rows of each table of a file that others may be at work on. */
export const rowsOfFile = (file: string): Record<string, number> => {
  const raw = new Sqlite(file, { readonly: true, fileMustExist: true });
  try {
    return rowsIn(raw);
  } finally {
    raw.close();
  }
};

export class CopyError extends Error {}

/** Why a copy could not be taken, by name; null for a fault of our own. The records are untouched. */
export const copyFault = (error: unknown): ReturnType<typeof faultOf> | 'backup.not-whole' => {
  if (error instanceof CopyError) return 'backup.not-whole';
  const full = error instanceof Error && 'code' in error && (error.code === 'ENOSPC' || error.code === 'EDQUOT');
  return full ? 'server.disk-full' : faultOf(error);
};

/** Checks a file and returns its content. Throws CopyError for a damaged or foreign file. */
export const inspectCopy = (file: string): { readonly rows: Record<string, number>; readonly schema: string } => {
  let raw: Sqlite.Database | null = null;
  try {
    raw = openAsIs(file);
    if (raw.pragma('integrity_check(1)', { simple: true }) !== 'ok') throw new CopyError('damaged');
    if ((raw.pragma('foreign_key_check') as unknown[]).length > 0) throw new CopyError('damaged');
    const tables = raw.prepare("select name from sqlite_master where type = 'table'").pluck().all();
    if (!tables.includes('kysely_migration') || !tables.includes('machine')) throw new CopyError('foreign');
    return { rows: rowsIn(raw), schema: schemaOf(raw) };
  } catch (error) {
    if (error instanceof Sqlite.SqliteError && /NOTADB|CORRUPT/.test(error.code)) throw new CopyError('damaged');
    throw error;
  } finally {
    raw?.close();
  }
};

/** The backups beside a file, newest first; one without a readable sidecar is left out. */
export const listCopies = (file: string): readonly Copy[] => {
  const folder = copiesFolder(file);
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((name) => name.endsWith('.sqlite') && existsSync(join(folder, `${name}.json`)))
    .flatMap((name): readonly Copy[] => {
      try {
        const paper: unknown = JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8'));
        const facts = CopyFactsJson.safeParse(paper);
        return facts.success && statSync(join(folder, name)).size === facts.data.bytes ? [{ name, ...facts.data }] : [];
      } catch {
        return [];
      }
    })
    .sort((a, b) => (a.at < b.at ? 1 : -1));
};

export const removeCopies = (file: string, names: readonly string[]): void => {
  for (const name of names)
    for (const path of [`${name}.json`, name]) rmSync(join(copiesFolder(file), path), { force: true });
};

interface Taken {
  readonly at: string;
  readonly why: CopyFacts['why'];
}

const nameOf = ({ at, why }: Taken): string => `${at.replaceAll(':', '-').replace(/\.\d+Z$/, 'Z')}-${why}.sqlite`;

const PAGES_A_STEP = 20_000;

/** Makes a backup one file: without -wal and -shm. */
const asOneFile = (file: string): void => {
  const raw = new Sqlite(file);
  try {
    raw.pragma('journal_mode = DELETE');
  } finally {
    raw.close();
  }
};

/** Checks a finished copy, writes its paper, and only then gives it its name. */
const accept = async (
  making: string,
  { file, at, why, least }: Taken & { readonly file: string; readonly least: Readonly<Record<string, number>> },
): Promise<Copy> => {
  const { rows, schema } = inspectCopy(making);
  const short = Object.entries(least).find(([table, n]) => (rows[table] ?? -1) < n);
  if (short) throw new CopyError(`short of ${short[0]}`);
  const name = nameOf({ at, why });
  const facts: CopyFacts = {
    format: 1,
    at,
    why,
    bytes: statSync(making).size,
    sha256: await sha256(making),
    schema,
    rows,
  };
  toDisk(making);
  writeFileSync(join(copiesFolder(file), `${name}.json`), JSON.stringify(facts, null, 1));
  renameSync(making, join(copiesFolder(file), name));
  toDisk(copiesFolder(file));
  return { name, ...facts };
};

/**
 * Takes a copy while others read and write. It counts only once it has been read through and holds at least what the
 * records held when it was begun. Throws what the disk says; nothing half-done stays.
 */
export const takeCopy = async (file: string, taken: Taken): Promise<Copy> => {
  makeFolders(copiesFolder(file));
  const making = join(copiesFolder(file), `${nameOf(taken)}.part`);
  const raw = openAsIs(file);
  try {
    const least = rowsIn(raw);
    // In large steps: a write between two small ones would restart the backup each time.
    await raw.backup(making, { progress: () => PAGES_A_STEP });
    asOneFile(making);
    return await accept(making, { file, ...taken, least });
  } catch (error) {
    rmSync(making, { force: true });
    throw error;
  } finally {
    raw.close();
    for (const rest of ['-wal', '-shm', '-journal']) rmSync(`${making}${rest}`, { force: true });
  }
};

/** Whether another program has the records open: a restore needs them closed. */
export const isInUse = (file: string): boolean => {
  if (!existsSync(file)) return false;
  const raw = new Sqlite(file, { timeout: 0 });
  try {
    // A program that has it open in WAL holds a shared lock: then it cannot leave that mode.
    return raw.pragma('journal_mode = DELETE', { simple: true }) !== 'delete';
  } catch (error) {
    if (error instanceof Sqlite.SqliteError && /BUSY|LOCKED/.test(error.code)) return true;
    // A damaged file is what a copy is there for.
    if (error instanceof Sqlite.SqliteError && /NOTADB|CORRUPT/.test(error.code)) return false;
    throw error;
  } finally {
    raw.close();
  }
};

/** Whether a copy is still what its paper says, byte for byte; one without a paper has nothing to be held to. */
export const isAsTaken = async (path: string): Promise<boolean> => {
  if (!existsSync(`${path}.json`)) return true;
  try {
    const facts = CopyFactsJson.parse(JSON.parse(readFileSync(`${path}.json`, 'utf8')));
    return facts.sha256 === (await sha256(path));
  } catch {
    return false;
  }
};

/**
 * Keeps the records that a restore replaces: as a backup, or as a plain copy where they cannot be read. Returns the
 * name; null where there is nothing.
 */
const keepReplaced = async (file: string, at: string): Promise<string | null> => {
  if (!existsSync(file)) return null;
  try {
    return (await takeCopy(file, { at, why: 'replaced' })).name;
  } catch (error) {
    if (copyFault(error) !== 'backup.not-whole' && copyFault(error) !== 'server.disk') throw error;
    const aside = `${file}.damaged-${at.replaceAll(':', '-')}`;
    for (const rest of ['', '-wal', '-shm'])
      if (existsSync(`${file}${rest}`)) copyFileSync(`${file}${rest}`, `${aside}${rest}`);
    return aside;
  }
};

/** Replaces the records by a checked backup; keeps the replaced ones first. Returns their name. */
export const restoreCopy = async (file: string, from: string, at: string): Promise<string | null> => {
  const replaced = await keepReplaced(file, at);
  const making = `${file}.restoring`;
  try {
    copyFileSync(from, making);
    toDisk(making);
    inspectCopy(making);
    for (const rest of ['-wal', '-shm']) rmSync(`${file}${rest}`, { force: true });
    renameSync(making, file);
  } finally {
    rmSync(making, { force: true });
  }
  return replaced;
};
