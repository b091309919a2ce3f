import type { APIRoute } from 'astro';
import { app } from '@/server/http/app';
import { json } from '@/server/http/respond';
import { health } from '@/server/services/health';

export const GET: APIRoute = async () => json(await health((await app()).context));
