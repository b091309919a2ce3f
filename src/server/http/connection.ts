import { type Config, isLoopback } from '../config';
import { loadSite } from '../repositories/site';
import type { Context } from '../services/yard/user-action';

// Facts of a connection: its address, its encryption, its session cookie, and whether the site asks for a sign-in.

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

/** Whether the answer goes over TLS. */
export const isSecure = ({ request }: Pick<Asked, 'request'>, { tls, behindProxy }: Config): boolean =>
  tls !== null || (behindProxy && request.headers.get('x-forwarded-proto') === 'https');

/** Whether everybody signs in: beyond this machine always, on it where the site says so. */
export const asksWho = async (context: Context, config: Config): Promise<boolean> =>
  !isLoopback(config.host) || config.behindProxy || !(await loadSite(context.db)).openHere;
