import { beforeEach, describe, expect, it } from 'vitest';
import type { PersonBody } from '@/contracts/people';
import type { Result } from '@/core/failure/failure';
import { mayAs, paperGaps, type Person, ROLES, waitAfterWrong } from '@/core/people/person';
import { parseConfig } from '@/server/config';
import type { Db } from '@/server/db/connect';
import { accessNeeded, authenticate } from '@/server/http/authenticate';
import { addressOf, isSecure } from '@/server/http/connection';
import { signedByOther } from '@/server/http/endpoint';
import { routeFor } from '@/server/http/routes';
import { mayWrite } from '@/server/http/write-rate';
import { loadAudit, loadPeople } from '@/server/repositories/people';
import { codeHash, hashPassphrase, isPassphrase, newCode, scryptKey } from '@/server/services/house/passphrase';
import { chooseOpenHere, keepPerson, makeCode, makeKey, withdrawKey } from '@/server/services/house/people';
import {
  choosePassphrase,
  keyOpens,
  mayContain,
  signIn,
  signOut,
  signOutEverywhere,
  whoIs,
} from '@/server/services/house/sign-in';
import { startJob } from '@/server/services/jobs/start-job';
import type { Context } from '@/server/services/yard/user-action';
import { ownPath } from '@/view-models/own-path';
import { dustBody } from '../support/bodies';
import { demoContext, newId, NOW } from '../support/database';

let now = NOW;
let context: Context & { readonly db: Db };
beforeEach(async () => {
  now = NOW;
  context = { ...(await demoContext()), now: () => now };
});
const later = (ms: number) => {
  now = new Date(Date.parse(now) + ms).toISOString();
};
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;

const codes = (result: Result<unknown>) => (result.ok ? ['ok'] : result.failures.map((f) => f.code));
const got = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(codes(result).join());
  return result.value;
};
const person = (over: Partial<PersonBody> = {}): PersonBody => ({
  clientId: newId(),
  by: 'MK',
  initials: 'TO',
  name: 'Tove Oyen',
  role: 'technician',
  mayContain: false,
  maskFitOn: null,
  trainedOn: null,
  active: true,
  ...over,
});
const PHRASE = 'three wet gulls';
const withPassphrase = async (over: Partial<PersonBody> = {}) => {
  const body = person(over);
  got(await keepPerson(context, body));
  const { secret } = got(await makeCode(context, { clientId: newId(), by: 'MK', initials: body.initials }));
  return got(
    await choosePassphrase(
      context,
      { clientId: newId(), initials: body.initials, name: '', code: secret, passphrase: PHRASE },
      { address: '10.0.0.9', firstCode: null },
    ),
  );
};
const tryIn = (passphrase: string, initials = 'TO') =>
  signIn(context, { clientId: newId(), initials, passphrase }, '10.0.0.9');

describe('a passphrase', () => {
  // RFC 7914, section 12: test vectors of scrypt (the last one, of 1 GiB, is left out).
  it.each([
    [
      '',
      '',
      16,
      1,
      1,
      '77d6576238657b203b19ca42c18a0497f16b4844e3074ae8dfdffa3fede21442fcd0069ded0948f8326a753a0fc81f17e8d3e0fb2e0d3628cf35e20c38d18906',
    ],
    [
      'password',
      'NaCl',
      1024,
      8,
      16,
      'fdbabe1c9d3472007856e7190d01e9fe7c6ad7cbc8237830e77376634b3731622eaf30d92e22a3886ff109279d9830dac727afb94a83ee6d8360cbdfa2cc0640',
    ],
    [
      'pleaseletmein',
      'SodiumChloride',
      16384,
      8,
      1,
      '7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2d5432955613f0fcf62d49705242a9af9e61e85dc0d651e40dfcf017b45575887',
    ],
  ])('of "%s" with the salt "%s" is hashed as RFC 7914 has it', async (phrase, salt, n, r, p, hex) => {
    const key = await scryptKey(phrase, { salt: Buffer.from(salt), bytes: 64, n, r, p });
    expect(key.toString('hex')).toBe(hex);
  });

  it('is never stored, is salted, and is known again however its accents were typed', async () => {
    const [one, two] = [await hashPassphrase('crème brûlée at noon'), await hashPassphrase('crème brûlée at noon')];
    expect(one).not.toBe(two);
    expect(one).not.toContain('noon');
    expect(await isPassphrase('crème brûlée at noon'.normalize('NFD'), one)).toBe(true);
    expect(await isPassphrase('creme brulee at noon', one)).toBe(false);
    expect(await isPassphrase('', one)).toBe(false);
    expect(await isPassphrase('anything at all', null)).toBe(false);
  });

  it('comes from a code that is read aloud: no two alike, no letters mistaken for others, case and hyphens apart', () => {
    const many = Array.from({ length: 200 }, newCode);
    expect(new Set(many).size).toBe(200);
    for (const code of many) expect(code).toMatch(/^([A-HJKMNP-RT-Y346789]{4}-){3}[A-HJKMNP-RT-Y346789]{4}$/);
    expect(codeHash('abcd efgh')).toBe(codeHash('ABCD-EFGH'));
  });
});

describe('signing in', () => {
  it('lets in whoever knows it, and tells nobody else which half was wrong', async () => {
    const { token } = await withPassphrase();
    expect(await whoIs(context, token)).toMatchObject({ initials: 'TO', role: 'technician' });
    expect(codes(await tryIn(PHRASE, ' to '))).toEqual(['ok']);
    expect(codes(await tryIn('three dry gulls'))).toEqual(['sign-in.wrong']);
    expect(codes(await tryIn(PHRASE, 'ZZ'))).toEqual(['sign-in.wrong']);
    expect(await whoIs(context, `${token}x`)).toBeNull();
  });

  it('keeps neither the token nor the passphrase nor the code in the file', async () => {
    const { token } = await withPassphrase();
    const rows = JSON.stringify([
      await context.db.selectFrom('session').selectAll().execute(),
      await context.db.selectFrom('person').selectAll().execute(),
      await context.db.selectFrom('audit_line').selectAll().execute(),
      await context.db.selectFrom('user_action').selectAll().execute(),
    ]);
    expect(rows).not.toContain(token);
    expect(rows).not.toContain(PHRASE);
  });

  it('looks at few of a thousand guesses, forgets them after the right one, and logs each that was looked at', async () => {
    await withPassphrase();
    let looked = 0;
    for (let i = 0; i < 1000; i += 1) {
      const [code] = codes(await tryIn(`guess number ${i}`));
      if (code === 'sign-in.wrong') looked += 1;
      else expect(code).toBe('sign-in.wait');
      later(5000);
    }
    // 1000 tries in 83 minutes; after the fifth each costs a wait that doubles up to a quarter of an hour: 5 + 7 + 4.
    expect(looked).toBe(16);
    const { total } = await loadAudit(context.db, { from: 0, most: 1 });
    expect(total).toBeLessThan(looked + 10);
    expect(codes(await tryIn(PHRASE))).toEqual(['sign-in.wait']);
    later(HOUR);
    expect(codes(await tryIn(PHRASE))).toEqual(['ok']);
    expect(codes(await tryIn('wrong once'))).toEqual(['sign-in.wrong']);
    expect(codes(await tryIn(PHRASE))).toEqual(['ok']);
    expect(waitAfterWrong(4)).toBe(0);
    expect(waitAfterWrong(5)).toBe(10);
    expect(waitAfterWrong(400)).toBe(900);
  });

  it('ends: after a shift without use, after a week, signed out here or everywhere, with the person, with a new passphrase', async () => {
    const open = async () => got(await tryIn(PHRASE)).token;
    const { token: idle, person: who } = await withPassphrase();
    later(13 * HOUR);
    expect(await whoIs(context, idle)).toBeNull();
    const used = await open();
    for (let h = 0; h < 8 * 24 && (await whoIs(context, used)) !== null; h += 6) later(6 * HOUR);
    expect(Date.parse(now) - Date.parse(NOW)).toBeGreaterThan(7 * 24 * HOUR);
    expect(Date.parse(now) - Date.parse(NOW)).toBeLessThan(8 * 24 * HOUR);
    const [here, there] = [await open(), await open()];
    await signOut(context, here, '10.0.0.9');
    expect(await whoIs(context, here)).toBeNull();
    expect(await whoIs(context, there)).not.toBeNull();
    await signOutEverywhere(context, who, '10.0.0.9');
    expect(await whoIs(context, there)).toBeNull();
    const last = await open();
    await keepPerson(context, person({ active: false }));
    expect(await whoIs(context, last)).toBeNull();
    expect(codes(await tryIn(PHRASE))).toEqual(['sign-in.wrong']);
    await keepPerson(context, person());
    // Back on the list, the person signs in anew: the old session does not come back.
    expect(await whoIs(context, last)).toBeNull();
    const before = await open();
    await withPassphrase();
    expect(await whoIs(context, before)).toBeNull();
  });

  it('takes a code once, for its own initials, for a week', async () => {
    got(await keepPerson(context, person()));
    const choose = (code: string, initials = 'TO') =>
      choosePassphrase(
        context,
        { clientId: newId(), initials, name: '', code, passphrase: PHRASE },
        { address: '', firstCode: null },
      );
    const make = async () => got(await makeCode(context, { clientId: newId(), by: 'MK', initials: 'TO' })).secret;
    const code = await make();
    expect(codes(await choose(code, 'ZZ'))).toEqual(['sign-in.code']);
    expect(codes(await choose(code))).toEqual(['ok']);
    expect(codes(await choose(code))).toEqual(['sign-in.code']);
    const old = await make();
    later(8 * 24 * HOUR);
    expect(codes(await choose(old))).toEqual(['sign-in.code']);
    expect(codes(await makeCode(context, { clientId: newId(), by: 'MK', initials: 'QQ' }))).toEqual(['person.unknown']);
  });

  it('makes the first lead with the code of the console, and nobody else with it', async () => {
    const first = newCode();
    const choose = (initials: string) =>
      choosePassphrase(
        context,
        { clientId: newId(), initials, name: 'Mara Kest', code: first, passphrase: PHRASE },
        { address: '', firstCode: first },
      );
    expect(got(await choose('mk')).person).toMatchObject({ initials: 'MK', role: 'lead', name: 'Mara Kest' });
    expect(codes(await choose('ZZ'))).toEqual(['sign-in.code']);
    expect((await loadPeople(context.db)).map((p) => p.person.initials)).toEqual(['MK']);
  });

  it('goes on to a page of this site, whatever the address asks for', () => {
    expect(ownPath('/m/CR-04?x=1')).toBe('/m/CR-04?x=1');
    for (const bad of [
      null,
      '//evil.invalid/',
      'https://evil.invalid',
      '/\\evil.invalid',
      '\\x',
      'javascript:1',
      '/api/keys',
    ])
      expect([bad, ownPath(bad)]).toEqual([bad, '/']);
  });
});

describe('a signature', () => {
  it('is the own one of the person who is signed in', () => {
    const me = { initials: 'TO' } as Person;
    expect(signedByOther({ by: 'MK' }, me)?.code).toBe('sign-in.other');
    for (const body of [{ by: ' to ' }, { note: 'no signature' }, null]) expect(signedByOther(body, me)).toBeNull();
    expect(signedByOther({ by: 'MK' }, null)).toBeNull();
  });
});

describe('who may do what', () => {
  it('asks a role of every address: reading, recording, settings', () => {
    const roleNeeded = (method: string, path: string) => accessNeeded(method, path, routeFor).access;
    expect(roleNeeded('GET', '/m/CR-04')).toBe('look');
    expect(roleNeeded('POST', '/api/machines/CR-04/tests')).toBe('technician');
    for (const path of [
      '/api/people',
      '/api/people/code',
      '/api/keys',
      '/api/rule-set',
      '/api/dusts',
      '/api/open-here',
      // Actions that cannot be undone.
      '/api/backups/restore',
      '/api/stock/merges',
    ])
      expect([path, roleNeeded('POST', path)]).toEqual([path, 'lead']);
    for (const path of ['/audit', '/people', '/people/TO', '/backups'])
      expect([path, roleNeeded('GET', path)]).toEqual([path, 'lead']);
    expect(ROLES.map((r) => ROLES.map((n) => mayAs(r, n)))).toEqual([
      [true, false, false],
      [true, true, false],
      [true, true, true],
    ]);
  });

  const config = parseConfig({ MOORWIND_PROXY: 'yes' });
  const ask = async (method: string, path: string, { token, key }: { token?: string; key?: string } = {}) => {
    const url = new URL(`http://127.0.0.1/`);
    url.pathname = path;
    if (key) url.searchParams.set('key', key);
    const entered = await authenticate(
      { request: new Request(url, { method }), url, peer: '127.0.0.1', cookie: () => token },
      { context, config, find: routeFor },
    );
    return entered.allowed ? (entered.person?.initials ?? 'let in') : entered.because.code;
  };

  it('lets each in as far as the role goes, at once when the role is lowered, and a key to its one thing until it is withdrawn', async () => {
    const { token } = await withPassphrase();
    expect(await ask('GET', '/')).toBe('sign-in.ended');
    expect(await ask('POST', '/api/machines/CR-04/tests')).toBe('sign-in.ended');
    expect(await ask('GET', '/sign-in')).toBe('let in');
    expect(await ask('POST', '/api/machines/CR-04/tests', { token })).toBe('TO');
    expect(await ask('POST', '/api/people', { token })).toBe('role.not-yours');
    expect(await ask('POST', '/api/people/', { token })).toBe('role.not-yours');
    for (const path of ['/api/%70eople', '/api/%2570eople', '/%61pi/people', '//api//people/', '/api/people%2Fcode'])
      expect([path, await ask('POST', path, { token })]).toEqual([path, 'role.not-yours']);
    got(await keepPerson(context, person({ role: 'look' })));
    expect(await ask('POST', '/api/machines/CR-04/tests', { token })).toBe('role.not-yours');
    expect(await ask('GET', '/m/CR-04', { token })).toBe('TO');
    const { secret: key } = got(
      await makeKey(context, { clientId: newId(), by: 'MK', purpose: 'calendar', name: 'x' }),
    );
    expect(await ask('GET', '/api/plan/calendar.ics', { key })).toBe('let in');
    expect(await ask('GET', '/m/CR-04', { key })).toBe('sign-in.ended');
    expect(await ask('POST', '/api/instruments/1/stream', { key })).toBe('sign-in.ended');
    expect(await keyOpens(context, key, 'label')).toBe(false);
    got(await withdrawKey(context, { clientId: newId(), by: 'MK', id: 1 }));
    expect(await ask('GET', '/api/plan/calendar.ics', { key })).toBe('sign-in.ended');
  });

  it('leaves this machine open where the site says so, and shuts nobody out', async () => {
    const here = parseConfig({});
    const url = new URL('http://127.0.0.1/people');
    const asked = { request: new Request(url), url, peer: '127.0.0.1', cookie: () => undefined };
    expect(await authenticate(asked, { context, config: here, find: routeFor })).toEqual({
      allowed: true,
      person: null,
    });
    const shut = () => chooseOpenHere(context, { clientId: newId(), by: 'MK', openHere: false });
    expect(codes(await shut())).toEqual(['person.no-lead']);
    await withPassphrase({ role: 'lead' });
    expect(codes(await shut())).toEqual(['ok']);
    expect(await authenticate(asked, { context, config: here, find: routeFor })).toMatchObject({ allowed: false });
    expect(codes(await keepPerson(context, person({ role: 'technician' })))).toEqual(['person.last-lead']);
    expect(codes(await keepPerson(context, person({ role: 'lead', active: false })))).toEqual(['person.last-lead']);
  });

  it('believes the proxy on this machine, and nobody else, where a request comes from', () => {
    const request = new Request('http://127.0.0.1/', {
      headers: { 'x-forwarded-for': '6.6.6.6, 192.168.1.7', 'x-forwarded-proto': 'https' },
    });
    expect(addressOf({ request, peer: '127.0.0.1' }, config)).toBe('192.168.1.7');
    expect(isSecure({ request }, config)).toBe(true);
    expect(addressOf({ request, peer: '127.0.0.1' }, parseConfig({}))).toBe('127.0.0.1');
    expect(isSecure({ request }, parseConfig({}))).toBe(false);
  });

  it('counts what one asker sends in a minute, and leaves the others alone', () => {
    const send = (asker: string, path: string, at: number) => mayWrite(asker, { path, now: at, most: 600 });
    const tries = Array.from({ length: 40 }, () => send('10.1.1.1', '/api/sessions', 0));
    expect(tries.filter(Boolean)).toHaveLength(30);
    expect(send('10.1.1.2', '/api/sessions', 0)).toBe(true);
    expect(send('10.1.1.1', '/api/machines/CR-04/tests', 0)).toBe(true);
    expect(send('10.1.1.1', '/api/sessions', 60_001)).toBe(true);
  });

  it('contained work is for whoever is on file for it; what was said of the dust is kept all the same', async () => {
    const start = (who: Person | null, by: string) =>
      startJob({ ...context, person: who }, 'CR-04', {
        clientId: newId(),
        by,
        job: { kind: 'service' },
        dust: dustBody('lead paint'),
        reason: 'precaution',
        people: 1,
        partInHand: true,
      } as unknown as Parameters<typeof startJob>[2]);
    got(await keepPerson(context, person()));
    const [tove] = (await loadPeople(context.db)).map((p) => p.person);
    expect(codes(await start(tove ?? null, 'TO'))).toEqual(['person.not-contained']);
    expect(codes(await start(null, 'TO'))).toEqual(['person.not-contained']);
    const said = await context.db.selectFrom('dust_collected').selectAll().where('said', '=', 'lead paint').execute();
    expect(said.length).toBeGreaterThan(0);
    got(await keepPerson(context, person({ mayContain: true })));
    expect(codes(await mayContain(context.db, { person: null, by: 'TO' }))).toEqual(['ok']);
    expect(codes(await mayContain(context.db, { person: null, by: 'NEW' }))).toEqual(['ok']);
  });

  it('says which papers of contained work are missing or over a year old (29 CFR 1910.134(f)(2))', () => {
    const of = (over: Partial<Person>): Person => ({
      id: 1,
      initials: 'TO',
      name: '',
      role: 'technician',
      mayContain: true,
      maskFitOn: '2025-11-24',
      trainedOn: '2020-01-01',
      active: true,
      ...over,
    });
    expect(paperGaps(of({}), '2026-11-24')).toEqual([]);
    expect(paperGaps(of({}), '2026-11-25')).toEqual(['fitOld']);
    expect(paperGaps(of({ maskFitOn: null, trainedOn: null }), '2026-11-24')).toEqual(['noFit', 'noTraining']);
    expect(paperGaps(of({ mayContain: false, maskFitOn: null }), '2026-11-24')).toEqual([]);
  });
});
