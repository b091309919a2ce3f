import type { APIRoute } from 'astro';
import { failure } from '@/core/failure/failure';
import { app } from '@/server/http/app';
import { bundleReply } from '@/server/http/bundle-reply';
import { notThatWay } from '@/server/http/endpoint';
import { respondProblems } from '@/server/http/respond';
import { machineNamed } from '@/server/services/yard';

/** One machine with its file, to go with it where it goes. */
export const GET: APIRoute = async ({ params }) => {
  const tag = params['tag'] ?? '';
  const machine = await machineNamed((await app()).context, tag);
  if (!machine) return respondProblems([failure('machine.unknown', '', { tag })]);
  return bundleReply({ kind: 'machine', tag: machine.tag }, `moorwind-${machine.tag}.zip`);
};
export const ALL = notThatWay;
