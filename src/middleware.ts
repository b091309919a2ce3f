import { defineMiddleware } from 'astro:middleware';
import { failure } from '@/core/failure/failure';
import { isLoopback } from '@/server/config';
import { app } from '@/server/http/app';
import { respondProblems } from '@/server/http/respond';

/** A page elsewhere that re-points its own name at this machine must not reach the records. */
const hostAllowed = (host: string, allowLan: boolean): boolean =>
  allowLan || (URL.canParse(`http://${host}`) && isLoopback(new URL(`http://${host}`).hostname));

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
} as const;

export const onRequest = defineMiddleware(async (context, next) => {
  const { config } = await app();
  const host = context.request.headers.get('host') ?? context.url.host;
  if (!hostAllowed(host, config.allowLan)) return respondProblems([failure('request.host')]);
  const isApi = context.url.pathname.startsWith('/api/');
  try {
    const response = await next();
    for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
    return response;
  } catch (error) {
    console.error(error);
    if (isApi) return respondProblems([failure('server.bug')]);
    throw error;
  }
});
