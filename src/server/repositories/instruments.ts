import { readStored } from '@/contracts/stored';
import { QuantityKindName } from '@/contracts/enums';
import { AccuracyJson } from '@/contracts/json-columns';
import type { Instrument } from '@/core/record/records';
import type { Db } from '../db/connect';

export const loadInstruments = async (db: Db): Promise<readonly Instrument[]> => {
  const rows = await db.selectFrom('instrument').selectAll().orderBy('name').execute();
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    reads: QuantityKindName.parse(row.reads),
    accuracy: readStored(AccuracyJson, row.accuracy_json),
    calibrationDueOn: row.calibration_due_on,
    certificate: row.certificate,
    retired: row.retired_on !== null,
  }));
};

export type KeptInstrument = Omit<Instrument, 'id' | 'retired'> & { readonly retiredOn: string | null };

/** Enters or changes a meter. Returns its id. */
export const saveInstrument = async (db: Db, id: number | null, kept: KeptInstrument): Promise<number> => {
  const values = {
    name: kept.name,
    reads: kept.reads,
    accuracy_json: JSON.stringify(kept.accuracy),
    calibration_due_on: kept.calibrationDueOn,
    certificate: kept.certificate,
    retired_on: kept.retiredOn,
  };
  if (id === null) {
    const made = await db.insertInto('instrument').values(values).returning('id').executeTakeFirstOrThrow();
    return made.id;
  }
  await db.updateTable('instrument').set(values).where('id', '=', id).execute();
  return id;
};

/** Tests on record that were taken with a meter. */
export const testsWith = async (db: Db, instrumentId: number): Promise<number> => {
  const { n } = await db
    .selectFrom('airflow_test')
    .select(({ fn }) => fn.countAll<number>().as('n'))
    .where('instrument_id', '=', instrumentId)
    .executeTakeFirstOrThrow();
  return n;
};
