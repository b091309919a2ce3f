import { describe, expect, it } from 'vitest';
import { RecordTestBody } from '@/contracts/requests';
import { ProblemReply } from '@/contracts/responses';
import { ConfigError, parseConfig } from '@/server/config';
import { failure } from '@/core/failure/failure';
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
    expect(parseConfig({ HOST: '0.0.0.0', MOORWIND_ALLOW_LAN: 'yes' }).host).toBe('0.0.0.0');
  });

  it.each([{ PORT: '0' }, { PORT: 'x' }, { PORT: '70000' }, { MOORWIND_NOW: 'soon' }])(
    'refuses %j with a sentence',
    (env) => {
      expect(() => parseConfig(env)).toThrow(ConfigError);
    },
  );
});
