import type { ProblemReply } from '@/contracts/responses';
import { failure, type Failure, type FailureCode } from '@/core/failure/failure';
import { problemsOf } from '@/messages/failures';

const STATUS: Partial<Record<FailureCode, number>> = {
  'machine.unknown': 404,
  'test.unknown': 404,
  'change.unknown': 404,
  'page.unknown': 404,
  'request.method': 405,
  'record.superseded': 409,
  'action.reused': 409,
  'edit.stale': 409,
  'machine.retired': 409,
  'request.too-large': 413,
  'photo.too-large': 413,
  'photo.not-image': 415,
  'photo.unknown': 404,
  'request.not-json': 415,
  'request.malformed': 400,
  'request.host': 421,
  'request.elsewhere': 403,
  'sign-in.wrong': 401,
  'sign-in.code': 401,
  'sign-in.ended': 401,
  'sign-in.wait': 429,
  'sign-in.other': 403,
  'role.not-yours': 403,
  'person.not-contained': 403,
  'person.unknown': 404,
  'writes.too-many': 429,
  'server.busy': 503,
  'server.disk-full': 507,
  'server.disk': 500,
  'stream.too-many': 503,
  'server.bug': 500,
};

export const json = (body: unknown, status = 200): Response =>
  new Response(JSON.stringify(body), {
    status,
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store' },
  });

/** Failures in the one problem shape; the first one decides the status, 422 by default. */
export const respondProblems = (failures: readonly Failure[]): Response => {
  const list = failures.length > 0 ? failures : [failure('server.bug')];
  const [first] = list;
  const body: ProblemReply = { problems: [...problemsOf(list)] };
  return json(body, (first && STATUS[first.code]) ?? 422);
};
