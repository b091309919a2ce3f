import type { APIRoute } from 'astro';
import { bundleSchema } from '@/contracts/bundle';
import { notThatWay } from '@/server/http/endpoint';
import { json } from '@/server/http/respond';

export const GET: APIRoute = () => json(bundleSchema());
export const ALL = notThatWay;
