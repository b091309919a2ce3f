import type { z } from 'zod';
import type { Payload } from '@/contracts/openapi';
import { RecordedReply } from '@/contracts/responses';
import type { Result } from '@/core/failure/failure';
import type { KeyPurpose, Role } from '@/core/people/person';
import type { Context } from '../services/yard/user-action';
import { type Handler, reading, recording } from './endpoint';
import { keepingPicture } from './picture-body';
import { plainReply } from './replies';

/** Who may send a request: anybody at all, or a person with at least this role. */
export type Access = 'anybody' | Role;

/** One endpoint: the handler, the permission check, the OpenAPI document and the tests are made from it. */
export interface Route {
  readonly method: 'GET' | 'POST';
  /** With parameters in braces: `/api/machines/{tag}/tests`. */
  readonly path: string;
  readonly access: Access;
  /** The kind of program key that also opens it. */
  readonly key?: KeyPurpose;
  /** An imperative sentence without a full stop. */
  readonly summary: string;
  readonly query?: z.ZodObject;
  readonly body: Payload | null;
  readonly answer: Payload;
  readonly status: 200 | 201 | 202;
  /** A valid body of a POST, or valid query parameters of a GET; null where it takes neither. */
  readonly example: unknown;
  readonly handle: Handler;
}

type Named<T> = readonly [name: string, schema: z.ZodType<T>];
type At = readonly [path: string, access: Access, summary: string];

const RECORDED: Payload = { name: 'RecordedReply', schema: RecordedReply };

interface Recorded<B, R> {
  readonly body: Named<B>;
  readonly run: (context: Context, tag: string, body: B) => Promise<Result<R>>;
  readonly example: unknown;
  /** Largest body, bytes; a form's size by default. */
  readonly most?: number;
  /** Also for a retired machine. */
  readonly evenGone?: boolean;
}

interface Answered<R> {
  readonly answer: Payload;
  readonly reply: (value: R) => unknown;
}

/** A POST that records one user action and answers as given. */
export const answering = <B, R>(
  [path, access, summary]: At,
  { body: [name, schema], example, ...rest }: Recorded<B, R>,
  { answer, reply }: Answered<R>,
): Route => ({
  method: 'POST',
  path,
  access,
  summary,
  body: { name, schema },
  answer,
  status: 201,
  example,
  handle: recording({ body: schema, reply, ...rest }),
});

/** A POST that records one user action on a machine and answers its id. */
export const post = <B>(at: At, recorded: Recorded<B, { readonly id: number }>): Route =>
  answering(at, recorded, { answer: RECORDED, reply: plainReply });

/** A POST that records one user action on the site. */
export const postSite = <B>(
  at: At,
  {
    run,
    ...rest
  }: Omit<Recorded<B, { readonly id: number }>, 'run'> & {
    readonly run: (context: Context, body: B) => Promise<Result<{ readonly id: number }>>;
  },
): Route => post(at, { ...rest, run: (context, _tag, body) => run(context, body) });

/** A POST whose body is a picture; the rest is in the query. */
export const postPicture = <Q>(
  [path, access, summary]: At,
  query: z.ZodObject & z.ZodType<Q>,
  run: Parameters<typeof keepingPicture<Q>>[0]['run'],
): Route => ({
  method: 'POST',
  path,
  access,
  summary,
  query,
  body: { type: 'image/*' },
  answer: RECORDED,
  status: 201,
  example: null,
  handle: keepingPicture({ query, run }),
});

/** A GET that answers JSON of a schema. */
export const get = <R, Q>(
  [path, access, summary]: At,
  spec: {
    readonly query?: z.ZodObject & z.ZodType<Q>;
    readonly example?: unknown;
    readonly answer: Named<R>;
    readonly run: (context: Context, params: Readonly<Record<string, string>>, query: Q) => Promise<Result<R>>;
  },
): Route => ({
  method: 'GET',
  path,
  access,
  summary,
  ...(spec.query ? { query: spec.query } : {}),
  body: null,
  answer: { name: spec.answer[0], schema: spec.answer[1] },
  status: 200,
  example: spec.example ?? null,
  handle: reading(spec.query ?? null, spec.run),
});

/** A GET that answers a file. */
export const getFile = ([path, access, summary]: At, type: string, handle: Handler): Route => ({
  method: 'GET',
  path,
  access,
  summary,
  body: null,
  answer: { type },
  status: 200,
  example: null,
  handle,
});

/** The path as the router reads it: any encoding and any slashes lead to the same route and the same role. */
export const plainPath = (pathname: string): string => {
  let path = pathname;
  for (let i = 0; i < 3 && path.includes('%'); i += 1) {
    try {
      path = decodeURIComponent(path);
    } catch {
      break;
    }
  }
  return path.replace(/\/+/g, '/').replace(/\/$/, '') || '/';
};

/** Parameters of a plain path by a route's pattern; null where it does not match. */
export const paramsOf = (pattern: string, path: string): Readonly<Record<string, string>> | null => {
  const [wanted, given] = [pattern.split('/'), path.split('/')];
  if (wanted.length !== given.length) return null;
  const params: Record<string, string> = {};
  for (const [i, part] of wanted.entries()) {
    const text = given[i] ?? '';
    const [, name, suffix = ''] = /^\{(\w+)\}(.*)$/.exec(part) ?? [];
    if (name === undefined) {
      if (part !== text) return null;
      continue;
    }
    if (!text.endsWith(suffix) || text.length === suffix.length) return null;
    params[name] = text.slice(0, text.length - suffix.length);
  }
  return params;
};
