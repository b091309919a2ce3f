import { defineMiddleware } from 'astro:middleware';
import { failure } from '@/core/failure/failure';
import { app } from '@/server/http/app';
import { isBusy } from '@/server/db/connect';
import { refusalOf } from '@/server/http/guard';
import { respondProblems } from '@/server/http/respond';
import { unlessSeen } from '@/server/http/seen';

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
} as const;

export const onRequest = defineMiddleware(async (context, next) => {
  const { config } = await app();
  const refused = refusalOf(context.request, context.url, config);
  if (refused) return respondProblems([failure(refused)]);
  const isApi = context.url.pathname.startsWith('/api/');
  try {
    const response = await next();
    for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
    return await unlessSeen(context.request, response);
  } catch (error) {
    if (isBusy(error)) return respondProblems([failure('server.busy')]);
    console.error(error);
    if (isApi) return respondProblems([failure('server.bug')]);
    throw error;
  }
});
