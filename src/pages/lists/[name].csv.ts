import type { APIRoute } from 'astro';
import { failure } from '@/core/failure/failure';
import { problemOf } from '@/messages/failures';
import { app } from '@/server/http/app';
import { csvOf, csvReply } from '@/server/services/house/csv';
import { listOf } from '@/view-models/lists';

/** A list of the yard as CSV. */
export const GET: APIRoute = async ({ params }) => {
  const { context } = await app();
  const name = params['name'] ?? '';
  const list = await listOf(context, name);
  return list
    ? csvReply(`moorwind-${name}`, csvOf(list.headings, list.rows))
    : new Response(problemOf(failure('list.unknown', '', { name })).sentence, { status: 404 });
};
