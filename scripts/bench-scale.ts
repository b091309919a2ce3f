// How the cost of a page grows with the yard: 20 machines with two years of records to 500 with ten. Ends in
// docs/bench/scale.json. Times are of whole answers on loopback; the server runs on this machine, beside its clients.
import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seedDemo } from '../demo/seed';
import { seeded } from '@/core/numeric/seeded';
import { openMigrated } from '@/server/db/connect';
import { growYard, type YardSize } from './yard-of-size';

const SIZES: readonly YardSize[] = [
  { machines: 20, years: 2 },
  { machines: 60, years: 3 },
  { machines: 500, years: 10 },
];
const ASKED = 80;
const CLIENTS = 20;
/** A minute under load: each client reads or writes, waits a second, and repeats, ms. */
const LOAD_MS = Number(process.env['LOAD_MS'] ?? 60_000);
const THINKS_MS = 1000;
const WRITES = 0.2;
const PORT = 4790;
const URL_ = `http://127.0.0.1:${PORT}`;

const p95 = (times: readonly number[]): number => {
  const sorted = [...times].sort((a, b) => a - b);
  return Math.round((sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * 0.95))] ?? 0) * 10) / 10;
};

const get = async (path: string): Promise<{ readonly status: number; readonly ms: number }> => {
  const from = performance.now();
  const response = await fetch(`${URL_}${path}`);
  await response.arrayBuffer();
  return { status: response.status, ms: performance.now() - from };
};

const write = async (tag: string, day: string): Promise<{ readonly status: number; readonly ms: number }> => {
  const from = performance.now();
  const response = await fetch(`${URL_}/api/machines/${tag}/usage`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ clientId: randomUUID(), by: 'MK', day, hours: 2.5, dust: 'softwood dust' }),
  });
  await response.arrayBuffer();
  return { status: response.status, ms: performance.now() - from };
};

const untilReady = async (server: ChildProcess): Promise<void> => {
  for (let i = 0; i < 600 && server.exitCode === null; i += 1) {
    if (
      await fetch(`${URL_}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('the server did not get ready');
};

/** The most a process has taken, MB. */
const peakMb = (pid: number): number =>
  Math.round(Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024);

const serverMb = (pid: number): number =>
  [pid, ...readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number)]
    .map(peakMb)
    .reduce((a, b) => a + b, 0);

/** Times requests one at a time; the first of each kind is left out, because it fills a cache. */
const oneByOne = async (count: number, ask: (i: number) => Promise<{ status: number; ms: number }>) => {
  const times: number[] = [];
  let errors = 0;
  for (let i = 0; i <= count; i += 1) {
    const { status, ms } = await ask(i);
    if (status >= 400) errors += 1;
    if (i > 0) times.push(ms);
  }
  if (errors > 0) throw new Error(`${errors} of ${count} answers were refusals`);
  return p95(times);
};

const measure = async (size: YardSize) => {
  const folder = mkdtempSync(join(tmpdir(), 'moorwind-scale-'));
  const file = join(folder, 'yard.sqlite');
  const now = new Date().toISOString();
  const db = await openMigrated(file);
  await seedDemo(db, { now, seed: 7 });
  await db.destroy();
  const rows = growYard(file, size, now);
  const server = spawn(process.execPath, ['dist/run/serve.mjs'], {
    env: { ...process.env, PORT: String(PORT), HOST: '127.0.0.1', MOORWIND_DATA: file },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  try {
    await untilReady(server);
    const first = await get('/');
    const plan = await get('/plan');
    const { uniform } = seeded(3);
    const today = now.slice(0, 10);
    const tag = () => `Y-${String(16 + Math.floor(uniform() * (size.machines - 16))).padStart(4, '0')}`;
    await oneByOne(20, () => get(`/m/${tag()}`));
    const result = {
      ...size,
      rows,
      first_board_ms: Math.round(first.ms),
      first_plan_ms: Math.round(plan.ms),
      machine_p95_ms: await oneByOne(ASKED, () => get(`/m/${tag()}`)),
      board_p95_ms: await oneByOne(ASKED, () => get('/')),
      plan_page_p95_ms: await oneByOne(ASKED, () => get('/plan')),
      write_p95_ms: await oneByOne(ASKED, () => write(tag(), today)),
      board_after_write_p95_ms: await oneByOne(ASKED / 4, async () => {
        await write(tag(), today);
        return get('/');
      }),
      not_found_p95_ms: await oneByOne(ASKED / 4, async () => ({ ...(await get('/nothing-here')), status: 200 })),
      rss_mb: 0,
      load_answers: 0,
      load_errors: 0,
      load_p95_ms: 0,
    };
    if (size === SIZES.at(-1)) {
      const times: number[] = [];
      const until = performance.now() + LOAD_MS;
      const client = async (): Promise<void> => {
        await new Promise((resolve) => setTimeout(resolve, uniform() * THINKS_MS));
        while (performance.now() < until) {
          const dice = uniform();
          const { status, ms } = await (
            dice < WRITES
              ? write(tag(), today)
              : get(dice < 0.7 ? `/m/${tag()}` : dice < 0.85 ? '/' : dice < 0.93 ? '/round' : '/plan')
          ).catch(() => ({ status: 599, ms: 0 }));
          if (status >= 400) result.load_errors += 1;
          times.push(ms);
          await new Promise((resolve) => setTimeout(resolve, THINKS_MS * (0.5 + uniform())));
        }
      };
      await Promise.all(Array.from({ length: CLIENTS }, client));
      result.load_answers = times.length;
      result.load_p95_ms = p95(times);
    }
    result.rss_mb = serverMb(server.pid ?? 0);
    return result;
  } finally {
    server.kill('SIGTERM');
    await new Promise((resolve) => server.once('exit', resolve));
    rmSync(folder, { recursive: true, force: true });
  }
};

const sizes = [];
for (const size of SIZES) {
  const measured = await measure(size);
  console.log(measured);
  sizes.push(measured);
}
const [small, large] = [sizes[0], sizes.at(-1)];
if (!small || !large) throw new Error('nothing was measured');
const KINDS = ['machine_p95_ms', 'board_p95_ms', 'plan_page_p95_ms', 'write_p95_ms'] as const;
const growth = Math.max(...KINDS.map((k) => large[k] / small[k]));
const report = {
  scale: {
    ...Object.fromEntries(KINDS.map((k) => [k, large[k]])),
    growth: Math.round(growth * 100) / 100,
    rss_mb: large.rss_mb,
    load_errors: large.load_errors,
    load_p95_ms: large.load_p95_ms,
  },
  sizes,
};
writeFileSync('docs/bench/scale.json', `${JSON.stringify(report, null, 2)}\n`);
console.log(report.scale);
