import type { APIRoute } from 'astro';
import { PhotoQuery } from '@/contracts/job';
import { failure } from '@/core/failure/failure';
import { app } from '@/server/http/app';
import { notThatWay } from '@/server/http/endpoint';
import { readBytes } from '@/server/http/read-json';
import { failureOfIssue } from '@/contracts/issues';
import { plainReply } from '@/server/http/replies';
import { json, respondProblems } from '@/server/http/respond';
import { keepPhoto, MAX_PHOTO_BYTES } from '@/server/services/job-photo';

/** The picture is the body, and its type an image's: no form of another site can send that. */
export const POST: APIRoute = async ({ request, params, url }) => {
  if (!/^image\//i.test(request.headers.get('content-type') ?? ''))
    return respondProblems([failure('photo.not-image', 'photo')]);
  const query = PhotoQuery.safeParse(Object.fromEntries(url.searchParams));
  if (!query.success) return respondProblems(query.error.issues.map(failureOfIssue));
  const bytes = await readBytes(request, MAX_PHOTO_BYTES);
  if (!bytes.ok) return respondProblems([failure('photo.too-large', 'photo', { most: MAX_PHOTO_BYTES })]);
  const { context } = await app();
  const kept = await keepPhoto(context, params['tag'] ?? '', { query: query.data, bytes: bytes.value });
  return kept.ok ? json(plainReply(kept.value), 201) : respondProblems(kept.failures);
};
export const ALL = notThatWay;
