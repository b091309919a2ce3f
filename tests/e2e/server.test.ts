import { spawnSync } from 'node:child_process';
import { get as httpGet, type IncomingHttpHeaders, request as httpRequest } from 'node:http';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ProblemReply, RecordedReply } from '@/contracts/responses';
import { ROUTES } from '@/server/http/routes';
import { MAX_BODY_BYTES } from '@/server/http/read-json';
import { testBody } from '../support/bodies';
import { type RunningServer, startServer } from '../support/server';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer({ seeded: true });
});
afterAll(() => server.stop());

const post = (path: string, body: string, headers: Record<string, string> = { 'content-type': 'application/json' }) =>
  fetch(`${server.url}${path}`, { method: 'POST', body, headers });

const code = async (response: Response) => {
  const text = await response.text();
  expect(text).not.toMatch(/\bat \S+ \(|node_modules|\.ts:/);
  return { status: response.status, code: ProblemReply.parse(JSON.parse(text)).problems[0]?.code };
};

/** fetch does not let a Host header through. */
const askAs = (host: string): Promise<number> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(server.url);
    httpRequest({ hostname, port, path: '/api/health', headers: { host } }, (r) => {
      r.resume();
      resolve(r.statusCode ?? 0);
    })
      .on('error', reject)
      .end();
  });

const now = () => ({ performedAt: new Date().toISOString() });
const TESTS = '/api/machines/CR-04/tests';

describe('the running server', () => {
  it.each([
    ['malformed JSON', TESTS, '{', 400, 'request.malformed'],
    ['an oversized body', TESTS, 'x'.repeat(MAX_BODY_BYTES + 1), 413, 'request.too-large'],
    ['an empty object', TESTS, '{}', 422, 'field.invalid'],
    ['an unknown address', '/api/nothing', '{}', 404, 'page.unknown'],
  ] as const)('answers %s in the problem shape', async (_what, path, body, status, wanted) => {
    expect(await code(await post(path, body))).toEqual({ status, code: wanted });
  });

  it('answers every read of the route table in its own shape, and a second time by its etag alone', async () => {
    const reads = ROUTES.filter((r) => r.method === 'GET' && 'schema' in r.answer);
    expect(reads.length).toBeGreaterThan(14);
    for (const { path, answer } of reads) {
      const url = `${server.url}${path.replace('{tag}', 'CR-04')}`;
      const first = await fetch(url);
      expect([path, first.status]).toEqual([path, 200]);
      const read = 'schema' in answer ? answer.schema.safeParse(await first.json()) : null;
      expect([path, read?.error?.issues ?? []]).toEqual([path, []]);
      const again = await fetch(url, { headers: { 'if-none-match': first.headers.get('etag') ?? '' } });
      // The open job carries the server's clock, so it differs each time.
      if (!path.endsWith('/jobs/open')) expect([path, again.status, await again.text()]).toEqual([path, 304, '']);
    }
  });

  it('refuses a query it does not know, by its field', async () => {
    expect(await code(await fetch(`${server.url}${TESTS}?limit=0`))).toMatchObject({ status: 422 });
    expect(await code(await fetch(`${server.url}${TESTS}?until=2026-01-01`))).toMatchObject({ status: 422 });
    expect(await code(await fetch(`${server.url}/api/machines/CR-99/looks`))).toEqual({
      status: 404,
      code: 'machine.unknown',
    });
  });

  it('knows no other machine, method or content type', async () => {
    expect(await code(await post('/api/machines/CR-99/tests', JSON.stringify(testBody(now()))))).toEqual({
      status: 404,
      code: 'machine.unknown',
    });
    expect(await code(await fetch(`${server.url}/api/site`))).toEqual({ status: 405, code: 'request.method' });
    expect(await code(await post(TESTS, '{}', { 'content-type': 'text/plain' }))).toEqual({
      status: 415,
      code: 'request.not-json',
    });
  });

  it('answers only to its own name', async () => {
    expect(await askAs('127.0.0.1')).toBe(200);
    expect(await askAs('records.example')).toBe(421);
    expect(await askAs('%%%')).toBe(421);
  });

  it('makes one record of a retry, and has it after being killed', async () => {
    const body = JSON.stringify(testBody(now()));
    const first = RecordedReply.parse(await (await post(TESTS, body)).json());
    await server.killAndRestart();
    const again = await post(TESTS, body);
    expect(again.status).toBe(201);
    expect(RecordedReply.parse(await again.json())).toEqual(first);
    expect(await (await fetch(`${server.url}/m/CR-04/file`)).text()).toContain(`id="test-${first.id}"`);
  });

  it('takes nothing from a page of another site, and lets a link from one be followed', async () => {
    const send = (method: string, path: string, headers: Record<string, string>, body?: string) =>
      new Promise<number>((resolve, reject) => {
        const { hostname, port } = new URL(server.url);
        httpRequest({ hostname, port, path, method, headers: { host: `127.0.0.1:${port}`, ...headers } }, (r) => {
          r.resume();
          resolve(r.statusCode ?? 0);
        })
          .on('error', reject)
          .end(body);
      });
    const line = JSON.stringify({ t: new Date().toISOString(), quantity: 'velocity', value: 12.5, unit: 'm/s' });
    const stream = '/api/instruments/2/stream';
    const lines = { 'content-type': 'application/x-ndjson' };
    expect(await send('POST', stream, { 'content-type': 'text/plain' }, line)).toBe(415);
    expect(await send('POST', stream, { ...lines, origin: 'https://records.example' }, line)).toBe(403);
    expect(await send('POST', stream, { ...lines, 'sec-fetch-site': 'cross-site' }, line)).toBe(403);
    expect(await send('POST', stream, lines, line)).toBe(202);
    expect(await send('GET', '/api/plan/calendar.ics', { 'sec-fetch-site': 'cross-site' })).toBe(403);
    const followed = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' };
    expect(await send('GET', '/round', followed)).toBe(200);
  });

  it('sends pages and scripts compressed, and a page that is known already as a few bytes (RFC 9110)', async () => {
    // A client of its own: it neither unpacks nor remembers by itself.
    const ask = (path: string, headers: Record<string, string>) =>
      new Promise<{ status: number; headers: IncomingHttpHeaders; body: Buffer }>((resolve, reject) => {
        httpGet(`${server.url}${path}`, { headers }, (response) => {
          const chunks: Buffer[] = [];
          response.on('data', (chunk: Buffer) => chunks.push(chunk));
          response.on('end', () =>
            resolve({ status: response.statusCode ?? 0, headers: response.headers, body: Buffer.concat(chunks) }),
          );
        }).on('error', reject);
      });
    const plain = await ask('/dusts', {});
    const packed = await ask('/dusts', { 'accept-encoding': 'gzip' });
    expect(packed.headers['content-encoding']).toBe('gzip');
    expect(gunzipSync(packed.body).toString('utf8')).toBe(plain.body.toString('utf8'));
    expect(packed.body.length * 3).toBeLessThan(plain.body.length);
    const tag = plain.headers.etag ?? '';
    expect(tag).toMatch(/^W\/"[\w-]+"$/);
    const known = await ask('/dusts', { 'if-none-match': tag });
    expect([known.status, known.body.length]).toEqual([304, 0]);
    expect((await ask('/dusts', { 'if-none-match': 'W/"another"' })).status).toBe(200);
    const script = /\/_astro\/[\w.-]+\.js/.exec(plain.body.toString('utf8'))?.[0] ?? '';
    const [br, raw] = [await ask(script, { 'accept-encoding': 'br' }), await ask(script, {})];
    expect(br.headers['content-encoding']).toBe('br');
    expect(brotliDecompressSync(br.body).equals(raw.body)).toBe(true);
    expect(raw.headers['cache-control']).toContain('immutable');
  });

  it('lets a page run only scripts and styles of its own, and be framed by nobody (CSP Level 3)', async () => {
    const policy = (await fetch(`${server.url}/round`)).headers.get('content-security-policy') ?? '';
    const of = (name: string) =>
      policy
        .split(';')
        .map((d) => d.trim())
        .find((d) => d.startsWith(`${name} `)) ?? '';
    expect(of('script-src')).toMatch(/^script-src 'self'( 'sha256-[A-Za-z0-9+/=]+')+$/);
    expect(of('style-src')).not.toContain('unsafe-inline');
    expect([of('default-src'), of('object-src'), of('base-uri'), of('frame-ancestors'), of('form-action')]).toEqual([
      "default-src 'self'",
      "object-src 'none'",
      "base-uri 'none'",
      "frame-ancestors 'none'",
      "form-action 'self'",
    ]);
    const headers = (await fetch(`${server.url}/api/health`)).headers;
    expect([headers.get('x-content-type-options'), headers.get('x-frame-options')]).toEqual(['nosniff', 'DENY']);
  });

  const start = (env: Record<string, string>) =>
    spawnSync(process.execPath, ['dist/run/serve.mjs'], {
      env: { ...process.env, HOST: '127.0.0.1', MOORWIND_DATA: server.dataFile, MOORWIND_ALLOW_LAN: '', ...env },
      encoding: 'utf8',
      timeout: 120_000,
    });

  it.each([
    ['on a network unless told to', { HOST: '0.0.0.0' }, 78, 'MOORWIND_ALLOW_LAN=yes'],
    ['on a port that is taken', {}, 69, 'is taken'],
    ['on a folder', { MOORWIND_DATA: '/tmp' }, 78, '/tmp is a folder'],
    ['on a file that is no database', { MOORWIND_DATA: 'package.json' }, 65, 'is no database of Moorwind'],
  ] as const)('refuses to start %s, with a sentence and a code of its own', (_what, env, status, sentence) => {
    const result = start({ PORT: new URL(server.url).port, ...env });
    expect(result.stderr).toContain(sentence);
    expect(result.status).toBe(status);
    expect(result.stderr).not.toMatch(/\bat \S+ \(/);
  });
});
