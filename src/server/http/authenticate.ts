import { failure, type Failure } from '@/core/failure/failure';
import { type KeyPurpose, mayAs, type Person, type Role } from '@/core/people/person';
import { type Config, isLoopback } from '../config';
import { loadSite } from '../repositories/site';
import { keyOpens, whoIs } from '../services/sign-in';
import type { Context } from '../services/user-action';

/** Over TLS a name that no other page of the host can set. Source: RFC 6265bis, 4.1.3.2. */
export const cookieName = (secure: boolean): string => (secure ? '__Host-mw_session' : 'mw_session');

export interface Asked {
  readonly request: Request;
  readonly url: URL;
  /** Address of the connection. */
  readonly peer: string;
  readonly cookie: (name: string) => string | undefined;
}

/** Where a request comes from; a proxy on this machine is believed where there is one. */
export const addressOf = ({ request, peer }: Pick<Asked, 'request' | 'peer'>, { behindProxy }: Config): string =>
  behindProxy ? (request.headers.get('x-forwarded-for')?.split(',').at(-1)?.trim() ?? peer) : peer;

/** Whether what is sent back goes over TLS. */
export const isSecure = ({ request }: Pick<Asked, 'request'>, { tls, behindProxy }: Config): boolean =>
  tls !== null || (behindProxy && request.headers.get('x-forwarded-proto') === 'https');

/** Whether everybody signs in: beyond this machine always, on it where the site says so. */
export const asksWho = async (context: Context, config: Config): Promise<boolean> =>
  !isLoopback(config.host) || config.behindProxy || !(await loadSite(context.db)).openHere;

/** What anybody may ask for: to sign in, and whether the server is up. */
const ANYBODY: readonly RegExp[] = [/^\/sign-in$/, /^\/api\/sessions(\/|$)/, /^\/api\/health$/];
/** Settings and people. */
const LEAD: readonly RegExp[] = [
  /^\/people(\/|$)/,
  /^\/audit$/,
  /^\/site$/,
  /^\/backups$/,
  /^\/api\/backups(\/|$)/,
  // A merge cannot be undone: later readings of a part use the other entry.
  /^\/api\/stock\/merges$/,
  /^\/sheets$/,
  /^\/lists\/(people|settings)\.csv$/,
  /^\/api\/sheets(\/|$)/,
  /^\/bundles$/,
  /^\/api\/bundle$/,
  /^\/api\/machines\/[^/]+\/bundle$/,
  /^\/api\/site$/,
  /^\/api\/people(\/|$)/,
  /^\/api\/keys(\/|$)/,
  /^\/api\/open-here$/,
  /^\/api\/rule-set$/,
  /^\/api\/dusts$/,
];
/** Requests that a program's key allows. */
const KEYS: readonly { readonly purpose: KeyPurpose; readonly method: string; readonly path: RegExp }[] = [
  { purpose: 'calendar', method: 'GET', path: /^\/api\/plan\/calendar\.ics$/ },
  { purpose: 'label', method: 'GET', path: /^\/m\/[^/]+$/ },
  { purpose: 'meter', method: 'POST', path: /^\/api\/instruments\/\d+\/stream$/ },
];

const matches = (list: readonly RegExp[], path: string): boolean => list.some((r) => r.test(path));

/** The role an address and a method ask for. */
export const roleNeeded = (method: string, path: string): Role =>
  matches(LEAD, path) ? 'lead' : method === 'GET' || method === 'HEAD' ? 'look' : 'technician';

/** The path as the router reads it: any encoding and any slashes lead to the same role. */
export const plainPath = (pathname: string): string => {
  let path = pathname;
  for (let i = 0; i < 3 && path.includes('%'); i += 1) {
    try {
      path = decodeURIComponent(path);
    } catch {
      break;
    }
  }
  return path.replace(/\/+/g, '/').replace(/\/$/, '') || '/';
};

export type Entry =
  { readonly allowed: true; readonly person: Person | null } | { readonly allowed: false; readonly because: Failure };

/** Lets a request in, with the person it is of; null where nobody signs in, or a program's key opened. */
export const authenticate = async (
  asked: Asked,
  { context, config }: { context: Context; config: Config },
): Promise<Entry> => {
  const { request, url } = asked;
  const path = plainPath(url.pathname);
  if (!(await asksWho(context, config)) || matches(ANYBODY, path)) return { allowed: true, person: null };
  const token = asked.cookie(cookieName(isSecure(asked, config)));
  const person = token === undefined ? null : await whoIs(context, token);
  if (person) {
    const needed = roleNeeded(request.method, path);
    return mayAs(person.role, needed)
      ? { allowed: true, person }
      : { allowed: false, because: failure('role.not-yours', '', { needed, role: person.role }) };
  }
  const key = url.searchParams.get('key') ?? /^Bearer (.+)$/.exec(request.headers.get('authorization') ?? '')?.[1];
  const opens = KEYS.find((k) => k.method === request.method && k.path.test(path));
  if (key && opens && (await keyOpens(context, key, opens.purpose))) return { allowed: true, person: null };
  return { allowed: false, because: failure('sign-in.ended') };
};
