import { hostname } from 'node:os';
import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { failureOfIssue } from '@/contracts/issues';
import { LogLookBody, LogUsageBody } from '@/contracts/plan';
import { RecordTestBody } from '@/contracts/requests';
import { EditRulesBody } from '@/contracts/rules';
import { ProblemReply } from '@/contracts/responses';
import { ConfigError, parseConfig } from '@/server/config';
import { failure } from '@/core/failure/failure';
import { fromElsewhere, hostAllowed } from '@/server/http/same-origin';
import { MAX_BODY_BYTES, readJson } from '@/server/http/read-json';
import { respondProblems } from '@/server/http/respond';
import { testBody } from '../support/bodies';

const post = (body: string, contentType = 'application/json') =>
  new Request('http://127.0.0.1/api', { method: 'POST', body, headers: { 'content-type': contentType } });

const answer = async (request: Request) => {
  const result = await readJson(request, RecordTestBody);
  if (result.ok) return { status: 200, codes: [] as string[] };
  const response = respondProblems(result.failures);
  const { problems } = ProblemReply.parse(await response.json());
  return { status: response.status, codes: problems.map((p) => `${p.code} ${p.path}`.trim()) };
};

describe('the door', () => {
  it('lets a sound request in', async () => {
    expect(await answer(post(JSON.stringify(testBody())))).toEqual({ status: 200, codes: [] });
  });

  it.each([
    ['malformed JSON', post('{"a":'), 400, 'request.malformed'],
    ['an empty body', post(''), 400, 'request.malformed'],
    ['another content type', post('a=1', 'application/x-www-form-urlencoded'), 415, 'request.not-json'],
    [
      'JSON named behind another type',
      post(JSON.stringify(testBody()), 'text/plain; application/json'),
      415,
      'request.not-json',
    ],
    ['an oversized body', post(`"${'x'.repeat(MAX_BODY_BYTES)}"`), 413, 'request.too-large'],
    ['an array', post('[]'), 422, 'field.invalid'],
    ['no initials', post(JSON.stringify({ ...testBody(), by: ' ' })), 422, 'text.missing by'],
    [
      'a day that is none',
      post(JSON.stringify({ ...testBody(), performedAt: 'yesterday' })),
      422,
      'date.invalid performedAt',
    ],
    ['an endless note', post(JSON.stringify({ ...testBody(), note: 'x'.repeat(2001) })), 422, 'text.too-long note'],
    ['an unknown field', post(JSON.stringify({ ...testBody(), admin: true })), 422, 'field.invalid admin'],
    [
      'NaN',
      post(
        JSON.stringify({ ...testBody(), profileFactor: Number.NaN }).replace(
          '"profileFactor":null',
          '"profileFactor":"NaN"',
        ),
      ),
      422,
      'field.invalid profileFactor',
    ],
  ] as const)('answers %s in the problem shape', async (_what, request, status, code) => {
    const got = await answer(request);
    expect(got.status).toBe(status);
    expect(got.codes).toContain(code);
  });
});

describe('who may ask', () => {
  const lan = parseConfig({ MOORWIND_ALLOW_LAN: 'yes', MOORWIND_HOSTS: 'Dustdesk.boatyard, ' });
  it.each([
    ['127.0.0.1:4321', false, true],
    ['localhost', false, true],
    ['[::1]:4321', false, true],
    ['192.168.1.20:4321', false, false],
    ['192.168.1.20:4321', true, true],
    ['[fe80::1]', true, true],
    ['dustdesk.boatyard', true, true],
    ['DUSTDESK.boatyard:4321', true, true],
    [`${hostname()}.local`, true, true],
    ['rebound.example', true, false],
    ['127.0.0.1.rebound.example', true, false],
    ['rebound.example', false, false],
    ['no host at all', true, false],
  ])('a Host of %s, network allowed %s: %s', (host, allowLan, answered) => {
    expect(hostAllowed(host, { ...lan, allowLan })).toBe(answered);
  });

  const ask = (method: string, path: string, headers: Record<string, string>) =>
    fromElsewhere(
      new Request(`http://127.0.0.1:4321${path}`, { method, headers: { host: '127.0.0.1:4321', ...headers } }),
      new URL(`http://127.0.0.1:4321${path}`),
    );
  const cross = { 'sec-fetch-site': 'cross-site', origin: 'https://rebound.example' };
  it.each([
    ['a program: neither header', 'POST', '/api/stock/counts', {}, false],
    [
      'our own page',
      'POST',
      '/api/stock/counts',
      { 'sec-fetch-site': 'same-origin', origin: 'http://127.0.0.1:4321' },
      false,
    ],
    ['a page of another site', 'POST', '/api/instruments/2/stream', cross, true],
    ['another site that hides its name', 'POST', '/api/stock/counts', { origin: 'null' }, true],
    ['another port of this machine', 'POST', '/api/stock/counts', { origin: 'http://127.0.0.1:8080' }, true],
    [
      'an older browser, by its Origin alone',
      'DELETE',
      '/api/stock/counts',
      { origin: 'https://rebound.example' },
      true,
    ],
    ['another site that listens', 'GET', '/api/instruments/2/stream', { 'sec-fetch-site': 'cross-site' }, true],
    ['another site that takes our picture', 'GET', '/api/photos/1', { 'sec-fetch-site': 'same-site' }, true],
    [
      'a link that is followed',
      'GET',
      '/api/plan/calendar.ics',
      { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' },
      false,
    ],
    [
      'a form that is posted from elsewhere',
      'POST',
      '/m/CR-04',
      { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' },
      true,
    ],
    ['the address bar', 'GET', '/round', { 'sec-fetch-site': 'none' }, false],
  ] as const)('%s', (_what, method, path, headers, refused) => {
    expect(ask(method, path, headers as unknown as Record<string, string>)).toBe(refused);
  });
});

describe('a figure that is a slip of the pen', () => {
  const parse = (schema: { safeParse: (v: unknown) => { success: boolean; error?: z.ZodError } }, body: object) => {
    const r = schema.safeParse({ clientId: 'test-action-000001', by: 'MK', ...body });
    return r.success ? [] : (r.error?.issues ?? []).map(failureOfIssue).map((f) => `${f.code} ${f.path}`);
  };
  it.each([
    [{ share: 1e-9 }, ['look.least share']],
    [{ share: -0.2 }, ['look.least share']],
    [{ share: 0.009 }, ['look.least share']],
    [{ share: 0 }, []],
    [{ share: 0.01 }, []],
    [{ share: 1.6 }, ['text.too-long share']],
    [{ share: 0.5, day: '1066-10-14' }, ['date.invalid day']],
    [{ share: 0.5, day: '9999-12-31' }, ['date.invalid day']],
  ])('a look of %j: %j', (over, problems) => {
    expect(parse(LogLookBody, { stageId: 1, day: '2026-11-24', ...over })).toEqual(problems);
  });
  it.each([
    [1e-9, ['usage.least hours']],
    [0.001, ['usage.least hours']],
    [0, []],
    [0.05, []],
    [24, []],
    [240, ['text.too-long hours']],
  ])('%s run hours: %j', (hours, problems) => {
    expect(parse(LogUsageBody, { day: '2026-11-24', hours, dust: 'filler' })).toEqual(problems);
  });
  it.each([
    [{ kind: 'runHours', hours: 1e-9 }, ['rule.range rules.0.rule']],
    [{ kind: 'runHours', hours: 0.5 }, []],
    [{ kind: 'fill', share: 0.04 }, ['rule.range rules.0.rule']],
    [{ kind: 'fill', share: 0.05 }, []],
    [{ kind: 'flowLost', share: 0.001 }, ['rule.range rules.0.rule']],
    [{ kind: 'flowLost', share: 0.01 }, []],
    [{ kind: 'calendarDays', days: 1 }, []],
  ])('a rule of %j: %j', (rule, problems) => {
    expect(parse(EditRulesBody, { stageId: 1, rules: [{ rule, school: '' }] })).toEqual(problems);
  });
});

describe('the status says what kind of no it is', () => {
  it.each([
    ['edit.stale', 409],
    ['record.superseded', 409],
    ['action.reused', 409],
    ['machine.unknown', 404],
    ['text.missing', 422],
  ] as const)('%s is %d', (code, status) => {
    expect(respondProblems([failure(code, 'x', { tag: 'T' })]).status).toBe(status);
  });
});

describe('configuration', () => {
  it('listens on this machine only, unless told to', () => {
    expect(parseConfig({})).toMatchObject({ host: '127.0.0.1', port: 4321, allowLan: false });
    expect(() => parseConfig({ HOST: '0.0.0.0' })).toThrow(/MOORWIND_ALLOW_LAN=yes/);
    const lanOnly = { HOST: '0.0.0.0', MOORWIND_ALLOW_LAN: 'yes' };
    expect(() => parseConfig(lanOnly)).toThrow(/MOORWIND_PLAIN_HTTP=yes/);
    expect(parseConfig({ ...lanOnly, MOORWIND_PLAIN_HTTP: 'yes' }).host).toBe('0.0.0.0');
    expect(() => parseConfig({ ...lanOnly, MOORWIND_TLS_CERT: '/nowhere.pem' })).toThrow(/go together/);
    expect(() => parseConfig({ ...lanOnly, MOORWIND_TLS_CERT: '/no.pem', MOORWIND_TLS_KEY: '/no.key' })).toThrow(
      /file \/no.pem/,
    );
    expect(() => parseConfig({ ...lanOnly, MOORWIND_PROXY: 'yes', MOORWIND_PLAIN_HTTP: 'yes' })).toThrow(
      /trusts the address/,
    );
    expect(parseConfig({ MOORWIND_PROXY: 'yes' })).toMatchObject({ host: '127.0.0.1', behindProxy: true });
  });

  it.each([{ PORT: '0' }, { PORT: 'x' }, { PORT: '70000' }, { MOORWIND_NOW: 'soon' }])(
    'refuses %j with a sentence',
    (env) => {
      expect(() => parseConfig(env)).toThrow(ConfigError);
    },
  );
});
