import type { APIContext } from 'astro';
import type { z } from 'zod';
import {
  ChoosePassphraseBody,
  EndSessionBody,
  KeyBody,
  OfPersonBody,
  OpenHereBody,
  PersonBody,
  RevokeKeyBody,
  SecretReply,
  SignInBody,
} from '@/contracts/people';
import { RecordedReply } from '@/contracts/responses';
import { chooseOpenHere, keepPerson, makeCode, makeKey, withdrawKey } from '../../services/house/people';
import { choosePassphrase, signIn, signOut, signOutEverywhere, whoIs } from '../../services/house/sign-in';
import type { Context } from '../../services/yard/user-action';
import { app } from '../app';
import { firstCode } from '../first-code';
import { readJson } from '../read-json';
import { json, respondProblems } from '../respond';
import { answering, postSite, type Route } from '../route';
import { clearCookie, sessionReply, sessionToken } from '../session-reply';
import { ACTION } from './example';

/** A POST that reads or writes the session cookie. */
const session = <B>(
  [path, summary]: readonly [string, string],
  [name, schema]: readonly [string, z.ZodType<B>],
  {
    example,
    run,
  }: { readonly example: unknown; readonly run: (astro: APIContext, context: Context, body: B) => Promise<Response> },
): Route => ({
  method: 'POST',
  path,
  access: 'anybody',
  summary,
  body: { name, schema },
  answer: { name: 'RecordedReply', schema: RecordedReply },
  status: 201,
  example,
  handle: async (astro) => {
    const body = await readJson(astro.request, schema);
    return body.ok ? run(astro, (await app()).context, body.value) : respondProblems(body.failures);
  },
});

const endSession = async (astro: APIContext, context: Context, { everywhere }: EndSessionBody): Promise<Response> => {
  const token = await sessionToken(astro);
  const { address } = astro.locals;
  if (token !== undefined) {
    const person = await whoIs(context, token);
    if (everywhere && person) await signOutEverywhere(context, person, address);
    else await signOut(context, token, address);
  }
  await clearCookie(astro);
  return json({ id: 1, warnings: [] }, 201);
};

const SECRET = {
  answer: { name: 'SecretReply', schema: SecretReply },
  reply: (made: unknown) => SecretReply.parse(made),
} as const;

const PASSPHRASE = 'gulls over the slipway';

/** Sessions, people, and keys of programs. */
export const PEOPLE_ROUTES: readonly Route[] = [
  session(['/api/sessions', 'Sign in'], ['SignInBody', SignInBody], {
    example: { clientId: ACTION.clientId, initials: 'MK', passphrase: PASSPHRASE },
    run: async (astro, context, body) => sessionReply(astro, await signIn(context, body, astro.locals.address)),
  }),
  session(['/api/sessions/end', 'Sign out'], ['EndSessionBody', EndSessionBody], {
    example: { clientId: ACTION.clientId, everywhere: false },
    run: endSession,
  }),
  session(
    ['/api/sessions/passphrase', 'Choose a passphrase with a code'],
    ['ChoosePassphraseBody', ChoosePassphraseBody],
    {
      example: { clientId: ACTION.clientId, initials: 'MK', name: '', code: 'ABCD-EFGH-JKLM', passphrase: PASSPHRASE },
      run: async (astro, context, body) => {
        const { address } = astro.locals;
        return sessionReply(astro, await choosePassphrase(context, body, { address, firstCode: firstCode() }));
      },
    },
  ),
  postSite(['/api/people', 'lead', 'Enter or change a person'], {
    body: ['PersonBody', PersonBody],
    run: keepPerson,
    example: {
      ...ACTION,
      initials: 'TO',
      name: 'Tern Okafor',
      role: 'technician',
      mayContain: false,
      maskFitOn: null,
      trainedOn: null,
      active: true,
    },
  }),
  answering(
    ['/api/people/code', 'lead', 'Make a code for choosing a passphrase'],
    {
      body: ['OfPersonBody', OfPersonBody],
      run: (c, _, body) => makeCode(c, body),
      example: { ...ACTION, initials: 'TO' },
    },
    SECRET,
  ),
  answering(
    ['/api/keys', 'lead', 'Make a key for a program'],
    {
      body: ['KeyBody', KeyBody],
      run: (c, _, body) => makeKey(c, body),
      example: { ...ACTION, purpose: 'calendar', name: 'office calendar' },
    },
    SECRET,
  ),
  postSite(['/api/keys/withdraw', 'lead', 'Withdraw a key'], {
    body: ['RevokeKeyBody', RevokeKeyBody],
    run: withdrawKey,
    example: { ...ACTION, id: 1 },
  }),
  postSite(['/api/open-here', 'lead', "Set whether the server's own machine needs a passphrase"], {
    body: ['OpenHereBody', OpenHereBody],
    run: chooseOpenHere,
    example: { ...ACTION, openHere: true },
  }),
];
