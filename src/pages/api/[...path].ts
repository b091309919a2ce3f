import type { APIRoute } from 'astro';
import { failure } from '@/core/failure/failure';
import { respondProblems } from '@/server/http/respond';

export const ALL: APIRoute = () => respondProblems([failure('page.unknown')]);
