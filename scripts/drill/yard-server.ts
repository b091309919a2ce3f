import { type ChildProcess, spawn } from 'node:child_process';
import { createServer } from 'node:net';

export const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

export interface DrillServer {
  readonly url: string;
  readonly child: ChildProcess;
  readonly complaints: () => string;
  readonly end: (signal: NodeJS.Signals) => Promise<number | null>;
}

/** A server on a file, with what it complains of; ready when it answers. */
export const serveOn = async (file: string, env: Readonly<Record<string, string>> = {}): Promise<DrillServer> => {
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const child = spawn(process.execPath, ['dist/run/serve.mjs'], {
    env: {
      ...process.env,
      PORT: String(port),
      HOST: '127.0.0.1',
      MOORWIND_DATA: file,
      MOORWIND_WRITES: '1000000',
      ...env,
    },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (chunk: Buffer) => {
    said += chunk.toString('utf8');
  });
  const gone = new Promise<number | null>((resolve) => child.once('exit', (code) => resolve(code)));
  for (let i = 0; i < 600; i += 1) {
    if (child.exitCode !== null) throw new Error(`the server ended with ${child.exitCode}: ${said}`);
    const up = await fetch(`${url}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (up)
      return {
        url,
        child,
        complaints: () => said,
        end: (signal) => {
          child.kill(signal);
          return gone;
        },
      };
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('the server did not get ready');
};

export const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
