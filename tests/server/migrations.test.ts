import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Migrator, sql } from 'kysely';
import { describe, expect, it } from 'vitest';
import { migrate, openDatabase } from '@/server/db/connect';
import { MIGRATIONS } from '@/server/db/migrations';
import { loadTests } from '@/server/repositories/tests';

const names = Object.keys(MIGRATIONS);

describe('migrations', () => {
  it('are numbered without a gap, so that their order is their name', () => {
    expect(names.length).toBeGreaterThan(3);
    names.forEach((name, i) => expect(name.startsWith(String(i + 1).padStart(3, '0'))).toBe(true));
    expect([...names].sort()).toEqual(names);
  });

  it('bring a record of an older version along, and running them again changes nothing', async () => {
    const db = openDatabase(join(mkdtempSync(join(tmpdir(), 'moorwind-old-')), 'old.sqlite'));
    const old = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(MIGRATIONS) } });
    await old.migrateTo('003-stock-and-actions');
    await sql`insert into machine (tag, name, kind, maker, place, last_collected, hazard, has_brush, in_service_on)
      values ('T-1', 'Old', 'shopVacuum', 'Maker B', 'here', 'dust', 'plain', 0, '2025-01-01')`.execute(db);
    await sql`insert into airflow_test (machine_id, performed_at, recorded_at, by_initials, note, voided, method, place, air_json, failed_preconditions_json, is_baseline, bag_state)
      values (1, '2025-02-01T10:00:00.000Z', '2025-02-01T10:00:00.000Z', 'MK', '', 0, 'flowMeter', 'hoseEnd', '{"temperatureK":293.15,"relativeHumidity":0.5,"pressurePa":101325}', '[]', 1, 'asLeft')`.execute(
      db,
    );
    await sql`insert into test_reading (test_id, seq, typed, unit, value_si, resolution_si) values (1, 0, '30', 'L/s', 0.03, 0.001)`.execute(
      db,
    );
    await migrate(db);
    await migrate(db);
    const [test] = await loadTests(db);
    expect(test).toMatchObject({
      configuration: '',
      test: { detail: { kind: 'none' }, rigSeries: 1, volts: null, readingsSi: [0.03] },
    });
    await db.destroy();
  });
});
