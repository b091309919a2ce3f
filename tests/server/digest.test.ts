import { cpSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'kysely';
import { beforeEach, describe, expect, it } from 'vitest';
import { addDays } from '@/core/calendar/calendar-date';
import { laterBy, outlooksOf } from '@/core/forecast/from-record';
import { machineStatus, statusOn } from '@/core/status/machine-status';
import { buildId, sourceHash } from '@/server/db/build-id';
import { type Db, migrate } from '@/server/db/connect';
import { BEARS_ON, wantedTriggers } from '@/server/db/derived';
import { loadChanges } from '@/server/repositories/changes';
import { findMachine, loadMachines } from '@/server/repositories/machines';
import { loadRevision } from '@/server/repositories/made';
import { loadSite } from '@/server/repositories/site';
import { loadParts } from '@/server/repositories/stock';
import { loadTests } from '@/server/repositories/tests';
import { recordChange } from '@/server/services/jobs/record-change';
import { recordTest, withdrawTest } from '@/server/services/measuring/record-test';
import { rebuildDigests } from '@/server/services/yard/digest';
import { editRules } from '@/server/services/yard/edit-rules';
import { logLook, logUsage } from '@/server/services/yard/log-wear';
import { startJob } from '@/server/services/jobs/start-job';
import { chooseRuleSet, stateDust } from '@/server/services/yard/state-dust';
import type { Context } from '@/server/services/yard/user-action';
import { forecastRecord, outlooksOn } from '@/server/services/plan/outlooks';
import { loadYard } from '@/server/services/yard/yard';
import { loadOutlook } from '@/server/services/plan/yard-outlook';
import { changeBody, dustBody, readings, testBody } from '../support/bodies';
import { demoContext, newId } from '../support/database';

// What is kept beside the records says what the records say, after whatever was written.

let context: Context & { readonly db: Db };
beforeEach(async () => {
  context = await demoContext();
});

/** The slow way: every record of the yard read at once, judged without a digest. */
const slowly = async (today: string) => {
  const { db } = context;
  const site = await loadSite(db);
  const { thresholds, timeZone } = site;
  const [tests, changes] = [await loadTests(db), await loadChanges(db, timeZone)];
  return new Map(
    (await loadMachines(db)).map((machine) => {
      const of = {
        machine,
        tests: tests.filter((t) => t.machineId === machine.id),
        changes: changes.filter((c) => c.machineId === machine.id),
      };
      const outlooks = outlooksOf(forecastRecord({ site, today }, of));
      return [machine.tag, machineStatus({ ...of, thresholds, today, outlooks })];
    }),
  );
};

/** As the digest keeps them: hours of long ago are no part of it. */
const told = ({ machine: { hours: _, ...machine }, ...status }: ReturnType<typeof statusOn>) => ({
  ...status,
  machine,
});

const agrees = async (after: string) => {
  const yard = await loadYard(context);
  const slow = await slowly(yard.today);
  expect(yard.unreadable).toEqual([]);
  expect(yard.machines.length).toBe(slow.size);
  for (const status of yard.machines) {
    const other = slow.get(status.machine.tag);
    expect([after, status.machine.tag, JSON.parse(JSON.stringify(told(status))) as unknown]).toEqual([
      after,
      status.machine.tag,
      JSON.parse(JSON.stringify(other && told(other))) as unknown,
    ]);
  }
};

const stageOf = async (tag: string, kind: string) => {
  const stage = (await findMachine(context.db, tag))?.stages.find((s) => s.kind === kind);
  if (!stage) throw new Error(`no ${kind} on ${tag}`);
  return stage;
};
const changeBag = async () => {
  const bag = await stageOf('CR-04', 'bag');
  return recordChange(context, 'CR-04', changeBody(bag.id, { partId: bag.part?.id ?? null, quantity: 1 }));
};
const done = (result: { readonly ok: boolean }) => expect(result).toMatchObject({ ok: true });

describe('the digest of a machine', () => {
  it('is made by the action that changes it, and says what the slow way says after each kind of action', async () => {
    const { db } = context;
    await agrees('the seed');
    const act: Readonly<Record<string, () => Promise<{ readonly ok: boolean }>>> = {
      'a test': () => recordTest(context, 'CR-04', testBody({ readings: readings('L/s', '9.1', '9.2', '9.0') })),
      'a baseline': () => recordTest(context, 'CR-04', testBody({ isBaseline: true, configuration: 'as bought' })),
      'a withdrawal': async () =>
        withdrawTest(context, 'CR-04', {
          clientId: newId(),
          by: 'MK',
          supersedesId: (await loadTests(db, (await findMachine(db, 'CR-04'))?.id)).at(-1)?.id ?? 0,
          correctionReason: 'misread',
        }),
      'a change': () => changeBag(),
      hours: () =>
        logUsage(context, 'CR-04', { clientId: newId(), by: 'MK', day: '2026-11-23', hours: 3.5, dust: 'oak' }),
      'a look': async () =>
        logLook(context, 'CR-04', {
          clientId: newId(),
          by: 'MK',
          day: '2026-11-24',
          stageId: (await stageOf('CR-04', 'bag')).id,
          share: 0.5,
        }),
      'a dust': () =>
        stateDust(context, 'CR-02', { clientId: newId(), by: 'MK', since: '2026-11-01', dust: dustBody('lead paint') }),
      'a job refused, its dust kept': async () => {
        await startJob(context, 'CR-01', {
          clientId: newId(),
          by: 'MK',
          job: { kind: 'service' },
          dust: dustBody('asbestos lagging'),
          reason: null,
          people: 1,
          partInHand: false,
        } as unknown as Parameters<typeof startJob>[2]);
        return { ok: true };
      },
      'another rule set': () => chooseRuleSet(context, { clientId: newId(), by: 'MK', ruleSet: 'us' }),
    };
    for (const [name, run] of Object.entries(act)) {
      const before = await loadRevision(db);
      done(await run());
      expect([name, (await loadRevision(db)) > before]).toEqual([name, true]);
      await agrees(name);
    }
  });

  it('is made by the action itself, before any page reads it', async () => {
    const { db } = context;
    await loadYard(context);
    const id = (await findMachine(db, 'CR-04'))?.id ?? 0;
    const kept = () => db.selectFrom('machine_digest').select('rev').where('machine_id', '=', id).executeTakeFirst();
    const before = await kept();
    done(await changeBag());
    const after = await kept();
    expect(before).toBeDefined();
    expect(after?.rev).toBeGreaterThan(before?.rev ?? 0);
  });

  it('is the same on a day to come, and on one long ago', async () => {
    const yard = await loadYard(context);
    for (const days of [-200, 30, 400]) {
      const day = addDays(yard.today, days);
      const later = { ...context, now: () => `${day}T10:00:00.000Z` };
      const slow = await slowly(day);
      for (const status of (await loadYard(later)).machines)
        expect(JSON.parse(JSON.stringify(told(status)))).toEqual(
          JSON.parse(JSON.stringify(told(slow.get(status.machine.tag) ?? status))),
        );
    }
  });

  it('goes with every row that bears on it: the triggers of a file are those of the list, also of an older file', async () => {
    const triggers = async () => {
      const { rows } = await sql<{ name: string; sql: string }>`
        select name, sql from sqlite_master where type = 'trigger' and name like '%_seen'`.execute(context.db);
      return new Map(rows.map((r) => [r.name, r.sql]));
    };
    const wanted = wantedTriggers();
    expect(await triggers()).toEqual(wanted);
    // Every table of the schema is on the list.
    const { rows } = await sql<{ name: string }>`select name from sqlite_master where type = 'table'`.execute(
      context.db,
    );
    const tables = rows.map((r) => r.name).filter((n) => !/^(sqlite_|kysely_)/.test(n));
    expect(tables.sort()).toEqual(Object.keys(BEARS_ON).sort());
    // A file whose triggers are others, or fewer, gets them back, and its derived data is made again.
    await loadYard(context);
    await sql`drop trigger rule_insert_seen`.execute(context.db);
    await sql`drop trigger stage_update_seen`.execute(context.db);
    await sql`create trigger stage_update_seen after update on stage begin update yard_revision set n = n; end`.execute(
      context.db,
    );
    await migrate(context.db);
    expect(await triggers()).toEqual(wanted);
    expect(await context.db.selectFrom('machine_digest').selectAll().execute()).toEqual([]);
    await agrees('the triggers');
  });

  it('belongs to its build: the id is the same code in any folder, and another after one changed letter', () => {
    const root = mkdtempSync(join(tmpdir(), 'moorwind-build-'));
    for (const folder of ['src/core', 'src/contracts', 'src/server'])
      cpSync(folder, join(root, folder), { recursive: true });
    expect(sourceHash(root)).toBe(sourceHash('.'));
    expect(buildId()).toBe(sourceHash(process.cwd()));
    writeFileSync(join(root, 'src/core/interval/due-word.ts'), '// another thought');
    expect(sourceHash(root)).not.toBe(buildId());
  });

  it('made anew differs in nothing; one that somebody changed by hand is found and mended', async () => {
    await loadYard(context);
    expect(await rebuildDigests(context.db)).toMatchObject({ differed: [] });
    await sql`update machine_digest set content_json = replace(content_json, '"wetSet":false', '"wetSet":true')
      where machine_id = (select id from machine where tag = 'CR-04')`.execute(context.db);
    expect((await rebuildDigests(context.db)).differed).toEqual(['CR-04']);
    await agrees('the rebuild');
  });

  it('that cannot be made leaves the other machines their pages, and its own says so', async () => {
    await sql`insert into rule (stage_id, rule_json, school)
      select id, '{"kind":"whenTheMoonIsFull"}', '' from stage where machine_id = (select id from machine where tag = 'CR-04') limit 1`.execute(
      context.db,
    );
    const yard = await loadYard(context);
    expect(yard.unreadable).toEqual(['CR-04']);
    expect(yard.machines.length).toBeGreaterThan(10);
    expect(await editRulesOf('CR-05')).toBe('accepted');
  });
});

const editRulesOf = async (tag: string): Promise<string> => {
  const stage = await stageOf(tag, 'bag').catch(() => null);
  const machine = await findMachine(context.db, tag);
  const result = await editRules(context, tag, {
    clientId: newId(),
    by: 'MK',
    stageId: stage?.id ?? machine?.stages[0]?.id ?? 0,
    rules: [{ rule: { kind: 'calendarDays', days: 30 }, school: '' }],
  } as unknown as Parameters<typeof editRules>[2]);
  return result.ok ? 'accepted' : result.failures.map((f) => f.code).join();
};

describe('a forecast', () => {
  it('is read where it was made, and made anew for the one machine something was recorded of', async () => {
    const { db } = context;
    const first = await loadOutlook(context);
    const revs = async () =>
      new Map((await db.selectFrom('machine_forecast').selectAll().execute()).map((r) => [r.machine_id, r.rev]));
    const before = await revs();
    expect(before.size).toBe(first.machines.length);
    expect(JSON.parse(JSON.stringify((await loadOutlook(context)).machines.map((m) => m.outlooks)))).toEqual(
      JSON.parse(JSON.stringify(first.machines.map((m) => m.outlooks))),
    );
    done(await changeBag());
    await loadOutlook(context);
    const id = (await findMachine(db, 'CR-04'))?.id ?? 0;
    const after = await revs();
    expect([...after].filter(([machine, rev]) => before.get(machine) !== rev).map(([machine]) => machine)).toEqual([
      id,
    ]);
    // Another day, another forecast.
    await loadOutlook({ ...context, now: () => '2026-11-25T10:00:00.000Z' });
    expect([...(await revs())].every(([machine, rev]) => after.get(machine) !== rev)).toBe(true);
  });
});

describe('stock on hand', () => {
  it('is the sum of all movements, whatever moved', async () => {
    const { db } = context;
    done(await changeBag());
    const moved = await db.selectFrom('stock_movement').select(['part_id', 'quantity']).execute();
    const sums = new Map<number, number>();
    for (const m of moved) sums.set(m.part_id, (sums.get(m.part_id) ?? 0) + m.quantity);
    expect(sums.size).toBeGreaterThan(5);
    for (const p of await loadParts(db)) expect([p.code, p.onHand]).toEqual([p.code, sums.get(p.id) ?? 0]);
  });

  it('a large yard moves a forecast of yesterday on where nothing was recorded since, and makes it anew where something was', async () => {
    const { db } = context;
    const yard = await loadYard(context);
    const ids = yard.machines.map((m) => m.machine.id);
    const tomorrow = { site: yard.site, today: addDays(yard.today, 1), revision: yard.revision };
    // As many as a large yard has.
    const many = Array.from({ length: 6 }, () => ids).flat();
    const moved = await outlooksOn(db, tomorrow, many);
    for (const { machine, outlooks } of yard.machines)
      expect(moved.get(machine.id)).toEqual(
        (JSON.parse(JSON.stringify(outlooks)) as typeof outlooks).map((o) => laterBy(o, 1)),
      );
    const [first] = yard.machines.filter((m) => m.machine.tag === 'CR-04');
    const later = { ...context, now: () => `${tomorrow.today}T10:00:00.000Z` };
    await logUsage(later, 'CR-04', { clientId: newId(), by: 'MK', day: tomorrow.today, hours: 8, dust: 'oak' });
    const again = await outlooksOn(db, { ...tomorrow, revision: await loadRevision(db) }, many);
    expect(again.get(first?.machine.id ?? 0)).not.toEqual(moved.get(first?.machine.id ?? 0));
    const other = yard.machines.find((m) => m.machine.tag === 'CR-20')?.machine.id ?? 0;
    expect(again.get(other)).toEqual(moved.get(other));
  });
});
