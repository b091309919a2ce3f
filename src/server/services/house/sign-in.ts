import { DAY_MS, HOUR_MS } from '@/core/calendar/time';
import type { ChoosePassphraseBody, SignInBody } from '@/contracts/people';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { type KeyPurpose, type Person, waitAfterWrong } from '@/core/people/person';
import type { Db } from '../../db/connect';
import {
  endSession,
  endSessionsOf,
  findKey,
  findPerson,
  findSecrets,
  findSession,
  insertAudit,
  insertSession,
  leadSignsIn,
  savePassphrase,
  savePerson,
  touchSession,
  wrongSince,
} from '../../repositories/people';
import { codeHash, hashPassphrase, isPassphrase, newToken, tokenHash } from './passphrase';
import type { Context } from '../yard/user-action';

/** Longest idle session: a shift. Every session ends after a week. Moorwind defaults. */
const IDLE_MS = 12 * HOUR_MS;
const WHOLE_MS = 7 * DAY_MS;
/** A use is written down at most so often: reading a page must not write. */
const SEEN_MS = 5 * 60_000;
/** Wrong tries older than this are forgotten. */
const FORGET_MS = DAY_MS;

type Here = Pick<Context, 'db' | 'now'>;

const moment = (now: string, ms: number): string => new Date(Date.parse(now) + ms).toISOString();

export interface SignedIn {
  /** Goes to the browser and is kept nowhere else. */
  readonly token: string;
  readonly person: Person;
  readonly endsAt: string;
}

const initialsOf = (typed: string): string => typed.trim().toUpperCase().slice(0, 12);

/** Wrong passphrases and codes cost time, for any name. */
const mustWait = async (db: Db, who: string, now: string): Promise<Result<true>> => {
  const wrong = await wrongSince(db, who, moment(now, -FORGET_MS));
  const [last] = wrong;
  if (last === undefined) return ok(true);
  const left = Math.ceil((Date.parse(last) + waitAfterWrong(wrong.length) * 1000 - Date.parse(now)) / 1000);
  return left > 0 ? fail(failure('sign-in.wait', '', { seconds: left })) : ok(true);
};

const begin = async (
  { db, now }: Here,
  { person, address }: { readonly person: Person; readonly address: string },
): Promise<SignedIn> => {
  const at = now();
  const token = newToken();
  const endsAt = moment(at, WHOLE_MS);
  await insertSession(db, { tokenHash: tokenHash(token), personId: person.id, at, endsAt, address });
  return { token, person, endsAt };
};

/** Signs a person in; a refusal does not say which part was wrong. */
export const signIn = async (here: Here, body: SignInBody, address: string): Promise<Result<SignedIn>> => {
  const { db, now } = here;
  const who = initialsOf(body.initials);
  const wait = await mustWait(db, who, now());
  if (!wait.ok) return wait;
  const secrets = await findSecrets(db, who);
  const right = await isPassphrase(body.passphrase, secrets?.passphrase ?? null);
  if (!secrets || !right || !secrets.person.active) {
    await insertAudit(db, { at: now(), who, kind: 'wrongPassphrase', detail: '', address });
    return fail(failure('sign-in.wrong'));
  }
  await insertAudit(db, { at: now(), who, kind: 'signedIn', detail: '', address });
  return ok(await begin(here, { person: secrets.person, address }));
};

/** Sets a passphrase with a code, once, and signs the person in; their other sessions end. */
export const choosePassphrase = async (
  here: Here,
  body: ChoosePassphraseBody,
  { address, firstCode }: { readonly address: string; readonly firstCode: string | null },
): Promise<Result<SignedIn>> => {
  const { db, now } = here;
  const who = initialsOf(body.initials);
  const wait = await mustWait(db, who, now());
  if (!wait.ok) return wait;
  const given = codeHash(body.code);
  const passphrase = await hashPassphrase(body.passphrase);
  const signedIn = await db.transaction().execute(async (tx) => {
    const at = now();
    const first = firstCode !== null && given === codeHash(firstCode) && !(await leadSignsIn(tx));
    const known = await findSecrets(tx, who);
    const own = known?.codeHash === given && (known.codeUntil ?? '') > at && known.person.active;
    if (!first && !own) {
      await insertAudit(tx, { at, who, kind: 'wrongCode', detail: '', address });
      return null;
    }
    if (first)
      await savePerson(
        tx,
        {
          mayContain: false,
          maskFitOn: null,
          trainedOn: null,
          ...known?.person,
          initials: who,
          name: body.name === '' ? who : body.name,
          role: 'lead',
          active: true,
        },
        at,
      );
    const person = (await findSecrets(tx, who))?.person;
    if (!person) return null;
    await savePassphrase(tx, person.id, passphrase);
    await endSessionsOf(tx, person.id, at);
    await insertAudit(tx, { at, who, kind: 'passphraseChosen', detail: first ? 'first lead' : '', address });
    return begin({ db: tx, now }, { person, address });
  });
  return signedIn ? ok(signedIn) : fail(failure('sign-in.code', 'code'));
};

/** Whether no lead can sign in yet. */
export const nobodySignsIn = async ({ db }: Pick<Context, 'db'>): Promise<boolean> => !(await leadSignsIn(db));

/** Who a session belongs to; null when there is none, it has ended, or it was not used for a shift. */
export const whoIs = async ({ db, now }: Here, token: string): Promise<Person | null> => {
  const session = await findSession(db, tokenHash(token));
  if (!session) return null;
  const at = now();
  if (session.endsAt <= at || moment(session.seenAt, IDLE_MS) <= at) return null;
  if (moment(session.seenAt, SEEN_MS) <= at) await touchSession(db, session.id, at);
  return session.person;
};

export const signOut = async ({ db, now }: Here, token: string, address: string): Promise<void> => {
  const session = await findSession(db, tokenHash(token));
  await endSession(db, tokenHash(token), now());
  if (session)
    await insertAudit(db, { at: now(), who: session.person.initials, kind: 'signedOut', detail: '', address });
};

export const signOutEverywhere = async ({ db, now }: Here, person: Person, address: string): Promise<void> => {
  await endSessionsOf(db, person.id, now());
  await insertAudit(db, { at: now(), who: person.initials, kind: 'signedOutEverywhere', detail: '', address });
};

/** Whether a program's key opens a thing. */
export const keyOpens = async ({ db }: Here, key: string, purpose: KeyPurpose): Promise<boolean> =>
  (await findKey(db, tokenHash(key)))?.purpose === purpose;

/**
 * Contained work needs a person on file for it: the person signed in, or, without sign-in, the person with the given
 * initials. Unknown initials are accepted only without sign-in.
 */
export const mayContain = async (
  db: Db,
  { person, by }: { readonly person?: Person | null | undefined; readonly by: string },
): Promise<Result<true>> => {
  const who = person ?? (await findPerson(db, by));
  return who && !(who.active && who.mayContain)
    ? fail(failure('person.not-contained', 'by', { initials: who.initials }))
    : ok(true);
};
