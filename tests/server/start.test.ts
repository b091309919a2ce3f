import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { sql } from 'kysely';
import { describe, expect, it } from 'vitest';
import { isBusy, migrate, openDatabase, openMigrated } from '@/server/db/connect';
import { MIGRATIONS } from '@/server/db/migrations';
import { EXIT, openRecords, StartError } from '@/server/db/open-records';
import { loadSite } from '@/server/repositories/site';
import { loadTests } from '@/server/repositories/tests';
import { seedDemo } from '../../demo/seed';
import { NOW } from '../support/database';

const folder = () => mkdtempSync(join(tmpdir(), 'moorwind-start-'));
const yard = async (): Promise<string> => {
  const file = join(folder(), 'yard.sqlite');
  const db = await openMigrated(file);
  await seedDemo(db, { now: NOW, seed: 7 });
  await db.destroy();
  return file;
};
const refused = async (file: string, waitMs = 50) => {
  try {
    await (await openRecords(file, waitMs)).destroy();
    return 'opened';
  } catch (error) {
    if (!(error instanceof StartError)) throw error;
    return `${error.exitCode} ${error.message.replace(file, 'FILE')}`;
  }
};

describe('a start that is refused, in a sentence and with its exit code', () => {
  it('a folder, or a folder that cannot be made', async () => {
    expect(await refused(folder())).toBe(`${EXIT.config} FILE is a folder. Name a file in MOORWIND_DATA.`);
    const file = join(folder(), 'a file');
    writeFileSync(file, 'x');
    expect(await refused(join(file, 'below', 'yard.sqlite'))).toMatch(/^73 The folder .* cannot be made \(ENOTDIR\)/);
  });

  it('a file that is no database, or a database of something else', async () => {
    const text = join(folder(), 'notes.txt');
    writeFileSync(text, 'a shopping list, long enough to be looked at '.repeat(100));
    expect(await refused(text)).toMatch(/^65 FILE is no database of Moorwind/);
    expect(readFileSync(text, 'utf8')).toMatch(/^a shopping list/);
    const other = join(folder(), 'other.sqlite');
    const raw = new Sqlite(other);
    raw.exec('create table recipes (name text)');
    raw.close();
    expect(await refused(other)).toMatch(/^65 FILE is a database of something else/);
  });

  it('a file cut in half, and one with bytes turned over in its middle', async () => {
    const cut = await yard();
    truncateSync(cut, Math.floor(statSync(cut).size / 2 / 4096) * 4096);
    expect(await refused(cut)).toMatch(/^65 FILE is damaged. Nothing was changed/);
    const bent = await yard();
    const bytes = readFileSync(bent);
    bytes.fill(0x5a, 4096 * 3, 4096 * 20);
    writeFileSync(bent, bytes);
    expect(await refused(bent)).toMatch(/^65 FILE is damaged/);
  });

  it('a file of a newer Moorwind', async () => {
    const file = await yard();
    const raw = new Sqlite(file);
    raw.prepare('insert into kysely_migration (name, timestamp) values (?, ?)').run('999-later', NOW);
    raw.close();
    expect(await refused(file)).toMatch(/^65 FILE was written by a newer Moorwind \(999-later\)/);
  });

  it('a file that another program holds', async () => {
    const file = await yard();
    const raw = new Sqlite(file);
    raw.pragma('journal_mode = DELETE');
    raw.exec('begin exclusive');
    expect(await refused(file)).toMatch(/^75 FILE is held by another program/);
    raw.exec('commit');
    raw.close();
    expect(await refused(file)).toBe('opened');
  });
});

describe('a start that goes on', () => {
  it('makes its folder and an empty file, and opens a yard with all its records', async () => {
    const fresh = join(folder(), 'new', 'folder', 'yard.sqlite');
    expect(await refused(fresh)).toBe('opened');
    const file = await yard();
    const db = await openRecords(file);
    expect((await loadTests(db)).length).toBeGreaterThan(100);
    await db.destroy();
    // Nothing to change, nothing to keep a copy of.
    expect(existsSync(`${file}.before-${Object.keys(MIGRATIONS).at(-1) ?? ''}`)).toBe(false);
  });

  it('keeps a whole copy before it changes a schema, and does not write over it', async () => {
    const names = Object.keys(MIGRATIONS);
    const last = names.at(-1) ?? '';
    const file = join(folder(), 'yard.sqlite');
    const old = openDatabase(file);
    await migrate(old, Object.fromEntries(Object.entries(MIGRATIONS).filter(([name]) => name !== last)));
    await old.destroy();
    const copy = `${file}.before-${last}`;
    // What an earlier start left half made does not count.
    writeFileSync(`${copy}.part`, 'half a copy');
    await (await openRecords(file)).destroy();
    expect(existsSync(`${copy}.part`)).toBe(false);
    const done = (path: string) => {
      const raw = new Sqlite(path, { readonly: true });
      const found = raw.prepare('select name from kysely_migration order by name').pluck().all();
      raw.close();
      return found;
    };
    expect(done(copy)).toEqual(names.slice(0, -1));
    expect(done(file)).toEqual(names);
    const before = readFileSync(copy);
    copyFileSync(copy, file);
    for (const end of ['-wal', '-shm']) writeFileSync(file + end, '');
    await (await openRecords(file)).destroy();
    expect(readFileSync(copy).equals(before)).toBe(true);
  });
});

describe('what is acknowledged is on the disk, and a lock is waited for', () => {
  it('a connection syncs each commit, in WAL, with keys enforced (SQLite pragma table: synchronous 2 is FULL)', async () => {
    mkdirSync(folder(), { recursive: true });
    const db = await openMigrated(join(folder(), 'yard.sqlite'));
    const pragma = async (name: string) =>
      Object.values((await sql.raw<Record<string, unknown>>(`pragma ${name}`).execute(db)).rows[0] ?? {})[0];
    expect(await Promise.all(['synchronous', 'journal_mode', 'foreign_keys', 'busy_timeout'].map(pragma))).toEqual([
      2,
      'wal',
      1,
      5000,
    ]);
    await db.destroy();
  });

  it('a transaction takes its lock as it begins, so two writers wait for one another instead of failing half-way', async () => {
    const file = await yard();
    const [a, b] = [openDatabase(file), openDatabase(file)];
    const order: string[] = [];
    await a.transaction().execute(async (tx) => {
      await loadSite(tx);
      // The other one cannot begin while this one is open: its wait is on its own thread of control, so it is asked with none.
      await sql`pragma busy_timeout = 0`.execute(b);
      const early = await b
        .transaction()
        .execute(() => Promise.resolve(order.push('never')))
        .catch((error: unknown) => error);
      expect(isBusy(early)).toBe(true);
      await tx.updateTable('site').set({ name: 'first' }).execute();
      order.push('first');
    });
    await b.transaction().execute(async (tx) => {
      order.push((await loadSite(tx)).name);
    });
    expect(order).toEqual(['first', 'first']);
    await a.destroy();
    await b.destroy();
  });
});
