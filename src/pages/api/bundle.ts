import type { APIRoute } from 'astro';
import { ImportAskQuery } from '@/contracts/bundle-report';
import { failureOfIssue } from '@/contracts/issues';
import { failure } from '@/core/failure/failure';
import { app } from '@/server/http/app';
import { bundleReply } from '@/server/http/bundle-reply';
import { notThatWay, signedByOther } from '@/server/http/endpoint';
import { MAX_BUNDLE_BYTES, readBytes } from '@/server/http/read-json';
import { json, respondProblems } from '@/server/http/respond';
import { takeInBundle } from '@/server/services/bundle-in';
import { loadYard } from '@/server/services/yard';

/** Everything there is, as one bundle. */
export const GET: APIRoute = async () => {
  const { context } = await app();
  const { today } = await loadYard(context);
  return bundleReply({ kind: 'yard' }, `moorwind-${today}.zip`);
};

/** The bundle is the body, of a type that no form of another site can send. */
export const POST: APIRoute = async ({ request, url, locals }) => {
  if (!/^application\/zip\b/i.test(request.headers.get('content-type') ?? ''))
    return respondProblems([failure('bundle.damaged', 'bundle', { where: 'the file' })]);
  const query = ImportAskQuery.safeParse(Object.fromEntries(url.searchParams));
  if (!query.success) return respondProblems(query.error.issues.map(failureOfIssue));
  const other = signedByOther(query.data, locals.person);
  if (other) return respondProblems([other]);
  const bytes = await readBytes(request, MAX_BUNDLE_BYTES);
  if (!bytes.ok) return respondProblems([failure('bundle.too-large', 'bundle')]);
  const taken = await takeInBundle((await app()).context, bytes.value, query.data);
  return taken.ok ? json(taken.value, query.data.dryRun ? 200 : 201) : respondProblems(taken.failures);
};
export const ALL = notThatWay;
