import type { APIRoute } from 'astro';
import { ChoosePassphraseBody } from '@/contracts/people';
import { app } from '@/server/http/app';
import { notThatWay } from '@/server/http/endpoint';
import { firstCode } from '@/server/http/first-code';
import { readJson } from '@/server/http/read-json';
import { respondProblems } from '@/server/http/respond';
import { sessionReply } from '@/server/http/session-reply';
import { choosePassphrase } from '@/server/services/sign-in';

export const POST: APIRoute = async (astro) => {
  const body = await readJson(astro.request, ChoosePassphraseBody);
  if (!body.ok) return respondProblems(body.failures);
  const { context } = await app();
  const { address } = astro.locals;
  return sessionReply(astro, await choosePassphrase(context, body.value, { address, firstCode: firstCode() }));
};
export const ALL = notThatWay;
