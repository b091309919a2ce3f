import type { APIRoute } from 'astro';
import { EndSessionBody } from '@/contracts/people';
import { app } from '@/server/http/app';
import { notThatWay } from '@/server/http/endpoint';
import { readJson } from '@/server/http/read-json';
import { json, respondProblems } from '@/server/http/respond';
import { clearCookie, sessionToken } from '@/server/http/session-reply';
import { signOut, signOutEverywhere, whoIs } from '@/server/services/sign-in';

export const POST: APIRoute = async (astro) => {
  const body = await readJson(astro.request, EndSessionBody);
  if (!body.ok) return respondProblems(body.failures);
  const { context } = await app();
  const token = await sessionToken(astro);
  const { address } = astro.locals;
  if (token !== undefined) {
    const person = await whoIs(context, token);
    if (body.value.everywhere && person) await signOutEverywhere(context, person, address);
    else await signOut(context, token, address);
  }
  await clearCookie(astro);
  return json({ id: 1, warnings: [] }, 201);
};
export const ALL = notThatWay;
