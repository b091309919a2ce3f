import { KeyPurposeName, RoleName } from '@/contracts/people';
import type { KeyPurpose, Person } from '@/core/people/person';
import type { Db } from '../db/connect';
import type { Row } from '../db/tables';

const toPerson = (r: Row<'person'>): Person => ({
  id: r.id,
  initials: r.initials,
  name: r.name,
  role: RoleName.parse(r.role),
  mayContain: r.may_contain === 1,
  maskFitOn: r.mask_fit_on,
  trainedOn: r.trained_on,
  active: r.active === 1,
});

export interface PersonOnFile {
  readonly person: Person;
  /** Has chosen a passphrase. */
  readonly signsIn: boolean;
}

/** Everybody on file, by initials. */
export const loadPeople = async (db: Db): Promise<readonly PersonOnFile[]> => {
  const rows = await db.selectFrom('person').selectAll().orderBy('initials').execute();
  return rows.map((r) => ({ person: toPerson(r), signsIn: r.passphrase !== null }));
};

export interface Secrets {
  readonly person: Person;
  readonly passphrase: string | null;
  readonly codeHash: string | null;
  readonly codeUntil: string | null;
}

const findRow = (db: Db, initials: string) =>
  db.selectFrom('person').selectAll().where('initials', '=', initials.trim().toUpperCase()).executeTakeFirst();

export const findSecrets = async (db: Db, initials: string): Promise<Secrets | null> => {
  const r = await findRow(db, initials);
  return r ? { person: toPerson(r), passphrase: r.passphrase, codeHash: r.code_hash, codeUntil: r.code_until } : null;
};

export const findPerson = async (db: Db, initials: string): Promise<Person | null> =>
  (await findSecrets(db, initials))?.person ?? null;

/** Whether an active lead has a passphrase: without one nobody could sign in. */
export const leadSignsIn = async (db: Db): Promise<boolean> =>
  (await db
    .selectFrom('person')
    .select('id')
    .where('role', '=', 'lead')
    .where('active', '=', 1)
    .where('passphrase', 'is not', null)
    .executeTakeFirst()) !== undefined;

/** Adds a person or replaces their details. */
export const savePerson = async (db: Db, p: Omit<Person, 'id'>, at: string): Promise<number> => {
  const values = {
    name: p.name,
    role: p.role,
    may_contain: p.mayContain ? 1 : 0,
    mask_fit_on: p.maskFitOn,
    trained_on: p.trainedOn,
    active: p.active ? 1 : 0,
  };
  const { id } = await db
    .insertInto('person')
    .values({ ...values, initials: p.initials.trim().toUpperCase(), added_at: at })
    .onConflict((c) => c.column('initials').doUpdateSet(values))
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const savePassphrase = async (db: Db, personId: number, passphrase: string | null): Promise<void> => {
  await db
    .updateTable('person')
    .set({ passphrase, code_hash: null, code_until: null })
    .where('id', '=', personId)
    .execute();
};

export const saveCode = async (
  db: Db,
  personId: number,
  code: { readonly hash: string; readonly until: string },
): Promise<void> => {
  await db
    .updateTable('person')
    .set({ code_hash: code.hash, code_until: code.until })
    .where('id', '=', personId)
    .execute();
};

export interface Session {
  readonly id: number;
  readonly person: Person;
  readonly seenAt: string;
  readonly endsAt: string;
}

export const insertSession = async (
  db: Db,
  s: {
    readonly tokenHash: string;
    readonly personId: number;
    readonly at: string;
    readonly endsAt: string;
    readonly address: string;
  },
): Promise<void> => {
  await db
    .insertInto('session')
    .values({
      token_hash: s.tokenHash,
      person_id: s.personId,
      began_at: s.at,
      seen_at: s.at,
      ends_at: s.endsAt,
      ended_at: null,
      address: s.address,
    })
    .execute();
};

/** A session that has not been ended, of a person who is active. */
export const findSession = async (db: Db, tokenHash: string): Promise<Session | null> => {
  const s = await db
    .selectFrom('session')
    .selectAll()
    .where('token_hash', '=', tokenHash)
    .where('ended_at', 'is', null)
    .executeTakeFirst();
  if (!s) return null;
  const r = await db
    .selectFrom('person')
    .selectAll()
    .where('id', '=', s.person_id)
    .where('active', '=', 1)
    .executeTakeFirst();
  return r ? { id: s.id, person: toPerson(r), seenAt: s.seen_at, endsAt: s.ends_at } : null;
};

export const touchSession = async (db: Db, id: number, at: string): Promise<void> => {
  await db.updateTable('session').set({ seen_at: at }).where('id', '=', id).execute();
};

export const endSession = async (db: Db, tokenHash: string, at: string): Promise<void> => {
  await db
    .updateTable('session')
    .set({ ended_at: at })
    .where('token_hash', '=', tokenHash)
    .where('ended_at', 'is', null)
    .execute();
};

export const endSessionsOf = async (db: Db, personId: number, at: string): Promise<void> => {
  await db
    .updateTable('session')
    .set({ ended_at: at })
    .where('person_id', '=', personId)
    .where('ended_at', 'is', null)
    .execute();
};

export interface AccessKey {
  readonly id: number;
  readonly purpose: KeyPurpose;
  readonly name: string;
  readonly madeBy: string;
  readonly madeAt: string;
  readonly revokedAt: string | null;
}

const toKey = (r: Row<'access_key'>): AccessKey => ({
  id: r.id,
  purpose: KeyPurposeName.parse(r.purpose),
  name: r.name,
  madeBy: r.made_by,
  madeAt: r.made_at,
  revokedAt: r.revoked_at,
});

export const loadKeys = async (db: Db): Promise<readonly AccessKey[]> =>
  (await db.selectFrom('access_key').selectAll().orderBy('id', 'desc').execute()).map(toKey);

export const findKey = async (db: Db, keyHash: string): Promise<AccessKey | null> => {
  const r = await db
    .selectFrom('access_key')
    .selectAll()
    .where('key_hash', '=', keyHash)
    .where('revoked_at', 'is', null)
    .executeTakeFirst();
  return r ? toKey(r) : null;
};

export const insertKey = async (
  db: Db,
  k: Omit<AccessKey, 'id' | 'revokedAt'> & { readonly keyHash: string },
): Promise<number> => {
  const { id } = await db
    .insertInto('access_key')
    .values({
      key_hash: k.keyHash,
      purpose: k.purpose,
      name: k.name,
      made_by: k.madeBy,
      made_at: k.madeAt,
      revoked_at: null,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const revokeKey = async (db: Db, id: number, at: string): Promise<void> => {
  await db
    .updateTable('access_key')
    .set({ revoked_at: at })
    .where('id', '=', id)
    .where('revoked_at', 'is', null)
    .execute();
};

export interface AuditLine {
  readonly at: string;
  /** Initials, or the text typed for them. */
  readonly who: string;
  readonly kind: AuditKind;
  readonly detail: string;
  readonly address: string;
}

export const AUDIT_KINDS = [
  'signedIn',
  'wrongPassphrase',
  'signedOut',
  'signedOutEverywhere',
  'passphraseChosen',
  'wrongCode',
  'personSaved',
  'codeMade',
  'keyMade',
  'keyRevoked',
  'settingChanged',
  'exported',
  'takenIn',
] as const;
export type AuditKind = (typeof AUDIT_KINDS)[number];

export const insertAudit = async (db: Db, line: AuditLine): Promise<void> => {
  await db.insertInto('audit_line').values(line).execute();
};

/** The newest entries of the access log, and how many there are. */
export const loadAudit = async (
  db: Db,
  { from, most }: { readonly from: number; readonly most: number },
): Promise<{ readonly lines: readonly AuditLine[]; readonly total: number }> => {
  const rows = await db.selectFrom('audit_line').selectAll().orderBy('id', 'desc').offset(from).limit(most).execute();
  const { n } = await db
    .selectFrom('audit_line')
    .select(({ fn }) => fn.countAll<number>().as('n'))
    .executeTakeFirstOrThrow();
  return {
    lines: rows.map((r) => ({
      at: r.at,
      who: r.who,
      kind: AUDIT_KINDS.find((k) => k === r.kind) ?? 'settingChanged',
      detail: r.detail,
      address: r.address,
    })),
    total: n,
  };
};

/** Wrong tries of a name since its last sign-in, newest first. */
export const wrongSince = async (db: Db, who: string, since: string): Promise<readonly string[]> => {
  const rows = await db
    .selectFrom('audit_line')
    .select(['kind', 'at'])
    .where('who', '=', who)
    .where('kind', 'in', ['wrongPassphrase', 'wrongCode', 'signedIn', 'passphraseChosen'])
    .where('at', '>=', since)
    .orderBy('id', 'desc')
    .limit(50)
    .execute();
  const letIn = rows.findIndex((r) => r.kind === 'signedIn' || r.kind === 'passphraseChosen');
  return rows.slice(0, letIn < 0 ? rows.length : letIn).map((r) => r.at);
};
