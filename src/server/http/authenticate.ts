import { failure, type Failure } from '@/core/failure/failure';
import { type KeyPurpose, mayAs, type Person, type Role } from '@/core/people/person';
import type { Config } from '../config';
import { keyOpens, whoIs } from '../services/house/sign-in';
import type { Context } from '../services/yard/user-action';
import { type Asked, asksWho, cookieName, isSecure } from './connection';
import { plainPath, type Access, type Route } from './route';

/** Pages that only a lead may open; every other page needs the role "look". Endpoints carry their role in the route table. */
const LEAD_PAGES: readonly RegExp[] = [
  /^\/people(\/|$)/,
  /^\/audit$/,
  /^\/site$/,
  /^\/backups$/,
  /^\/sheets$/,
  /^\/lists\/(people|settings)\.csv$/,
  /^\/bundles$/,
];
const LABEL_PAGE = /^\/m\/[^/]+$/;

export interface Needed {
  readonly access: Access;
  /** The kind of program key that also opens the address; null for none. */
  readonly key: KeyPurpose | null;
}

const forPage = (method: string, path: string): Needed => ({
  access: path === '/sign-in' ? 'anybody' : LEAD_PAGES.some((r) => r.test(path)) ? 'lead' : 'look',
  key: method === 'GET' && LABEL_PAGE.test(path) ? 'label' : null,
});

/** Finds the route of a method and a plain path; null where the table has none. */
export type FindRoute = (method: string, path: string) => Route | null;

/** The access that a method and a plain path need. An address that the table lacks only answers 404 or 405, so it needs the role "look". */
export const accessNeeded = (method: string, path: string, find: FindRoute): Needed => {
  if (path !== '/api' && !path.startsWith('/api/')) return forPage(method, path);
  const route = find(method, path);
  return route ? { access: route.access, key: route.key ?? null } : { access: 'look', key: null };
};

export type Entry =
  { readonly allowed: true; readonly person: Person | null } | { readonly allowed: false; readonly because: Failure };

interface Authenticating {
  readonly context: Context;
  readonly config: Config;
  readonly find: FindRoute;
}

/** Authenticates and authorises a request. `person` is null where sign-in is off or a program's key was used. */
export const authenticate = async (asked: Asked, { context, config, find }: Authenticating): Promise<Entry> => {
  const { request, url } = asked;
  const { access, key: purpose } = accessNeeded(request.method, plainPath(url.pathname), find);
  if (!(await asksWho(context, config)) || access === 'anybody') return { allowed: true, person: null };
  const token = asked.cookie(cookieName(isSecure(asked, config)));
  const person = token === undefined ? null : await whoIs(context, token);
  if (person) return mayEnter(person, access);
  const key = url.searchParams.get('key') ?? /^Bearer (.+)$/.exec(request.headers.get('authorization') ?? '')?.[1];
  if (key && purpose && (await keyOpens(context, key, purpose))) return { allowed: true, person: null };
  return { allowed: false, because: failure('sign-in.ended') };
};

const mayEnter = (person: Person, needed: Role): Entry =>
  mayAs(person.role, needed)
    ? { allowed: true, person }
    : { allowed: false, because: failure('role.not-yours', '', { needed, role: person.role }) };
