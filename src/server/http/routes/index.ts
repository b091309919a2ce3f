import type { APIRoute } from 'astro';
import { openApi } from '@/contracts/openapi';
import { DocumentReply } from '@/contracts/reads';
import { failure, ok } from '@/core/failure/failure';
import { respondProblems } from '../respond';
import { get, paramsOf, plainPath, type Route } from '../route';
import { MACHINE_ROUTES } from './machines';
import { PEOPLE_ROUTES } from './people';
import { RECORD_ROUTES } from './records';
import { SITE_ROUTES } from './site';
import { WORK_ROUTES } from './work';

/** Every endpoint of the server. */
export const ROUTES: readonly Route[] = [
  ...MACHINE_ROUTES,
  ...WORK_ROUTES,
  ...SITE_ROUTES,
  ...RECORD_ROUTES,
  ...PEOPLE_ROUTES,
  get(['/api/openapi.json', 'look', 'Read this document'], {
    answer: ['DocumentReply', DocumentReply],
    run: () => Promise.resolve(ok(document() as Record<string, unknown>)),
  }),
];

let made: object | null = null;
/** The OpenAPI document of all routes, built once. */
const document = (): object => (made ??= openApi(ROUTES));

const asMethod = (method: string): string => (method === 'HEAD' ? 'GET' : method);

/** Routes of a plain path, of any method. */
const routesAt = (path: string): readonly Route[] => ROUTES.filter((r) => paramsOf(r.path, path) !== null);

/** The route of a method and a plain path; null without one. HEAD is answered by GET. */
export const routeFor = (method: string, path: string): Route | null =>
  routesAt(path).find((r) => r.method === asMethod(method)) ?? null;

/** Answers every address below /api by its route: 404 for an unknown address, 405 for another method. */
export const answerApi: APIRoute = (astro) => {
  const path = plainPath(astro.url.pathname);
  const route = routeFor(astro.request.method, path);
  if (!route) return respondProblems([failure(routesAt(path).length === 0 ? 'page.unknown' : 'request.method')]);
  return route.handle(astro, paramsOf(route.path, path) ?? {});
};
