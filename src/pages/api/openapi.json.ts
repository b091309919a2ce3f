import type { APIRoute } from 'astro';
import { openApi } from '@/contracts/openapi';
import { notThatWay } from '@/server/http/endpoint';
import { json } from '@/server/http/respond';

export const GET: APIRoute = () => json(openApi());
export const ALL = notThatWay;
