import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { runCli } from '../../cli/run';
import { type CopyReason, outdatedCopies } from '@/core/record/rotation';
import { openMigrated } from '@/server/db/connect';
import { copiesFolder, listCopies } from '@/server/db/copies';
import { loadParts } from '@/server/repositories/stock';
import { backUp, backUpDaily, daysWithoutCopy } from '@/server/services/house/backups';
import { keepPart } from '@/server/services/yard/registers';
import { partBody } from '../support/bodies';

const copy = (at: string, why: CopyReason = 'daily') => ({ name: `${at} ${why}`, at, day: at.slice(0, 10), why });
const daily = (from: string, days: number) =>
  Array.from({ length: days }, (_, i) =>
    copy(new Date(Date.parse(from) + i * 86_400_000).toISOString().replace(/\.\d+Z$/, 'Z')),
  );

describe('which copies are kept', () => {
  it('of two years, day by day: each of the last seven days, then one a week, then one a month', () => {
    const all = daily('2024-11-30T06:00:00Z', 730);
    const gone = new Set(outdatedCopies(all));
    const kept = all.filter((c) => !gone.has(c.name)).map((c) => c.day);
    expect(kept.slice(-7)).toEqual(all.slice(-7).map((c) => c.day));
    // The newest of a month that is over is its last day; 2026-11-29 is a Sunday, so weeks end on one.
    expect(kept).toEqual([
      '2025-12-31',
      '2026-01-31',
      '2026-02-28',
      '2026-03-31',
      '2026-04-30',
      '2026-05-31',
      '2026-06-30',
      '2026-07-31',
      '2026-08-31',
      '2026-09-30',
      '2026-10-31',
      '2026-11-01',
      '2026-11-08',
      '2026-11-15',
      '2026-11-22',
      '2026-11-23',
      '2026-11-24',
      '2026-11-25',
      '2026-11-26',
      '2026-11-27',
      '2026-11-28',
      '2026-11-29',
    ]);
  });

  it('a yard that stood still for a year loses none of its last copies for it', () => {
    const old = daily('2024-01-01T06:00:00Z', 3);
    expect(outdatedCopies([...old, copy('2026-01-01T06:00:00Z')])).toEqual([]);
    const asked = Array.from({ length: 12 }, (_, i) => copy(`2026-01-01T06:00:${10 + i}Z`, 'asked'));
    expect(outdatedCopies(asked)).toEqual(asked.slice(0, 2).map((c) => c.name));
  });
});

/** The same copy with one figure in it changed the way a program would: no check of the file's form sees it. */
const changedIn = (whole: Buffer): Buffer => {
  const raw = new Sqlite(whole);
  raw.exec('update part set lead_days = 8');
  const changed = raw.serialize();
  raw.close();
  return changed;
};

describe('copies of the records', () => {
  let folder = '';
  let file = '';
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'moorwind-copies-'));
    file = join(folder, 'yard.sqlite');
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  let said: string[] = [];
  const cli = async (now: string, ...args: string[]): Promise<number> => {
    said = [];
    const say = (text: string) => said.push(text);
    return runCli({
      args,
      readInput: () => Promise.resolve(''),
      write: say,
      complain: say,
      env: { MOORWIND_DATA: file },
      now: () => now,
    });
  };
  const opened = async (now: string) => ({ db: await openMigrated(file), file, now: () => now });
  const part = (code: string) => partBody({ code, name: code, packSize: 1, onHand: 3 });

  it('are taken while the records are open, once a day, and hold what was acknowledged', async () => {
    const kept = await opened('2026-11-27T09:00:00.000Z');
    await keepPart(kept, part('ONE'));
    const [first, same] = await Promise.all([backUp(kept, 'asked'), backUp(kept, 'asked')]);
    expect(first).toEqual(same);
    expect(await backUpDaily(kept)).toEqual({ ok: true, value: null });
    const next = { ...kept, now: () => '2026-11-28T09:00:00.000Z' };
    expect(await backUpDaily(next)).toMatchObject({ ok: true, value: { why: 'daily', rows: { part: 1 } } });
    expect(listCopies(file).map((c) => c.why)).toEqual(['daily', 'asked']);
    // Nothing half-done lies about, and a copy is one file with its paper.
    expect(readdirSync(copiesFolder(file)).filter((n) => !/\.sqlite(\.json)?$/.test(n))).toEqual([]);
    await kept.db.destroy();
  });

  it('say on the board when the last good one is a week old, and not before there is anything to lose', async () => {
    const kept = await opened('2026-11-01T09:00:00.000Z');
    const on = (now: string) => daysWithoutCopy({ ...kept, now: () => now });
    expect(await on('2026-11-20T09:00:00.000Z')).toBeNull();
    await keepPart(kept, part('ONE'));
    expect(await on('2026-11-07T09:00:00.000Z')).toBeNull();
    expect(await on('2026-11-09T09:00:00.000Z')).toBe(8);
    await backUp({ ...kept, now: () => '2026-11-09T10:00:00.000Z' }, 'asked');
    expect(await on('2026-11-15T09:00:00.000Z')).toBeNull();
    expect(await on('2026-11-16T11:00:00.000Z')).toBe(7);
    await kept.db.destroy();
  });

  it('one that was cut short or changed on the disk counts for nothing and is not brought back', async () => {
    const kept = await opened('2026-11-27T09:00:00.000Z');
    await keepPart(kept, part('ONE'));
    const made = await backUp(kept, 'asked');
    await kept.db.destroy();
    const path = join(copiesFolder(file), made.ok ? made.value.name : '');
    const whole = readFileSync(path);
    const before = readFileSync(file);
    for (const [what, bytes] of [
      ['cut short', whole.subarray(0, whole.length - 4096)],
      ['a page overwritten', Buffer.concat([whole.subarray(0, 8192), Buffer.alloc(4096, 7), whole.subarray(12_288)])],
      // Whole to SQLite, and yet not what was taken: a lead time read otherwise.
      ['a figure changed', Buffer.from(changedIn(whole))],
      ['something else', Buffer.from('dear diary'.repeat(900))],
    ] as const) {
      writeFileSync(path, bytes);
      expect([what, await cli('2026-11-28T09:00:00.000Z', 'restore', path, '--yes')]).toEqual([what, 1]);
      expect(said.join(' ')).toContain('Nothing was changed');
    }
    expect(listCopies(file)).toEqual([]);
    expect(readFileSync(file).equals(before)).toBe(true);
  });

  it('a disk that takes no more ends it in a sentence: no half copy, and the records are as they were', async () => {
    const kept = await opened('2026-11-27T09:00:00.000Z');
    await keepPart(kept, part('ONE'));
    await kept.db.destroy();
    const before = readFileSync(file);
    // The system itself lets no file of this process grow past 100 kB; the records have more.
    expect(before.length).toBeGreaterThan(200_000);
    const run = spawnSync('bash', ['-c', 'trap "" XFSZ; ulimit -f 100; node --import tsx cli/moorwind.ts backup'], {
      env: { ...process.env, MOORWIND_DATA: file },
      encoding: 'utf8',
    });
    expect([run.status, run.stderr]).toEqual([1, expect.stringContaining('This was not saved.')]);
    expect(listCopies(file)).toEqual([]);
    expect(readdirSync(`${file}.backups`)).toEqual([]);
    expect(readFileSync(file).equals(before)).toBe(true);
  });

  it('a restore over damaged records keeps them as they are and brings the copy back', async () => {
    const kept = await opened('2026-11-27T09:00:00.000Z');
    await keepPart(kept, part('ONE'));
    const made = await backUp(kept, 'asked');
    await kept.db.destroy();
    const name = made.ok ? made.value.name : '';
    for (const [at, broken] of [
      ['2026-11-28T09:00:00.000Z', Buffer.alloc(20_000, 7)],
      ['2026-11-28T10:00:00.000Z', readFileSync(file).subarray(0, 12_288)],
    ] as const) {
      writeFileSync(file, broken);
      expect(await cli(at, 'restore', name)).toBe(0);
      expect(said.join(' ')).toContain('The records are damaged');
      expect(readFileSync(file).equals(broken)).toBe(true);
      expect([at, await cli(at, 'restore', name, '--yes'), said.at(-1)]).toEqual([
        at,
        0,
        `Restored. The replaced records are kept as ${file}.damaged-${at.replaceAll(':', '-')}.`,
      ]);
      const back = await openMigrated(file);
      expect((await loadParts(back)).map((p) => p.code)).toEqual(['ONE']);
      await back.destroy();
    }
  });

  it('a restore says what would be lost, keeps what it replaces, and brings the records back as they were', async () => {
    const kept = await opened('2026-11-27T09:00:00.000Z');
    await keepPart(kept, part('ONE'));
    await kept.db.destroy();
    expect(await cli('2026-11-27T10:00:00.000Z', 'backup')).toBe(0);
    const later = await opened('2026-11-27T11:00:00.000Z');
    await keepPart(later, part('TWO'));
    const [taken] = listCopies(file);
    const name = taken?.name ?? '';
    expect(await cli('2026-11-27T12:00:00.000Z', 'restore', name)).toBe(0);
    expect(said.join(' ')).toMatch(/Would be lost: .*1 part\b.* Nothing was changed/);
    expect(await loadParts(later.db)).toHaveLength(2);
    // Not under the hands of a running server.
    expect(await cli('2026-11-27T12:00:00.000Z', 'restore', name, '--yes')).toBe(1);
    expect(said.join(' ')).toContain('Stop it, or wait');
    await later.db.destroy();
    expect(await cli('2026-11-27T12:00:00.000Z', 'restore', name, '--yes')).toBe(0);
    const back = await openMigrated(file);
    expect((await loadParts(back)).map((p) => [p.code, p.onHand])).toEqual([['ONE', 3]]);
    await back.destroy();
    const replaced = listCopies(file).find((c) => c.why === 'replaced');
    expect(replaced?.rows['part']).toBe(2);
    // And that one can be brought back in turn: nothing is gone for good.
    expect(await cli('2026-11-27T13:00:00.000Z', 'restore', replaced?.name ?? '', '--yes')).toBe(0);
    expect(said[1]).toBe('Nothing on record now would be lost.');
    expect(await cli('2026-11-27T13:00:00.000Z', 'restore', 'nothing.sqlite')).toBe(2);
  });
});
