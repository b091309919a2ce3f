import { DAY_MS } from '@/core/calendar/time';
import { PlainAnswer } from '@/contracts/action-answer';
import type { KeyBody, OfPersonBody, OpenHereBody, PersonBody, RevokeKeyBody } from '@/contracts/people';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Db } from '../../db/connect';
import {
  type AuditKind,
  endSessionsOf,
  findPerson,
  insertAudit,
  insertKey,
  leadSignsIn,
  revokeKey,
  saveCode,
  savePerson,
} from '../../repositories/people';
import { loadSite } from '../../repositories/site';
import { codeHash, newCode, newToken, tokenHash } from './passphrase';
import { changeSite } from '../yard/site-settings';
import { type Context, runOnce } from '../yard/user-action';

type Done = Result<{ readonly id: number }>;

const CODE_DAYS = 7;

const note = (db: Db, { at, by, kind, detail }: { at: string; by: string; kind: AuditKind; detail: string }) =>
  insertAudit(db, { at, who: by, kind, detail, address: '' });

const dated = (day: string | null): string => day ?? 'none';

/** Adds or changes a person. The last lead who can sign in stays a lead. */
export const keepPerson = async ({ db, now }: Context, body: PersonBody): Promise<Done> => {
  const at = now();
  return runOnce(db, { kind: 'person', body, at, answers: PlainAnswer }, async (tx) => {
    const { by, initials, name, role, mayContain, maskFitOn, trainedOn, active } = body;
    const person = { initials, name, role, mayContain, maskFitOn, trainedOn, active };
    const could = await leadSignsIn(tx);
    const id = await savePerson(tx, person, at);
    if (could && !(await leadSignsIn(tx))) return fail(failure('person.last-lead', 'role'));
    if (!person.active) await endSessionsOf(tx, id, at);
    await note(tx, {
      at,
      by,
      kind: 'personSaved',
      detail: `${person.initials.toUpperCase()}: ${person.role}${person.active ? '' : ', not active'}, contained work ${person.mayContain ? 'yes' : 'no'}, fit test ${dated(person.maskFitOn)}, training ${dated(person.trainedOn)}`,
    });
    return ok({ id });
  });
};

export interface Secret {
  readonly secret: string;
  readonly until: string | null;
}

/** A code with which a person chooses a passphrase, shown once. It is not kept, so that asking again makes another. */
export const makeCode = async (
  { db, now }: Pick<Context, 'db' | 'now'>,
  body: OfPersonBody,
): Promise<Result<Secret>> => {
  const code = newCode();
  const at = now();
  const until = new Date(Date.parse(at) + CODE_DAYS * DAY_MS).toISOString();
  return db.transaction().execute(async (tx) => {
    const person = await findPerson(tx, body.initials);
    if (!person?.active) return fail(failure('person.unknown', 'initials', { initials: body.initials }));
    await saveCode(tx, person.id, { hash: codeHash(code), until });
    await note(tx, { at, by: body.by, kind: 'codeMade', detail: person.initials });
    return ok({ secret: code, until });
  });
};

/** A key for a program, shown once. */
export const makeKey = async ({ db, now }: Context, body: KeyBody): Promise<Result<Secret>> => {
  const key = newToken();
  const at = now();
  await db.transaction().execute(async (tx) => {
    await insertKey(tx, {
      keyHash: tokenHash(key),
      purpose: body.purpose,
      name: body.name,
      madeBy: body.by,
      madeAt: at,
    });
    await note(tx, { at, by: body.by, kind: 'keyMade', detail: `${body.purpose}: ${body.name}` });
  });
  return ok({ secret: key, until: null });
};

export const withdrawKey = async ({ db, now }: Context, body: RevokeKeyBody): Promise<Done> =>
  runOnce(db, { kind: 'key withdrawn', body, at: now(), answers: PlainAnswer }, async (tx) => {
    await revokeKey(tx, body.id, now());
    await note(tx, { at: now(), by: body.by, kind: 'keyRevoked', detail: `key ${body.id}` });
    return ok({ id: body.id });
  });

/** Sets whether the server's own machine needs a passphrase too. It must stay possible to sign in. */
export const chooseOpenHere = async ({ db, now }: Context, body: OpenHereBody): Promise<Done> =>
  runOnce(db, { kind: 'open here', body, at: now(), answers: PlainAnswer }, async (tx) => {
    if (!body.openHere && !(await leadSignsIn(tx))) return fail(failure('person.no-lead', 'openHere'));
    await changeSite(tx, { after: { ...(await loadSite(tx)), openHere: body.openHere }, by: body.by, at: now() });
    await note(tx, {
      at: now(),
      by: body.by,
      kind: 'settingChanged',
      detail: body.openHere ? 'open at this machine' : 'passphrase at this machine too',
    });
    return ok({ id: 1 });
  });

/** Who took records out of the house, and which. */
export const noteExport = (
  { db, now }: Context,
  { who, what, address }: { readonly who: string; readonly what: string; readonly address: string },
): Promise<void> => insertAudit(db, { at: now(), who, kind: 'exported', detail: what, address });
