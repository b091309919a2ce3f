import { type Kysely, sql } from 'kysely';

/** Refuses updates and deletes on these tables: records of work are kept. */
export const keepForEver = async (db: Kysely<unknown>, tables: readonly string[]): Promise<void> => {
  for (const table of tables) {
    for (const action of ['update', 'delete']) {
      await sql
        .raw(
          `create trigger ${table}_no_${action} before ${action} on ${table} begin select raise(abort, 'records of work are kept'); end`,
        )
        .execute(db);
    }
  }
};
