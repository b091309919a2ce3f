import type { APIRoute } from 'astro';
import { SignInBody } from '@/contracts/people';
import { app } from '@/server/http/app';
import { notThatWay } from '@/server/http/endpoint';
import { readJson } from '@/server/http/read-json';
import { respondProblems } from '@/server/http/respond';
import { sessionReply } from '@/server/http/session-reply';
import { signIn } from '@/server/services/sign-in';

export const POST: APIRoute = async (astro) => {
  const body = await readJson(astro.request, SignInBody);
  if (!body.ok) return respondProblems(body.failures);
  const { context } = await app();
  return sessionReply(astro, await signIn(context, body.value, astro.locals.address));
};
export const ALL = notThatWay;
