import type { APIRoute } from 'astro';
import { respondProblems } from '@/server/http/respond';
import { failure } from '@/core/failure/failure';
import { sheetTemplate } from '@/server/services/sheet-template';

/** An empty sheet of a kind: its headings. */
export const GET: APIRoute = ({ params }) => {
  const template = sheetTemplate(params['kind'] ?? '');
  if (template === null) return respondProblems([failure('page.unknown')]);
  return new Response(template, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="moorwind-${params['kind'] ?? ''}.csv"`,
    },
  });
};
