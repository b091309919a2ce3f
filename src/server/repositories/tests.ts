import { readStored } from '@/contracts/stored';
import { MethodName, PlaceName } from '@/contracts/enums';
import {
  AccuracyJson,
  AirJson,
  DetailJson,
  PreconditionsJson,
  ReadingHowJson,
  UseJson,
} from '@/contracts/json-columns';
import type { Reading } from '@/core/measure/reading';
import type { TestRecord, TestUse } from '@/core/record/records';
import type { ParsedTest } from '@/core/measure/test-entry';
import type { Db } from '../db/connect';
import type { Row } from '../db/tables';

type TestRow = Row<'airflow_test'> & { superseded_by_id: number | null; accuracy_json: string | null };

const toReading = (row: Row<'test_reading'>): Reading => ({
  typed: row.typed,
  unit: row.unit,
  valueSi: row.value_si,
  resolutionSi: row.resolution_si,
  slot: row.slot,
  how: ReadingHowJson.parse(row.how),
  struckBecause: row.struck_because,
});

const toTest = (row: TestRow, readings: readonly Reading[]): TestRecord => {
  const live = readings.filter((r) => r.struckBecause === null);
  const accuracy = row.accuracy_json === null ? null : readStored(AccuracyJson, row.accuracy_json);
  return {
    id: row.id,
    machineId: row.machine_id,
    performedAt: row.performed_at,
    recordedAt: row.recorded_at,
    by: row.by_initials,
    note: row.note,
    supersedesId: row.supersedes_id,
    supersededById: row.superseded_by_id,
    voided: row.voided === 1,
    correctionReason: row.correction_reason,
    readings,
    isBaseline: row.is_baseline === 1,
    afterChangeId: row.after_change_id,
    bagState: row.bag_state === 'asLeft' ? 'asLeft' : 'asFound',
    configuration: row.configuration,
    use: readStored(UseJson, row.use_json),
    test: {
      method: MethodName.parse(row.method),
      place: PlaceName.parse(row.place),
      readingsSi: live.map((r) => r.valueSi),
      slots: live.map((r) => r.slot),
      resolutionSi: accuracy?.resolutionSi ?? (live.length > 0 ? Math.min(...live.map((r) => r.resolutionSi)) : 0),
      boreM: row.bore_m,
      profileFactor: row.profile_factor,
      detail: readStored(DetailJson, row.detail_json),
      rigSeries: row.rig_series,
      volts: row.volts,
      maxHold: live.some((r) => r.how === 'max'),
      instrumentId: row.instrument_id,
      accuracy,
      air: readStored(AirJson, row.air_json),
      hoseBoreM: row.hose_bore_m,
      failedPreconditions: readStored(PreconditionsJson, row.failed_preconditions_json),
    },
  };
};

/** Every test, superseded and withdrawn ones too, oldest first; of one machine when it is named. */
export const loadTests = async (db: Db, machineId?: number): Promise<readonly TestRecord[]> => {
  let tests = db
    .selectFrom('airflow_test as t')
    .leftJoin('airflow_test as next', 'next.supersedes_id', 't.id')
    .leftJoin('instrument', 'instrument.id', 't.instrument_id')
    .selectAll('t')
    .select(['next.id as superseded_by_id', 'instrument.accuracy_json'])
    .orderBy('t.performed_at')
    .orderBy('t.id');
  let readings = db
    .selectFrom('test_reading as r')
    .innerJoin('airflow_test as t', 't.id', 'r.test_id')
    .selectAll('r')
    .orderBy('r.test_id')
    .orderBy('r.seq');
  if (machineId !== undefined) {
    tests = tests.where('t.machine_id', '=', machineId);
    readings = readings.where('t.machine_id', '=', machineId);
  }
  const byTest = new Map<number, Reading[]>();
  for (const row of await readings.execute()) {
    const list = byTest.get(row.test_id) ?? [];
    list.push(toReading(row));
    byTest.set(row.test_id, list);
  }
  return (await tests.execute()).map((row) => toTest(row, byTest.get(row.id) ?? []));
};

export interface NewTest {
  readonly machineId: number;
  readonly performedAt: string;
  readonly recordedAt: string;
  readonly by: string;
  readonly note: string;
  readonly parsed: ParsedTest;
  readonly isBaseline: boolean;
  readonly bagState: TestRecord['bagState'];
  readonly afterChangeId: number | null;
  readonly configuration: string;
  readonly use: TestUse;
  readonly supersedes: { readonly id: number; readonly reason: string; readonly voided: boolean } | null;
}

export const insertTest = async (db: Db, entry: NewTest): Promise<number> => {
  const { test, readings } = entry.parsed;
  const { id } = await db
    .insertInto('airflow_test')
    .values({
      machine_id: entry.machineId,
      performed_at: entry.performedAt,
      recorded_at: entry.recordedAt,
      by_initials: entry.by,
      note: entry.note,
      supersedes_id: entry.supersedes?.id ?? null,
      voided: entry.supersedes?.voided ? 1 : 0,
      correction_reason: entry.supersedes?.reason ?? null,
      method: test.method,
      place: test.place,
      bore_m: test.boreM,
      profile_factor: test.profileFactor,
      instrument_id: test.instrumentId,
      air_json: JSON.stringify(test.air),
      hose_bore_m: test.hoseBoreM,
      failed_preconditions_json: JSON.stringify(test.failedPreconditions),
      is_baseline: entry.isBaseline ? 1 : 0,
      bag_state: entry.bagState,
      after_change_id: entry.afterChangeId,
      detail_json: JSON.stringify(test.detail),
      use_json: JSON.stringify(entry.use),
      rig_series: test.rigSeries,
      volts: test.volts,
      configuration: entry.configuration,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  const rows = readings.map((r, seq) => ({
    test_id: id,
    seq,
    typed: r.typed,
    unit: r.unit,
    value_si: r.valueSi,
    resolution_si: r.resolutionSi,
    struck_because: r.struckBecause,
    slot: r.slot,
    how: r.how,
  }));
  if (rows.length > 0) await db.insertInto('test_reading').values(rows).execute();
  return id;
};
