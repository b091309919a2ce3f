import { createHash } from 'node:crypto';

/** Pages and JSON answers; files have their own caching. */
const isRevalidated = (response: Response): boolean =>
  response.status === 200 && /^(text\/html|application\/json)/.test(response.headers.get('content-type') ?? '');

/**
 * Adds an etag to a page or a JSON answer; a client that has the same one gets a short 304. It is revalidated every time,
 * because it shows the present state. Source: RFC 9110, 8.8.3 and 13.1.2.
 */
export const withEtag = async (request: Request, response: Response): Promise<Response> => {
  if (request.method !== 'GET' || !isRevalidated(response)) return response;
  const body = await response.text();
  const tag = `W/"${createHash('sha256').update(body).digest('base64url').slice(0, 27)}"`;
  const headers = new Headers(response.headers);
  headers.set('etag', tag);
  headers.set('cache-control', 'private, no-cache');
  const seen = (request.headers.get('if-none-match') ?? '').split(',').some((t) => t.trim() === tag);
  if (!seen) return new Response(body, { status: 200, headers });
  headers.delete('content-type');
  return new Response(null, { status: 304, headers });
};
