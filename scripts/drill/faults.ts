import { spawn, spawnSync } from 'node:child_process';
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { pause, serveOn } from './yard-server';
import { judge, readYard, startWriters } from './writers';

export interface FaultReport {
  readonly survived: number;
  readonly of: number;
  readonly not_tried: readonly string[];
  readonly failed: readonly string[];
}

interface Started {
  readonly code: number | null;
  readonly said: string;
}

const start = (file: string, env: Readonly<Record<string, string>> = {}): Started => {
  const { status, stderr } = spawnSync(process.execPath, ['dist/run/serve.mjs'], {
    env: { ...process.env, HOST: '127.0.0.1', PORT: '4978', MOORWIND_DATA: file, ...env },
    encoding: 'utf8',
    timeout: 60_000,
  });
  return { code: status, said: stderr };
};

/** A refusal in a sentence: its code, words of it, and no stack trace. */
const refuses = ({ code, said }: Started, wanted: number, words: RegExp): boolean =>
  code === wanted && words.test(said) && !/\n\s+at /.test(said);

/** A small file system of its own, for a full or a read-only disk; false where this machine makes none. */
const mounted = (folder: string, options: string): boolean =>
  spawnSync('mount', ['-t', 'tmpfs', '-o', options, 'tmpfs', folder]).status === 0;

const post = (url: string, hours: number) =>
  fetch(`${url}/api/machines/CR-04/usage`, {
    method: 'POST',
    signal: AbortSignal.timeout(15_000),
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      clientId: `fault-${Math.random().toString(36).slice(2)}xx`,
      by: 'MK',
      day: new Date().toISOString().slice(0, 10),
      hours,
      dust: 'oak',
    }),
  });

interface Drill {
  readonly folder: string;
  readonly seedFile: string;
  /** A copy of the seeded yard under a name. */
  readonly fresh: (name: string) => string;
  readonly check: (name: string, work: () => Promise<boolean> | boolean) => Promise<void>;
}

/** Starts that are refused. */
const starts = async ({ folder, fresh, check }: Drill): Promise<void> => {
  await check('a folder for a file', () => refuses(start(folder), 78, /is a folder/));
  await check('a folder that cannot be made', () => refuses(start('/proc/nowhere/yard.sqlite'), 73, /cannot be made/));
  await check('no database', () => refuses(start('package.json'), 65, /no database of Moorwind/));
  await check('a database of something else', () => {
    const file = join(folder, 'other.sqlite');
    const db = new Sqlite(file);
    db.exec('create table recipes (name text)');
    db.close();
    return refuses(start(file), 65, /something else/);
  });
  await check('a file cut in half', () => {
    const file = fresh('cut');
    truncateSync(file, Math.floor(statSync(file).size / 2 / 4096) * 4096);
    return refuses(start(file), 65, /damaged/);
  });
  await check('bytes turned over', () => {
    const file = fresh('bent');
    const bytes = readFileSync(file);
    bytes.fill(0x5a, 4096 * 3, 4096 * 20);
    writeFileSync(file, bytes);
    return refuses(start(file), 65, /damaged/);
  });
  await check('a newer schema', () => {
    const file = fresh('newer');
    const db = new Sqlite(file);
    db.prepare('insert into kysely_migration (name, timestamp) values (?, ?)').run('999-later', '2030-01-01');
    db.close();
    return refuses(start(file), 65, /newer Moorwind/);
  });
  await check('a file that another program holds at the start', () => {
    const file = fresh('held');
    const db = new Sqlite(file);
    db.pragma('journal_mode = DELETE');
    db.exec('begin exclusive');
    const result = refuses(start(file), 75, /held by another program/);
    db.exec('commit');
    db.close();
    return result;
  });
  await check('a taken port', async () => {
    const probe = createServer();
    await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve));
    const address = probe.address();
    const port = typeof address === 'object' && address ? String(address.port) : '';
    const result = refuses(start(fresh('port'), { PORT: port }), 69, /is taken/);
    probe.close();
    return result;
  });
};

/** Others at the file, and the end. */
const others = async ({ fresh, check }: Drill): Promise<void> => {
  await check('a lock held while it runs: a sentence, and on afterwards', async () => {
    const file = fresh('locked');
    const server = await serveOn(file);
    const db = new Sqlite(file);
    db.exec('begin immediate');
    const busy = await post(server.url, 1);
    const said = await busy.text();
    const page = await fetch(`${server.url}/m/CR-04`);
    db.exec('rollback');
    db.close();
    const after = await post(server.url, 1);
    await server.end('SIGTERM');
    return busy.status === 503 && /held by another program/.test(said) && page.status === 200 && after.status === 201;
  });
  await check('two servers on one file: both write, nothing is lost or doubled', async () => {
    const file = fresh('two');
    const yard = readYard(file);
    const [one, two] = [await serveOn(file), await serveOn(file)];
    let seed = 1;
    const uniform = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
    const writing = [one, two].map((s) => startWriters(s.url, yard, { writers: 2, uniform }));
    await pause(3000);
    for (const w of writing) w.stop();
    await Promise.all(writing.map((w) => w.done));
    const sent = writing.flatMap((w) => w.acknowledged);
    // Each server shows the records of the other.
    const pages = await Promise.all([one, two].map(async (s) => (await fetch(`${s.url}/m/CR-04/file`)).text()));
    const counts = pages.map((p) => /File: (\d+) records/.exec(p)?.[1]);
    await Promise.all([one.end('SIGTERM'), two.end('SIGTERM')]);
    const v = judge(file, sent);
    return sent.length > 10 && v.lost + v.doubled + v.half + v.broken === 0 && counts[0] === counts[1];
  });
  await check('SIGTERM in the midst of writes: what was acknowledged is there, and it ends with 0', async () => {
    const file = fresh('term');
    const server = await serveOn(file);
    const writing = startWriters(server.url, readYard(file), { writers: 4, uniform: Math.random });
    await pause(700);
    const code = await server.end('SIGTERM');
    await writing.done;
    const v = judge(file, writing.acknowledged);
    return code === 0 && v.lost + v.doubled + v.half + v.broken === 0;
  });
};

/** A damaged file, a clock, file handles, while it runs. */
const surroundings = async ({ fresh, check }: Drill): Promise<void> => {
  await check('a table gone: a sentence, no hanging page', async () => {
    const file = fresh('gone');
    const server = await serveOn(file);
    const db = new Sqlite(file);
    db.pragma('foreign_keys = OFF');
    db.exec('drop table fill_look');
    db.exec('update yard_revision set n = n + 1; delete from machine_digest');
    db.close();
    const answer = await fetch(`${server.url}/m/CR-04`, { signal: AbortSignal.timeout(10_000) });
    const health = await fetch(`${server.url}/api/health`);
    await server.end('SIGTERM');
    return answer.status < 600 && health.status > 0;
  });
  await check('a clock that jumped back ten years: pages and writes go on', async () => {
    const file = fresh('clock');
    const server = await serveOn(file, { MOORWIND_NOW: '2016-11-28T10:00:00Z' });
    const codes = await Promise.all(
      ['/', '/m/CR-04', '/plan', '/round', '/stock'].map(async (p) => (await fetch(server.url + p)).status),
    );
    await server.end('SIGTERM');
    return codes.every((c) => c === 200);
  });
  await check('a clock that jumped a century ahead: pages go on', async () => {
    const server = await serveOn(fresh('ahead'), { MOORWIND_NOW: '2098-11-28T10:00:00Z' });
    const codes = await Promise.all(
      ['/', '/m/CR-04', '/plan', '/round', '/stock'].map(async (p) => (await fetch(server.url + p)).status),
    );
    await server.end('SIGTERM');
    return codes.every((c) => c === 200);
  });
  await check('few file handles: it goes on answering once the flood is over', async () => {
    const file = fresh('handles');
    const port = 4977;
    const child = spawn('sh', ['-c', 'ulimit -n 160; exec "$0" dist/run/serve.mjs', process.execPath], {
      env: { ...process.env, PORT: String(port), HOST: '127.0.0.1', MOORWIND_DATA: file },
      stdio: 'ignore',
    });
    const url = `http://127.0.0.1:${port}`;
    const up = () =>
      fetch(`${url}/api/health`, { signal: AbortSignal.timeout(2000) }).then(
        (r) => r.ok,
        () => false,
      );
    for (let i = 0; i < 300 && !(await up()); i += 1) await pause(100);
    await Promise.allSettled(
      Array.from({ length: 200 }, () => fetch(`${url}/m/CR-04`, { signal: AbortSignal.timeout(8000) })),
    );
    await pause(1500);
    const ok = (await up()) && (await post(url, 1)).status === 201;
    child.kill('SIGKILL');
    return ok;
  });
};

/** A disk that is full or read-only; what could not be tried here. */
const disks = async ({ folder, seedFile, check }: Drill): Promise<readonly string[]> => {
  const disk = join(folder, 'small-disk');
  mkdirSync(disk);
  if (mounted(disk, 'size=16m')) {
    const file = join(disk, 'yard.sqlite');
    await check('a disk that is full: a sentence, pages go on, and writes once there is room', async () => {
      copyFileSync(seedFile, file);
      const server = await serveOn(file);
      const filler = join(disk, 'filler');
      for (const size of [8 << 20, 1 << 20, 64 << 10, 4096])
        for (let i = 0; i < 64; i += 1)
          try {
            writeFileSync(`${filler}-${size}-${i}`, Buffer.alloc(size));
          } catch {
            break;
          }
      let full: Response | null = null;
      const codes = new Set<number>();
      for (let i = 0; i < 400 && full === null; i += 1) {
        const answer = await post(server.url, 1 + (i % 20));
        codes.add(answer.status);
        if (answer.status >= 400) full = answer;
        else await answer.arrayBuffer();
      }
      const said = full ? await full.text() : '';
      const page = await fetch(`${server.url}/m/CR-04`);
      for (const size of [8 << 20, 1 << 20, 64 << 10, 4096])
        for (let i = 0; i < 64; i += 1) rmSync(`${filler}-${size}-${i}`, { force: true });
      const after = await post(server.url, 2);
      await server.end('SIGTERM');
      const db = new Sqlite(file);
      const sound = db.pragma('integrity_check', { simple: true }) === 'ok';
      db.close();
      if (full?.status !== 507)
        console.error('full disk:', [...codes], said.slice(0, 300), page.status, after.status, sound);
      return (
        full?.status === 507 &&
        /disk of the records is full/.test(said) &&
        page.status === 200 &&
        after.status === 201 &&
        sound
      );
    });
    await check('a start on a read-only disk', () => {
      spawnSync('mount', ['-o', 'remount,ro', disk]);
      const started = start(file);
      if (started.code !== 73) console.error('read-only disk:', started.code, started.said.slice(0, 300));
      return refuses(started, 73, /cannot be opened for writing/);
    });
    spawnSync('umount', [disk]);
    return [];
  }
  return ['a full disk', 'a read-only disk'];
};

/** Runs every fault that can be made here. */
export const faultDrill = async (seedFile: string): Promise<FaultReport> => {
  const folder = mkdtempSync(join(tmpdir(), 'moorwind-faults-'));
  const failed: string[] = [];
  let tried = 0;
  const drill: Drill = {
    folder,
    seedFile,
    fresh: (name) => {
      const file = join(folder, `${name}.sqlite`);
      copyFileSync(seedFile, file);
      return file;
    },
    check: async (name, work) => {
      tried += 1;
      console.log(`  ${name}`);
      try {
        if (!(await work())) failed.push(name);
      } catch (error) {
        failed.push(`${name}: ${String(error)}`);
      }
    },
  };
  await starts(drill);
  await others(drill);
  await surroundings(drill);
  const notTried = await disks(drill);
  rmSync(folder, { recursive: true, force: true });
  return { survived: tried - failed.length, of: tried, not_tried: notTried, failed };
};
