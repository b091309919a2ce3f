import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { runCli } from '../../cli/run';
import { BUNDLE_TABLES, BUNDLE_TABLE_NAMES, bundleSchema, type BundleTable } from '@/contracts/bundle';
import { snapshotOf } from '@/core/machine/path-edit';
import { bundleOf } from '@/server/bundle/out';
import { TABLE_SPECS } from '@/server/bundle/tables';
import { type Db, openDatabase, openMigrated } from '@/server/db/connect';
import { loadBench } from '@/server/services/measuring/bench';
import { takeInBundle } from '@/server/services/house/bundle-in';
import { editPath } from '@/server/services/yard/edit-path';
import { loadYard } from '@/server/services/yard/yard';
import { seedDemo } from '../../demo/seed';
import { newId, NOW } from '../support/database';

let folder: string;
let home: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'moorwind-bundle-'));
  home = join(folder, 'home.sqlite');
  const db = await openMigrated(home);
  await seedDemo(db, { now: NOW, seed: 7 });
  await db.destroy();
});
afterAll(() => {
  rmSync(folder, { recursive: true });
});

const now = () => NOW;
const bundled = async (file: string, tag: string | null = null): Promise<Uint8Array> => {
  const chunks: Uint8Array[] = [];
  for await (const c of bundleOf(file, tag === null ? { kind: 'yard' } : { kind: 'machine', tag })) chunks.push(c);
  return Buffer.concat(chunks);
};
/** A zip whose book says of its one file that it unpacks to 500 MB (the size stands 24 bytes into its entry: APPNOTE 4.3.12). */
const bomb = (zip: Uint8Array): Uint8Array => {
  const entry = Buffer.from(zip).indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
  new DataView(zip.buffer, zip.byteOffset).setUint32(entry + 24, 500 * 2 ** 20, true);
  return zip;
};
let made = 0;
const emptyYard = async (): Promise<{ file: string; db: Db }> => {
  const file = join(folder, `yard-${(made += 1)}.sqlite`);
  return { file, db: await openMigrated(file) };
};
const ask = (dryRun = false) => ({ clientId: newId(), by: 'MK', dryRun });
const codes = (r: Awaited<ReturnType<typeof takeInBundle>>) => (r.ok ? [] : r.failures.map((f) => f.code));
const value = <T>(r: { ok: true; value: T } | { ok: false; failures: readonly { code: string }[] }): T => {
  if (!r.ok) throw new Error(r.failures.map((f) => f.code).join());
  return r.value;
};

describe('a bundle of a whole yard', () => {
  it('holds every column of every record there is, but what an installation keeps for itself', () => {
    const raw = new Sqlite(home, { readonly: true });
    const tables = raw
      .prepare("select name from sqlite_master where type = 'table' and name not like 'sqlite_%'")
      .pluck()
      .all() as string[];
    const own = [
      'kysely_migration',
      'kysely_migration_lock',
      'identity',
      'sheet_import',
      'sheet_undo',
      'undoing',
      'user_action',
      'session',
      'access_key',
      'audit_line',
      'outbox_message',
      'yard_revision',
      'machine_digest',
      'machine_forecast',
      'stock_on_hand',
      'plan_promise',
    ];
    expect(tables.filter((t) => !own.includes(t)).sort()).toEqual([...BUNDLE_TABLE_NAMES].sort());
    const secret = ['passphrase', 'code_hash', 'code_until', 'bytes'];
    for (const table of BUNDLE_TABLE_NAMES) {
      const columns = raw.prepare(`select name from pragma_table_info('${table}')`).pluck().all() as string[];
      const carried = Object.keys(BUNDLE_TABLES[table].shape).filter((c) => !['n', 'uid', 'sha256'].includes(c));
      expect([table, carried.sort()]).toEqual([table, columns.filter((c) => c !== 'id' && !secret.includes(c)).sort()]);
    }
    raw.close();
  });

  it('knows every number in its records that is the number of another row', () => {
    const raw = new Sqlite(home, { readonly: true });
    for (const table of BUNDLE_TABLE_NAMES) {
      const { refs = {}, json = {} } = TABLE_SPECS[table];
      const keys = raw.prepare(`select "from", "table" from pragma_foreign_key_list('${table}')`).all() as {
        from: string;
        table: string;
      }[];
      for (const key of keys) expect([table, key.from, refs[key.from]]).toEqual([table, key.from, key.table]);
      const columns = (raw.prepare(`select name from pragma_table_info('${table}')`).pluck().all() as string[]).filter(
        (c) => c.endsWith('_json'),
      );
      expect([table, Object.keys(json).sort()]).toEqual([table, columns.sort()]);
      for (const column of columns) {
        const numbered = raw
          .prepare(
            `select distinct j.key from "${table}" t, json_tree(t.${column}) j
             where j.type = 'integer' and (j.key = 'id' or j.key like '%Id')`,
          )
          .pluck()
          .all() as string[];
        for (const key of numbered) expect([table, column, key, json[column]?.refs?.[key]]).not.toContain(undefined);
      }
    }
    raw.close();
  });

  it('taken into an empty installation gives the same yard, and the same bundle again to the last byte', async () => {
    const bundle = await bundled(home);
    expect(Buffer.compare(bundle, await bundled(home))).toBe(0);
    const away = await emptyYard();
    const report = value(await takeInBundle({ db: away.db, now }, bundle, ask()));
    expect(report).toMatchObject({ known: 0, taken: [], kept: [], added: { machine: 12, site: 1 } });
    expect(Buffer.compare(bundle, await bundled(away.file))).toBe(0);
    const here = openDatabase(home);
    expect((await loadYard({ db: away.db, now })).machines).toEqual((await loadYard({ db: here, now })).machines);
    for (const tag of ['CR-01', 'CR-07']) {
      const [mine, theirs] = [await loadBench({ db: here, now }, tag), await loadBench({ db: away.db, now }, tag)];
      for (const what of ['tests', 'changes', 'cases', 'jobs', 'pathEdits', 'parts'] as const)
        expect(theirs.bench?.[what]).toEqual(mine.bench?.[what]);
    }
    // Once more: everything is known, nothing is doubled.
    const again = value(await takeInBundle({ db: away.db, now }, bundle, ask()));
    expect(again.added).toEqual({});
    expect(again.kept).toEqual([]);
    expect(Buffer.compare(bundle, await bundled(away.file))).toBe(0);
    await here.destroy();
    await away.db.destroy();
  }, 60_000);

  it('is read by another zip program, line by line, and is what its schema says', async () => {
    const file = join(folder, 'out.zip');
    writeFileSync(file, await bundled(home));
    const python = `
import json, sys, zipfile
z = zipfile.ZipFile(sys.argv[1])
assert z.testzip() is None
m = json.loads(z.read('moorwind.json'))
for t, said in m['tables'].items():
    lines = z.read('records/%s.ndjson' % t).decode().splitlines()
    assert len(lines) == said['rows'], t
    for l in lines: json.loads(l)
print(m['format'], m['version'], m['tables']['machine']['rows'])
`;
    expect(execFileSync('python3', ['-c', python, file]).toString().trim()).toBe('moorwind-bundle 1 12');
    const schema = bundleSchema() as { $defs: Record<string, { properties: object }> };
    expect(Object.keys(schema.$defs['stage_change']?.properties ?? {})).toContain('done_how');
  });
});

describe('a bundle of one machine', () => {
  it('travels to another yard and back: nothing is lost, nothing doubled, what was done there is here', async () => {
    const away = await emptyYard();
    value(await takeInBundle({ db: away.db, now }, await bundled(home, 'CR-04'), ask()));
    const there = await loadBench({ db: away.db, now }, 'CR-04');
    expect(there.yard.machines.length).toBe(1);
    // The stock and the plan of a yard stay where they are.
    for (const table of ['stock_movement', 'plan_lock', 'person'] as const)
      expect(await away.db.selectFrom(table).selectAll().execute()).toEqual([]);
    const stageId = there.bench?.status.machine.stages.find((s) => s.kind === 'bag')?.id ?? 0;
    await away.db
      .insertInto('fill_look')
      .values({ stage_id: stageId, day: '2026-11-20', share: 0.4, at: NOW, by_initials: 'XY' })
      .execute();
    const back = await bundled(away.file, 'CR-04');
    await away.db.destroy();
    const own = join(folder, 'back.sqlite');
    writeFileSync(own, readFileSync(home));
    const db = openDatabase(own);
    const machines = (await loadYard({ db, now })).machines.length;
    const asked = value(await takeInBundle({ db, now }, back, ask(true)));
    expect(asked.added).toEqual({ fill_look: 1 });
    expect((await db.selectFrom('fill_look').selectAll().where('by_initials', '=', 'XY').execute()).length).toBe(0);
    const once = ask();
    const done = value(await takeInBundle({ db, now }, back, once));
    expect(done.added).toEqual(asked.added);
    // A double click is one import.
    expect(value(await takeInBundle({ db, now }, back, once))).toEqual(done);
    const look = await db.selectFrom('fill_look').selectAll().where('by_initials', '=', 'XY').execute();
    expect(look.length).toBe(1);
    const mine = (await loadYard({ db, now })).machines;
    expect(mine.length).toBe(machines);
    const stage = mine.find((m) => m.machine.tag === 'CR-04')?.machine.stages.find((s) => s.kind === 'bag');
    expect(stage?.id).toBe(look[0]?.stage_id);
    expect(stage?.looks).toContainEqual({ day: '2026-11-20', share: 0.4 });
    await db.destroy();
  }, 60_000);

  it('among others gets numbers of its own, and everything in it still points at the same thing', async () => {
    const away = await emptyYard();
    for (const tag of ['CR-07', 'CR-04', 'CR-02'])
      value(await takeInBundle({ db: away.db, now }, await bundled(home, tag), ask()));
    const mine = openDatabase(home);
    /** Every number of a stage put as its name, so that both yards can be held side by side. */
    const said = async (db: Db, tag: string) => {
      const { bench } = await loadBench({ db, now }, tag);
      if (!bench) throw new Error(tag);
      const { machine } = bench.status;
      const name = (id: number | null) => [...machine.stages, ...machine.retired].find((s) => s.id === id)?.name;
      const test = (id: number | null) => bench.tests.find((t) => t.id === id)?.performedAt;
      const change = (id: number | null) => bench.changes.find((c) => c.id === id)?.performedAt;
      return {
        rules: machine.stages.map((s) => [
          s.name,
          s.part?.code,
          s.rules.map(({ rule }) => [rule.kind, rule.kind === 'countOfChanges' ? name(rule.countedStageId) : '']),
        ]),
        tests: bench.tests.map((t) => [
          t.performedAt,
          'stageId' in t.test.detail ? name(t.test.detail.stageId) : '',
          change(t.afterChangeId),
          test(t.supersededById),
          t.readings.map((r) => r.typed),
        ]),
        changes: bench.changes.map((c) => [c.performedAt, name(c.stageId), test(c.beforeTestId), c.quantity]),
        edits: bench.pathEdits.map((e) => [e.before, e.after].map((x) => x.stages.map((s) => [s.name, name(s.id)]))),
        cases: bench.cases.map((c) => [
          c.openedAt,
          c.events.map(({ event }) => ('changeId' in event ? [event.kind, change(event.changeId)] : event.kind)),
        ]),
        jobs: bench.jobs.map((j) => [j.startedAt, j.stages.map((s) => [s.name, name(s.id)]), j.events.length]),
      };
    };
    for (const tag of ['CR-07', 'CR-04', 'CR-02']) expect(await said(away.db, tag)).toEqual(await said(mine, tag));
    const back = value(await takeInBundle({ db: mine, now }, await bundled(away.file, 'CR-02'), ask(true)));
    expect(back).toMatchObject({ added: {}, kept: [], taken: [] });
    await away.db.destroy();
    await mine.destroy();
  }, 60_000);

  it('whose path was changed there is as it is there; changed on both sides it is refused', async () => {
    const away = await emptyYard();
    value(await takeInBundle({ db: away.db, now }, await bundled(home, 'CR-04'), ask()));
    const own = join(folder, 'torn.sqlite');
    writeFileSync(own, readFileSync(home));
    const db = openDatabase(own);
    const moved = async (to: Db, place: string) => {
      const machine = (await loadBench({ db: to, now }, 'CR-04')).bench?.status.machine;
      if (!machine) throw new Error('no machine');
      const path = snapshotOf(machine);
      const body = { clientId: newId(), by: 'XY', note: '', seen: machine.editedThrough };
      const stages = path.stages.map((s) => (s.kind === 'bag' ? { ...s, name: `bag at ${place}` } : s));
      value(
        await editPath({ db: to, now }, 'CR-04', { ...body, path: { stages, machine: { ...path.machine, place } } }),
      );
    };
    await moved(away.db, 'the other yard');
    const back = await bundled(away.file, 'CR-04');
    const rules = async () => (await loadBench({ db, now }, 'CR-04')).bench?.status.machine.stages.map((s) => s.rules);
    const before = (await rules())?.map((of) => of.map(({ rule }) => rule));
    const asked = value(await takeInBundle({ db, now }, back, ask(true)));
    expect(asked).toMatchObject({ taken: ['CR-04'], added: { path_edit: 1 } });
    await moved(db, 'another place here');
    expect(codes(await takeInBundle({ db, now }, back, ask()))).toEqual(['bundle.both-edited']);
    await db.destroy();
    writeFileSync(own, readFileSync(home));
    const fresh = openDatabase(own);
    value(await takeInBundle({ db: fresh, now }, back, ask()));
    const machine = (await loadBench({ db: fresh, now }, 'CR-04')).bench?.status.machine;
    expect(machine?.place).toBe('the other yard');
    expect(machine?.stages.map((s) => s.name)).toContain('bag at the other yard');
    expect(machine?.stages.map((s) => s.rules.map(({ rule }) => rule))).toEqual(before);
    await fresh.destroy();
    await away.db.destroy();
  }, 60_000);

  it('is refused where another machine has its tag', async () => {
    const other = await emptyYard();
    const stranger = { tag: 'cr-04', name: 'Stranger', kind: 'shopVacuum', maker: '', place: 'here', has_brush: 0 };
    const plate = { machine_class: null, hose_bore_m: null, hose_length_m: null, hose_selector_m: null };
    await other.db
      .insertInto('machine')
      .values({ ...stranger, ...plate, nominal_volts: 230, in_service_on: '2026-01-01' })
      .execute();
    expect(codes(await takeInBundle({ db: other.db, now }, await bundled(home, 'CR-04'), ask()))).toEqual([
      'bundle.tag-taken',
    ]);
    await other.db.destroy();
  }, 60_000);
});

describe('a bundle that is none', () => {
  it('that was made by hand and holds what no record can be is refused whole', async () => {
    const { db } = await emptyYard();
    const files = unzipSync(await bundled(home, 'CR-04'));
    const text = (name: string) => new TextDecoder().decode(files[name]);
    /** The bundle with one table written anew, its hash put right as a forger would. */
    const forged = (table: BundleTable, edit: (row: Record<string, unknown>) => object): Uint8Array => {
      const lines = text(`records/${table}.ndjson`).trim().split('\n');
      const rows = lines.map((l) => JSON.stringify(edit(JSON.parse(l) as Record<string, unknown>)));
      const records = strToU8(`${rows.join('\n')}\n`);
      const manifest = JSON.parse(text('moorwind.json')) as { tables: Record<string, object> };
      const sha256 = createHash('sha256').update(records).digest('hex');
      manifest.tables[table] = { rows: rows.length, sha256 };
      const own = { 'moorwind.json': strToU8(JSON.stringify(manifest)), [`records/${table}.ndjson`]: records };
      return zipSync({ ...files, ...own });
    };
    const same = forged('fill_look', (r) => r);
    expect(codes(await takeInBundle({ db, now }, same, ask(true)))).toEqual([]);
    const cases: readonly (readonly [string, Uint8Array])[] = [
      ['fuller than full', forged('fill_look', (r) => ({ ...r, share: 7 }))],
      ['a stage of no machine', forged('stage', (r) => ({ ...r, machine_id: 999 }))],
      ['a column more', forged('machine', (r) => ({ ...r, passphrase: 'x' }))],
      ['a kind there is not', forged('machine', (r) => ({ ...r, kind: 'spaceship' }))],
      ['a rule that is none', forged('rule', (r) => ({ ...r, rule_json: { kind: 'never' } }))],
      ['two at one place', forged('stage', (r) => ({ ...r, position: 1 }))],
    ];
    for (const [what, bytes] of cases)
      expect([what, codes(await takeInBundle({ db, now }, bytes, ask()))]).toEqual([what, ['bundle.damaged']]);
    expect(await db.selectFrom('stage').selectAll().execute()).toEqual([]);
    await db.destroy();
  }, 60_000);

  it('is refused in a sentence, and nothing of it is kept', async () => {
    const { db } = await emptyYard();
    const whole = await bundled(home, 'CR-04');
    const files = unzipSync(whole);
    const manifest = JSON.parse(new TextDecoder().decode(files['moorwind.json'])) as { version: number };
    const withFile = (name: string, bytes: Uint8Array) => zipSync({ ...files, [name]: bytes });
    const cases: readonly (readonly [string, Uint8Array, string])[] = [
      ['empty', new Uint8Array(), 'bundle.damaged'],
      ['text', strToU8('hello'), 'bundle.damaged'],
      ['half', whole.slice(0, whole.length / 2), 'bundle.damaged'],
      ['a path out of it', withFile('../../etc/passwd', strToU8('x')), 'bundle.stranger'],
      ['changed', withFile('records/machine.ndjson', strToU8('{}\n')), 'bundle.damaged'],
      [
        'newer',
        withFile('moorwind.json', strToU8(JSON.stringify({ ...manifest, version: manifest.version + 1 }))),
        'bundle.newer',
      ],
      ['a bomb', bomb(zipSync({ 'records/machine.ndjson': new Uint8Array(1000) })), 'bundle.too-large'],
    ];
    for (const [what, bytes, code] of cases)
      expect([what, codes(await takeInBundle({ db, now }, bytes, ask()))]).toEqual([what, [code]]);
    expect(await db.selectFrom('machine').selectAll().execute()).toEqual([]);
    await db.destroy();
  }, 60_000);
});

describe('the command line', () => {
  const world = (args: readonly string[], env: Record<string, string>) => {
    const out: string[] = [];
    const write = (text: string) => void out.push(text);
    return { out, run: runCli({ args, env, now, write, complain: write, readInput: () => Promise.resolve('') }) };
  };

  it('writes a bundle, says what taking it in would do, and takes it in', async () => {
    const to = join(folder, 'yard.zip');
    const first = world(['export', to], { MOORWIND_DATA: home });
    expect(await first.run).toBe(0);
    const env = { MOORWIND_DATA: join(folder, 'second.sqlite') };
    const dry = world(['import', to, '--dry-run'], env);
    expect(await dry.run).toBe(0);
    expect(dry.out.join('\n')).toContain('Would take in: 1 site');
    expect(dry.out.at(-1)).toBe('Nothing was changed.');
    const real = world(['import', to], env);
    expect(await real.run).toBe(0);
    expect(real.out[0]).toContain('12 machines');
    const twice = world(['export', to], { MOORWIND_DATA: home });
    expect(await twice.run).toBe(1);
  }, 60_000);
});
