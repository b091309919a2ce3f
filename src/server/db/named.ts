import { type Kysely, sql } from 'kysely';

/** Gives every new row of these tables a name of its own that travels with it. */
export const nameRecords = async (db: Kysely<unknown>, tables: readonly string[]): Promise<void> => {
  for (const table of tables) {
    await sql
      .raw(
        `create trigger ${table}_named after insert on ${table} begin
          insert into identity (kind, row_id, uid) values ('${table}', new.id, lower(hex(randomblob(16))))
            on conflict (kind, row_id) do nothing;
        end`,
      )
      .execute(db);
  }
};
