import { type Migration, Migrator, sql } from 'kysely';
import { describe, expect, it } from 'vitest';
import { type Db, migrate, openDatabase } from '@/server/db/connect';
import { MIGRATIONS } from '@/server/db/migrations';
import { loadCases } from '@/server/repositories/cases';
import { loadJobs } from '@/server/repositories/jobs';
import { loadLedger } from '@/server/repositories/stock';
import { loadTests } from '@/server/repositories/tests';
import { loadYard } from '@/server/services/yard/yard';
import { complaintsOf, countOf, fillSchema } from '../support/old-schemas';

const names = Object.keys(MIGRATIONS);

const at = async (version: string): Promise<Db> => {
  const db = openDatabase(':memory:');
  const migrator = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(MIGRATIONS) } });
  const { error } = await migrator.migrateTo(version);
  expect(error).toBeUndefined();
  return db;
};

describe('migrations', () => {
  it('are numbered without a gap, so that their order is their name', () => {
    expect(names.length).toBeGreaterThan(3);
    names.forEach((name, i) => expect(name.startsWith(String(i + 1).padStart(3, '0'))).toBe(true));
    expect([...names].sort()).toEqual(names);
  });

  it.each(names)(
    'bring a file of %s along with all that is in it, and running them again changes nothing',
    async (version) => {
      const db = await at(version);
      const filled = await fillSchema(db);
      expect(filled.size).toBeGreaterThan(3);
      await migrate(db);
      await migrate(db);
      for (const [table, lines] of filled) expect([table, await countOf(db, table)]).toEqual([table, lines]);
      expect(await complaintsOf(db)).toEqual([]);
      const yard = await loadYard({ db, now: () => '2025-06-01T10:00:00.000Z' });
      expect(yard.machines.map((m) => m.machine.tag)).toEqual(['T-1']);
      expect(yard.machines[0]?.machine.lastCollected).toBe('plaster');
      const tests = await loadTests(db);
      for (const test of tests)
        expect(test).toMatchObject({
          configuration: '',
          test: { detail: { kind: 'none' }, rigSeries: 1, readingsSi: [0.03] },
        });
      expect((await loadJobs(db)).every((j) => j.procedure.steps[0]?.key === 'switchOff')).toBe(true);
      expect((await loadCases(db)).every((c) => c.events.length === 1)).toBe(true);
      await db.destroy();
    },
  );

  it('make a key of what the ledger said in words, and only where there is such a job or case', async () => {
    const db = await at('011-dust-decides');
    await fillSchema(db);
    await migrate(db);
    const ledger = await loadLedger(db, 1);
    expect(ledger.map(({ id, of, note }) => ({ id, of, note })).sort((a, b) => a.id - b.id)).toEqual([
      { id: 1, of: { kind: 'none' }, note: 'counted' },
      { id: 2, of: { kind: 'job', id: 1 }, note: '' },
      { id: 3, of: { kind: 'job', id: 1 }, note: 'proved nothing, opened' },
      { id: 4, of: { kind: 'case', id: 1 }, note: 'on trial, the old one held' },
      { id: 5, of: { kind: 'none' }, note: 'job 99 was never written down' },
    ]);
    await expect(sql`update stock_movement set quantity = 0`.execute(db)).rejects.toThrow(/append-only/);
    await db.destroy();
  });

  it.each([
    ['in its pipe the equation was used', { orificeM: 0.03, coefficient: 0.62, pipeM: 0.06 }, null],
    ['from the free room the coefficient was', { orificeM: 0.03, coefficient: 0.62, pipeM: null }, 0.62],
    ['in a pipe the equation does not hold for, too', { orificeM: 0.02, coefficient: 0.62, pipeM: 0.036 }, 0.62],
  ] as const)('say of a plate on record what it was reckoned by: %s', async (_, plate, coefficient) => {
    const db = await at('014-people');
    await fillSchema(db);
    const trigger = await sql<{
      sql: string;
    }>`select sql from sqlite_master where name = 'airflow_test_no_update'`.execute(db);
    await sql`drop trigger airflow_test_no_update`.execute(db);
    await sql`update airflow_test set method = 'orifice', detail_json = ${JSON.stringify({ kind: 'plate', plate })}`.execute(
      db,
    );
    await sql.raw(trigger.rows[0]?.sql ?? '').execute(db);
    await migrate(db);
    expect((await loadTests(db)).map((t) => t.test.detail)).toEqual([
      { kind: 'plate', plate: { ...plate, coefficient } },
    ]);
    await expect(sql`update airflow_test set volts = 1`.execute(db)).rejects.toThrow('append-only');
    await db.destroy();
  });

  it('leave nothing of one that fails in its second statement, keep those before it, and go on once it is mended', async () => {
    const broken: Migration = {
      up: async (db) => {
        await sql`alter table part add column colour text`.execute(db);
        await sql`alter table nowhere add column colour text`.execute(db);
      },
    };
    const mended: Migration = {
      up: async (db) => {
        await sql`alter table part add column colour text`.execute(db);
      },
    };
    const db = await at('003-stock-and-actions');
    await fillSchema(db);
    const newest = (migration: Migration) => ({ ...MIGRATIONS, '999-newest': migration });
    await expect(migrate(db, newest(broken))).rejects.toThrow(/nowhere/);
    const { rows } = await sql<{ name: string }>`select name from pragma_table_info('part')`.execute(db);
    expect(rows.map((r) => r.name)).not.toContain('colour');
    expect(await countOf(db, 'kysely_migration')).toBe(names.length);
    await migrate(db, newest(mended));
    expect(await countOf(db, 'kysely_migration')).toBe(names.length + 1);
    expect(await countOf(db, 'part')).toBe(1);
    await db.destroy();
  });
});
