import { defineMiddleware } from 'astro:middleware';
import { failure } from '@/core/failure/failure';
import { authenticate } from '@/server/http/authenticate';
import { addressOf, asksWho } from '@/server/http/connection';
import { routeFor } from '@/server/http/routes';
import { app } from '@/server/http/app';
import { faultOf } from '@/server/db/connect';
import { whileOpen } from '@/server/http/restore-lock';
import { refusalOf } from '@/server/http/same-origin';
import { respondProblems } from '@/server/http/respond';
import { withEtag } from '@/server/http/etag';
import { mayWrite } from '@/server/http/write-rate';
import { noteExport } from '@/server/services/house/people';

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'permissions-policy': 'camera=(self), geolocation=(), microphone=(self), payment=(), usb=()',
} as const;
const READS: ReadonlySet<string> = new Set(['GET', 'HEAD']);

/** A table or an export file. A calendar is fetched every hour by its key, which the page of people lists. */
const isExport = (response: Response): boolean =>
  response.ok && /^(text\/csv|application\/zip)/.test(response.headers.get('content-type') ?? '');

export const onRequest = defineMiddleware(async (astro, next) => {
  const { request, url } = astro;
  const isApi = url.pathname.startsWith('/api/');
  try {
    return await whileOpen(async () => {
      const { config, context } = await app();
      const refused = refusalOf(request, url, config);
      if (refused) return respondProblems([failure(refused)]);
      const asked = {
        request,
        url,
        peer: astro.clientAddress,
        cookie: (name: string) => astro.cookies.get(name)?.value,
      };
      const entry = await authenticate(asked, { config, context, find: routeFor });
      const address = addressOf(asked, config);
      if (!entry.allowed) {
        const signsIn = entry.because.code === 'sign-in.ended' && !isApi && READS.has(request.method);
        return signsIn
          ? astro.redirect(`/sign-in?to=${encodeURIComponent(`${url.pathname}${url.search}`)}`)
          : respondProblems([entry.because]);
      }
      if (
        !READS.has(request.method) &&
        !mayWrite(entry.person?.initials ?? address, {
          path: url.pathname,
          now: Date.now(),
          most: config.writesAMinute,
        })
      )
        return respondProblems([failure('writes.too-many')]);
      astro.locals.person = entry.person;
      astro.locals.address = address;
      astro.locals.signsIn = await asksWho(context, config);
      const response = await next();
      if (entry.person && isExport(response))
        await noteExport(context, { who: entry.person.initials, what: url.pathname, address });
      for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
      if (config.tls) response.headers.set('strict-transport-security', 'max-age=31536000');
      return await withEtag(request, response);
    });
  } catch (error) {
    const fault = faultOf(error);
    if (fault && isApi) return respondProblems([failure(fault)]);
    if (fault) astro.locals.fault = fault;
    console.error(error);
    if (isApi) return respondProblems([failure('server.bug')]);
    throw error;
  }
});
