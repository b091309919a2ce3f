import type { APIRoute } from 'astro';
import { failure } from '@/core/failure/failure';
import { app } from '@/server/http/app';
import { notThatWay } from '@/server/http/endpoint';
import { pictureReply } from '@/server/http/picture-body';
import { respondProblems } from '@/server/http/respond';
import { upgradePhotoOf } from '@/server/services/upgrade-photo';

export const GET: APIRoute = async ({ params }) => {
  const { context } = await app();
  const photo = await upgradePhotoOf(context, Number(params['id']));
  return photo ? pictureReply(photo) : respondProblems([failure('photo.unknown')]);
};
export const ALL = notThatWay;
