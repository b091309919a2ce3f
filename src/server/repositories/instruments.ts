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
  }));
};
