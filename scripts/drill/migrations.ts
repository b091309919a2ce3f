import { spawn } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { Migrator } from 'kysely';
import { openDatabase } from '@/server/db/connect';
import { MIGRATIONS } from '@/server/db/migrations';
import { openRecords } from '@/server/db/open-records';
import { countOf, fillSchema } from '../../tests/support/old-schemas';

export interface MigrationReport {
  readonly rounds: number;
  /** Killed before the last migration was done: only those say anything. */
  readonly inside: number;
  readonly unopened: number;
  readonly lost: number;
}

/** Kills a start inside its migrations of an old file, at random moments; the file opens afterwards with all that was in it. */
export const migrationDrill = async (rounds: number, uniform: () => number): Promise<MigrationReport> => {
  const folder = mkdtempSync(join(tmpdir(), 'moorwind-drill-'));
  const old = join(folder, 'old.sqlite');
  const db = openDatabase(old);
  await new Migrator({ db, provider: { getMigrations: () => Promise.resolve(MIGRATIONS) } }).migrateTo(
    '004-every-method',
  );
  const filled = await fillSchema(db);
  await db.destroy();
  let [inside, unopened, lost] = [0, 0, 0];
  for (let round = 0; round < rounds; round += 1) {
    const file = join(folder, `round-${round}.sqlite`);
    copyFileSync(old, file);
    const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/drill/open-only.ts', file], {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const ended = new Promise((resolve) => child.once('exit', resolve));
    let said = '';
    await new Promise<void>((resolve) => {
      child.stdout.on('data', (chunk: Buffer) => {
        said += chunk.toString('utf8');
        resolve();
      });
    });
    await new Promise((resolve) => setTimeout(resolve, uniform() * 90));
    child.kill('SIGKILL');
    await ended;
    if (!said.includes('done')) inside += 1;
    try {
      const opened = await openRecords(file);
      for (const [table, lines] of filled) if ((await countOf(opened, table)) !== lines) lost += 1;
      await opened.destroy();
      const raw = new Sqlite(file);
      if (raw.pragma('integrity_check', { simple: true }) !== 'ok') unopened += 1;
      raw.close();
    } catch (error) {
      console.error(error);
      unopened += 1;
    }
  }
  rmSync(folder, { recursive: true, force: true });
  return { rounds, inside, unopened, lost };
};
