import type { APIRoute } from 'astro';
import type { z } from 'zod';
import type { Person } from '@/core/people/person';
import { failure, type Failure, type Result } from '@/core/failure/failure';
import { goneOf } from '../services/retire';
import type { Context } from '../services/user-action';
import { app } from './app';
import { readJson } from './read-json';
import { json, respondProblems } from './respond';

interface Recording<B, R> {
  readonly body: z.ZodType<B>;
  /** Largest body, bytes; a form's size by default. */
  readonly most?: number;
  readonly run: (context: Context, tag: string, body: B) => Promise<Result<R>>;
  /** Works on a machine that is no longer kept too. */
  readonly evenGone?: boolean;
  /** The client's answer; the shape of `RecordedReply`. */
  readonly reply: (value: R) => unknown;
}

/** A signed-in person may only sign with their own initials. */
export const signedByOther = (body: unknown, person: Person | null): Failure | null => {
  const by = typeof body === 'object' && body !== null && 'by' in body ? String(body.by).trim().toUpperCase() : null;
  return person && by !== null && by !== person.initials
    ? failure('sign-in.other', 'by', { initials: person.initials, by })
    : null;
};

/** An endpoint that records one user action: read, run, answer. */
export const recording =
  <B, R>({ body, most, run, reply, evenGone = false }: Recording<B, R>): APIRoute =>
  async ({ request, params, locals }) => {
    const parsed = await readJson(request, body, most);
    if (!parsed.ok) return respondProblems(parsed.failures);
    const { context } = await app();
    const { person } = locals;
    const other = signedByOther(parsed.value, person);
    if (other) return respondProblems([other]);
    const tag = params['tag'] ?? '';
    if (tag !== '' && !evenGone && (await goneOf(context, tag)))
      return respondProblems([failure('machine.retired', '', { tag: tag.toUpperCase() })]);
    const result = await run({ ...context, person }, tag, parsed.value);
    return result.ok ? json(reply(result.value), 201) : respondProblems(result.failures);
  };

/** The same for what belongs to the whole site. */
export const recordingSite = <B, R>({
  body,
  most,
  run,
  reply,
}: {
  readonly body: z.ZodType<B>;
  readonly most?: number;
  readonly run: (context: Context, body: B) => Promise<Result<R>>;
  readonly reply: (value: R) => unknown;
}): APIRoute =>
  recording<B, R>({
    body,
    ...(most === undefined ? {} : { most }),
    run: (context, _, parsed) => run(context, parsed),
    reply,
  });

/** An endpoint that reads something of one machine. */
export const reading =
  <R>(run: (context: Context, tag: string) => Promise<Result<R>>): APIRoute =>
  async ({ params }) => {
    const { context } = await app();
    const result = await run(context, params['tag'] ?? '');
    return result.ok ? json(result.value) : respondProblems(result.failures);
  };

/** For every method an address does not take. */
export const notThatWay: APIRoute = () => respondProblems([failure('request.method')]);
