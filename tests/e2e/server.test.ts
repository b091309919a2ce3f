import { spawnSync } from 'node:child_process';
import { request as httpRequest } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ProblemReply, RecordedReply } from '@/contracts/responses';
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

  it('knows no other machine, method or content type', async () => {
    expect(await code(await post('/api/machines/CR-99/tests', JSON.stringify(testBody(now()))))).toEqual({
      status: 404,
      code: 'machine.unknown',
    });
    expect(await code(await fetch(`${server.url}${TESTS}`))).toEqual({ status: 405, code: 'request.method' });
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

  it('refuses to start on a network unless told to, with a sentence', () => {
    const result = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/serve.ts'], {
      env: { ...process.env, HOST: '0.0.0.0', MOORWIND_DATA: server.dataFile, MOORWIND_ALLOW_LAN: '' },
      encoding: 'utf8',
    });
    expect(result.status).toBe(1);
    expect(result.stderr).toContain('MOORWIND_ALLOW_LAN=yes');
    expect(result.stderr).not.toMatch(/\bat \S+ \(/);
  });
});
