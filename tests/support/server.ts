import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seedDemo } from '../../demo/seed';
import { openMigrated } from '@/server/db/connect';

export interface RunningServer {
  readonly url: string;
  readonly dataFile: string;
  readonly stop: () => Promise<void>;
  /** Kills it without a goodbye and starts it again on the same records. */
  readonly killAndRestart: () => Promise<void>;
}

const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() =>
        address !== null && typeof address === 'object' ? resolve(address.port) : reject(new Error('no port')),
      );
    });
  });

const untilReady = async (url: string, child: ChildProcess): Promise<void> => {
  for (let i = 0; i < 150; i += 1) {
    if (child.exitCode !== null) throw new Error(`the server ended with ${child.exitCode}`);
    const ready = await fetch(`${url}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ready) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('the server did not get ready');
};

const ended = (child: ChildProcess): Promise<void> =>
  child.exitCode !== null ? Promise.resolve() : new Promise((resolve) => child.once('exit', () => resolve()));

/** The built server on a temporary database: the demo yard, or an empty one. */
export const startServer = async ({
  seeded,
  env = {},
}: {
  seeded: boolean;
  env?: Readonly<Record<string, string>>;
}): Promise<RunningServer> => {
  const folder = mkdtempSync(join(tmpdir(), 'moorwind-'));
  const dataFile = join(folder, 'test.sqlite');
  const db = await openMigrated(dataFile);
  if (seeded) await seedDemo(db, { now: new Date().toISOString(), seed: 7 });
  await db.destroy();
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const launch = () =>
    spawn(process.execPath, ['dist/run/serve.mjs'], {
      env: { ...process.env, PORT: String(port), HOST: '127.0.0.1', MOORWIND_DATA: dataFile, ...env },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  let child = launch();
  await untilReady(url, child);
  const kill = async (signal: NodeJS.Signals) => {
    child.kill(signal);
    await ended(child);
  };
  return {
    url,
    dataFile,
    stop: async () => {
      await kill('SIGTERM');
      rmSync(folder, { recursive: true, force: true });
    },
    killAndRestart: async () => {
      await kill('SIGKILL');
      child = launch();
      await untilReady(url, child);
    },
  };
};
