import { type Kysely, sql } from 'kysely';

/**
 * The cause of a movement becomes a key: its job or its case. Older lines had "job 12: ..." in their note; the number
 * becomes the key and the rest stays the note. The triggers of the ledger are removed for this statement.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table stock_movement add column job_id integer references job (id)`.execute(db);
  await sql`alter table stock_movement add column case_id integer references fault_case (id)`.execute(db);
  await sql`drop trigger stock_movement_no_update`.execute(db);
  for (const [word, column, table] of [
    ['job', 'job_id', 'job'],
    ['case', 'case_id', 'fault_case'],
  ] as const) {
    await sql`update stock_movement
      set ${sql.ref(column)} = cast(substr(note, ${sql.lit(word.length + 2)}) as integer)
      where note like ${`${word} %`}
        and exists (select 1 from ${sql.table(table)} as t where t.id = cast(substr(note, ${sql.lit(word.length + 2)}) as integer))`.execute(
      db,
    );
    await sql`update stock_movement
      set note = ltrim(substr(note, ${sql.lit(word.length + 2)} + length(cast(${sql.ref(column)} as text))), ': ')
      where ${sql.ref(column)} is not null`.execute(db);
  }
  await sql`create trigger stock_movement_no_update before update on stock_movement
    begin select raise(abort, 'stock_movement is append-only'); end`.execute(db);
};
