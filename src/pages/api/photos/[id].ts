import type { APIRoute } from 'astro';
import { failure } from '@/core/failure/failure';
import { app } from '@/server/http/app';
import { notThatWay } from '@/server/http/endpoint';
import { respondProblems } from '@/server/http/respond';
import { photoOf } from '@/server/services/job-photo';

export const GET: APIRoute = async ({ params }) => {
  const { context } = await app();
  const photo = await photoOf(context, Number(params['id']));
  if (!photo) return respondProblems([failure('photo.unknown')]);
  return new Response(Buffer.from(photo.bytes), {
    headers: {
      'content-type': photo.mediaType,
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    },
  });
};
export const ALL = notThatWay;
