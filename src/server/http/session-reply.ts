import type { APIContext } from 'astro';
import type { Result } from '@/core/failure/failure';
import type { SignedIn } from '../services/house/sign-in';
import { app } from './app';
import { cookieName, isSecure } from './connection';
import { json, respondProblems } from './respond';

const secureOf = async ({ request }: Pick<APIContext, 'request'>): Promise<boolean> =>
  isSecure({ request }, (await app()).config);

const COOKIE = { httpOnly: true, sameSite: 'lax', path: '/' } as const;

/** The session of the browser that asks. */
export const sessionToken = async (astro: APIContext): Promise<string | undefined> =>
  astro.cookies.get(cookieName(await secureOf(astro)))?.value;

/** Hands the session to the browser, where no script can read it, and says nothing of it in the answer. */
export const sessionReply = async (astro: APIContext, result: Result<SignedIn>): Promise<Response> => {
  if (!result.ok) return respondProblems(result.failures);
  const secure = await secureOf(astro);
  const { token, endsAt, person } = result.value;
  astro.cookies.set(cookieName(secure), token, { ...COOKIE, secure, expires: new Date(endsAt) });
  // Initials for new records; the page fills them in.
  astro.cookies.set('mw_by', person.initials, { path: '/', sameSite: 'lax', maxAge: 365 * 86_400 });
  return json({ id: person.id, warnings: [] }, 201);
};

export const clearCookie = async (astro: APIContext): Promise<void> => {
  const secure = await secureOf(astro);
  astro.cookies.delete(cookieName(secure), { ...COOKIE, secure });
};
