import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import Sqlite from 'better-sqlite3';
import { Kysely, Migrator, SqliteDialect } from 'kysely';
import { MIGRATIONS } from './migrations';
import type { Tables } from './tables';

export type Db = Kysely<Tables>;

/** Opens the file (or ':memory:'), in WAL, with foreign keys on. Does not migrate. */
export const openDatabase = (file: string): Db => {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const database = new Sqlite(file);
  database.pragma('journal_mode = WAL');
  database.pragma('foreign_keys = ON');
  database.pragma('busy_timeout = 5000');
  return new Kysely<Tables>({ dialect: new SqliteDialect({ database }) });
};

/** Brings the schema up to date. Throws what the first failing migration threw; nothing half-done stays. */
export const migrate = async (db: Db): Promise<void> => {
  const migrator = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(MIGRATIONS) } });
  const { error } = await migrator.migrateToLatest();
  if (error) throw error instanceof Error ? error : new Error('a migration failed', { cause: error });
};

export const openMigrated = async (file: string): Promise<Db> => {
  const db = openDatabase(file);
  await migrate(db);
  return db;
};
