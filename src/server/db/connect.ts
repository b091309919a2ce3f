import { existsSync, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import Sqlite from 'better-sqlite3';
import {
  CompiledQuery,
  type DatabaseConnection,
  Kysely,
  type Migration,
  Migrator,
  SqliteAdapter,
  SqliteDialect,
  type SqliteDialectConfig,
  SqliteDriver,
} from 'kysely';
import { reconcileDerived } from './derived';
import { MIGRATIONS } from './migrations';
import type { Tables } from './tables';

export type Db = Kysely<Tables>;

/** SQLite undoes a change of the schema like any other; Kysely's own adapter does not count on it. */
class TransactionalAdapter extends SqliteAdapter {
  override get supportsTransactionalDdl(): boolean {
    return true;
  }
}

/** A transaction takes the lock for writing as it begins: one that upgraded later would be refused at once, however long it may wait. */
class ImmediateDriver extends SqliteDriver {
  override async beginTransaction(connection: DatabaseConnection): Promise<void> {
    await connection.executeQuery(CompiledQuery.raw('begin immediate'));
  }

  /** On a full disk SQLite rolls back by itself: report that fault, not the failed rollback. */
  override async rollbackTransaction(connection: DatabaseConnection): Promise<void> {
    try {
      await super.rollbackTransaction(connection);
    } catch (error) {
      if (!(error instanceof Error && error.message.includes('no transaction is active'))) throw error;
    }
  }
}

class TransactionalSqlite extends SqliteDialect {
  readonly #config: SqliteDialectConfig;

  constructor(config: SqliteDialectConfig) {
    super(config);
    this.#config = config;
  }

  override createAdapter(): SqliteAdapter {
    return new TransactionalAdapter();
  }

  override createDriver(): SqliteDriver {
    return new ImmediateDriver(this.#config);
  }
}

/** Makes a folder and its parents, one at a time: in some file systems Node's recursive call never returns. */
export const makeFolders = (folder: string): void => {
  if (existsSync(folder)) return;
  makeFolders(dirname(folder));
  mkdirSync(folder);
};

/** Opens the file (or ':memory:'), in WAL, with foreign keys on and synchronous writes. Does not migrate. */
export const openDatabase = (file: string): Db => {
  if (file !== ':memory:') makeFolders(dirname(file));
  const database = new Sqlite(file);
  database.pragma('journal_mode = WAL');
  // NORMAL keeps what a power cut takes away: the records of the last seconds, acknowledged and lost.
  database.pragma('synchronous = FULL');
  database.pragma('foreign_keys = ON');
  database.pragma('busy_timeout = 5000');
  return new Kysely<Tables>({ dialect: new TransactionalSqlite({ database }) });
};

/** Whether another program held the file for longer than we wait. Nothing was written. */
export const isBusy = (error: unknown): boolean =>
  error instanceof Sqlite.SqliteError && (error.code === 'SQLITE_BUSY' || error.code.startsWith('SQLITE_BUSY_'));

/** A fault of the disk or another program, by name; null for a fault of our own. Nothing was written. */
export const faultOf = (error: unknown): 'server.busy' | 'server.disk-full' | 'server.disk' | null => {
  if (!(error instanceof Sqlite.SqliteError)) return null;
  if (isBusy(error)) return 'server.busy';
  if (error.code === 'SQLITE_FULL') return 'server.disk-full';
  return /^SQLITE_(READONLY|IOERR|CANTOPEN|CORRUPT|NOTADB)/.test(error.code) ? 'server.disk' : null;
};

/**
 * Brings the schema up to date, each migration with its own line in the book of migrations in one transaction: one that
 * fails, or is killed half-way, leaves the file unchanged. Then sets the triggers of derived data. Rethrows its error.
 */
export const migrate = async (db: Db, migrations: Readonly<Record<string, Migration>> = MIGRATIONS): Promise<void> => {
  const migrator = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(migrations) } });
  for (;;) {
    const { error, results } = await migrator.migrateUp();
    if (error) throw error instanceof Error ? error : new Error('a migration failed', { cause: error });
    if ((results ?? []).length === 0) break;
  }
  if (migrations === MIGRATIONS) await reconcileDerived(db);
};

export const openMigrated = async (file: string): Promise<Db> => {
  const db = openDatabase(file);
  await migrate(db);
  return db;
};
