import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import Sqlite from 'better-sqlite3';
import { Kysely, type Migration, Migrator, SqliteAdapter, SqliteDialect } from 'kysely';
import { MIGRATIONS } from './migrations';
import type { Tables } from './tables';

export type Db = Kysely<Tables>;

/** SQLite undoes a change of the schema like any other; Kysely's own adapter does not count on it. */
class TransactionalAdapter extends SqliteAdapter {
  override get supportsTransactionalDdl(): boolean {
    return true;
  }
}

class TransactionalSqlite extends SqliteDialect {
  override createAdapter(): SqliteAdapter {
    return new TransactionalAdapter();
  }
}

/** Opens the file (or ':memory:'), in WAL, with foreign keys on. Does not migrate. */
export const openDatabase = (file: string): Db => {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const database = new Sqlite(file);
  database.pragma('journal_mode = WAL');
  database.pragma('foreign_keys = ON');
  database.pragma('busy_timeout = 5000');
  return new Kysely<Tables>({ dialect: new TransactionalSqlite({ database }) });
};

/**
 * Brings the schema up to date, each migration with its own line in the book of migrations in one transaction: one that
 * fails, or is killed half-way, leaves the file as the one before it left it. Throws what the failing one threw.
 */
export const migrate = async (db: Db, migrations: Readonly<Record<string, Migration>> = MIGRATIONS): Promise<void> => {
  const migrator = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(migrations) } });
  for (;;) {
    const { error, results } = await migrator.migrateUp();
    if (error) throw error instanceof Error ? error : new Error('a migration failed', { cause: error });
    if ((results ?? []).length === 0) return;
  }
};

export const openMigrated = async (file: string): Promise<Db> => {
  const db = openDatabase(file);
  await migrate(db);
  return db;
};
