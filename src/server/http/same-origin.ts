import type { FailureCode } from '@/core/failure/failure';
import { type Config, isLoopback } from '../config';

const IP_LITERAL = /^(\d{1,3}(\.\d{1,3}){3}|\[[0-9a-f:.]+\])$/i;

/**
 * Whether a Host names this server. A page elsewhere that re-points its own name at this machine must not reach the
 * records: beyond loopback only addresses in figures and names that belong to it are answered.
 */
export const hostAllowed = (host: string, config: Pick<Config, 'allowLan' | 'hostNames'>): boolean => {
  if (!URL.canParse(`http://${host}`)) return false;
  const { hostname: name } = new URL(`http://${host}`);
  return (
    isLoopback(name) || (config.allowLan && (IP_LITERAL.test(name) || config.hostNames.includes(name.toLowerCase())))
  );
};

const READS: ReadonlySet<string> = new Set(['GET', 'HEAD']);

/** Sites a browser says a request came from, that are this one: its own pages, or typed into the address bar. */
const OWN_SITES: ReadonlySet<string> = new Set(['same-origin', 'none']);

/**
 * Whether a page of another site sent this. What writes, and every address of the interface, is for our own pages and
 * for programs, which send neither header; a link that is followed from elsewhere is a plain read and is let in.
 * Source: Fetch Metadata Request Headers (W3C), resource isolation policy; the Origin header (RFC 6454).
 */
export const fromElsewhere = (request: Request, url: URL): boolean => {
  const { headers, method } = request;
  const site = headers.get('sec-fetch-site');
  const followed = READS.has(method) && headers.get('sec-fetch-mode') === 'navigate';
  if (site !== null && !OWN_SITES.has(site) && !followed && (!READS.has(method) || url.pathname.startsWith('/api/')))
    return true;
  const origin = headers.get('origin');
  if (origin === null || READS.has(method)) return false;
  return !URL.canParse(origin) || new URL(origin).host !== (headers.get('host') ?? url.host);
};

/** Why a request is not answered; null when it is. */
export const refusalOf = (request: Request, url: URL, config: Config): FailureCode | null => {
  if (!hostAllowed(request.headers.get('host') ?? url.host, config)) return 'request.host';
  return fromElsewhere(request, url) ? 'request.elsewhere' : null;
};
