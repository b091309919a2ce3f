import type { z } from 'zod';
import { failureOfIssue } from '@/contracts/issues';
import { failure, type Result } from '@/core/failure/failure';
import { MAX_PHOTO_BYTES } from '../services/house/picture';
import type { Context } from '../services/yard/user-action';
import { app } from './app';
import { type Handler, signedByOther } from './endpoint';
import { readBytes } from './read-json';
import { plainReply } from './replies';
import { json, respondProblems } from './respond';

interface Keeping<Q> {
  readonly query: z.ZodType<Q>;
  readonly run: (
    context: Context,
    tag: string,
    sent: { readonly query: Q; readonly bytes: Uint8Array },
  ) => Promise<Result<{ readonly id: number }>>;
}

/** Keeps a picture: it is the body, and its type an image's, which no form of another site can send. */
export const keepingPicture =
  <Q>({ query, run }: Keeping<Q>): Handler =>
  async ({ request, url, locals }, params) => {
    if (!/^image\//i.test(request.headers.get('content-type') ?? ''))
      return respondProblems([failure('photo.not-image', 'photo')]);
    const asked = query.safeParse(Object.fromEntries(url.searchParams));
    if (!asked.success) return respondProblems(asked.error.issues.map(failureOfIssue));
    const other = signedByOther(asked.data, locals.person);
    if (other) return respondProblems([other]);
    const bytes = await readBytes(request, MAX_PHOTO_BYTES);
    if (!bytes.ok) return respondProblems([failure('photo.too-large', 'photo', { most: MAX_PHOTO_BYTES })]);
    const { context } = await app();
    const sent = { query: asked.data, bytes: bytes.value };
    const kept = await run({ ...context, person: locals.person }, params['tag'] ?? '', sent);
    return kept.ok ? json(plainReply(kept.value), 201) : respondProblems(kept.failures);
  };

/** A stored picture. A picture never changes under its number. */
export const pictureReply = ({
  bytes,
  mediaType,
}: {
  readonly bytes: Uint8Array;
  readonly mediaType: string;
}): Response =>
  new Response(Buffer.from(bytes), {
    headers: {
      'content-type': mediaType,
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    },
  });
