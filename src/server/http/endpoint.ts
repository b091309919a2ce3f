import type { APIContext } from 'astro';
import type { z } from 'zod';
import type { Person } from '@/core/people/person';
import { failureOfIssue } from '@/contracts/issues';
import { failure, type Failure, type Result } from '@/core/failure/failure';
import { goneOf } from '../services/yard/retire';
import type { Context } from '../services/yard/user-action';
import { app } from './app';
import { readJson } from './read-json';
import { json, respondProblems } from './respond';

/** Answers a request; `params` are the parameters of its address. */
export type Handler = (astro: APIContext, params: Readonly<Record<string, string>>) => Response | Promise<Response>;

interface Recording<B, R> {
  readonly body: z.ZodType<B>;
  /** Largest body, bytes; a form's size by default. */
  readonly most?: number;
  readonly run: (context: Context, tag: string, body: B) => Promise<Result<R>>;
  /** Also for a retired machine. */
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
  <B, R>({ body, most, run, reply, evenGone = false }: Recording<B, R>): Handler =>
  async ({ request, locals }, params) => {
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

/**
 * An endpoint that answers JSON of its path parameters and query. A query that does not fit its schema is refused with
 * the field; null takes no query.
 */
export const reading =
  <R, Q>(
    query: z.ZodType<Q> | null,
    run: (context: Context, params: Readonly<Record<string, string>>, query: Q) => Promise<Result<R>>,
  ): Handler =>
  async ({ url }, params) => {
    const asked = query?.safeParse(Object.fromEntries(url.searchParams));
    if (asked && !asked.success) return respondProblems(asked.error.issues.map(failureOfIssue));
    const { context } = await app();
    const result = await run(context, params, asked?.data as Q);
    return result.ok ? json(result.value) : respondProblems(result.failures);
  };
