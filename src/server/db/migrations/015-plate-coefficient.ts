import { type Kysely, sql } from 'kysely';

/**
 * The coefficient of a plate in a pipe was stored and never used: the equation's own was used. Now a given coefficient
 * is used, and null means the equation; stored tests get null, as they were computed.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`drop trigger airflow_test_no_update`.execute(db);
  await sql`update airflow_test
    set detail_json = json_set(detail_json, '$.plate.coefficient', null)
    where json_extract(detail_json, '$.kind') = 'plate'
      and json_extract(detail_json, '$.plate.pipeM') >= 0.05
      and json_extract(detail_json, '$.plate.orificeM') >= 0.0125
      and json_extract(detail_json, '$.plate.orificeM') / json_extract(detail_json, '$.plate.pipeM') between 0.1 and 0.75`.execute(
    db,
  );
  await sql`create trigger airflow_test_no_update before update on airflow_test
    begin select raise(abort, 'airflow_test is append-only'); end`.execute(db);
};
