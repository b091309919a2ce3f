import { existsSync, readdirSync } from 'node:fs';
import { Validator } from '@seriousme/openapi-schema-validator';
import { describe, expect, it } from 'vitest';
import { openApi } from '@/contracts/openapi';
import { plainPath } from '@/server/http/route';
import { routeFor, ROUTES } from '@/server/http/routes';

/** As a program reads it off the line. */
const asRead = (document: object) => JSON.parse(JSON.stringify(document)) as Record<string, unknown>;
const at = (pattern: string) => pattern.replace('{tag}', 'CR-04').replace('{id}', '3').replace('{kind}', 'parts');

describe('the route table', () => {
  it('is the only place with endpoints: one catch-all page serves all of them', () => {
    expect(readdirSync('src/pages/api')).toEqual(['[...path].ts']);
    expect(existsSync('src/pages/api/[...path].ts')).toBe(true);
  });

  it('finds each route by its method and address, in any spelling of the address, and no other', () => {
    for (const route of ROUTES) {
      const address = at(route.path);
      expect(routeFor(route.method, address)).toBe(route);
      const odd = `/${encodeURIComponent(address.slice(1)).replace('api', '%61pi')}//`;
      expect([odd, routeFor(route.method, plainPath(odd))]).toEqual([odd, route]);
    }
    expect(new Set(ROUTES.map((r) => `${r.method} ${r.path}`)).size).toBe(ROUTES.length);
    for (const [method, path] of [
      ['DELETE', '/api/site'],
      ['GET', '/api/site'],
      ['POST', '/api/machines/CR-04/tests/more'],
      ['GET', '/api/sheets/.csv'],
    ] as const)
      expect([method, path, routeFor(method, path)]).toEqual([method, path, null]);
    expect(routeFor('HEAD', '/api/health')).toBe(routeFor('GET', '/api/health'));
  });

  it('lets only four addresses in without a sign-in, and a program key only at two', () => {
    const open = ROUTES.filter((r) => r.access === 'anybody').map((r) => r.path);
    expect(open.sort()).toEqual(['/api/health', '/api/sessions', '/api/sessions/end', '/api/sessions/passphrase']);
    expect(ROUTES.filter((r) => r.key).map((r) => `${r.key} ${r.method} ${r.path}`)).toEqual([
      'meter POST /api/instruments/{id}/stream',
      'calendar GET /api/plan/calendar.ics',
    ]);
    // A technician records work; settings, people and whole files of records are a lead's.
    const technician = ROUTES.filter((r) => r.method === 'POST' && r.access === 'technician').map((r) => r.path);
    expect(
      technician.filter((p) => /people|keys|backup|bundle|sheet|site|dusts|rule-set|merges|open-here/.test(p)),
    ).toEqual([]);
    expect(ROUTES.filter((r) => r.method === 'POST' && r.access === 'look')).toEqual([]);
  });

  it('shows an example of every body and query, and each fits its schema', () => {
    for (const { method, path, body, query, example } of ROUTES) {
      const schema = body === null ? query : 'schema' in body ? body.schema : null;
      if (!schema) continue;
      const read = schema.safeParse(example);
      expect([method, path, read.success ? [] : read.error.issues]).toEqual([method, path, []]);
    }
  });
});

describe('the interface as OpenAPI 3.1', () => {
  it('is valid for an independent validator', async () => {
    const document = asRead(openApi(ROUTES));
    const result = await new Validator().validate(document);
    expect(result.errors ?? []).toEqual([]);
    expect(result.valid).toBe(true);
    const broken = { ...document, paths: { '/x': { post: { responses: 7 } } } };
    expect((await new Validator().validate(asRead(broken))).valid).toBe(false);
  });

  it('gives every answer a schema that is not empty, and marks optional fields as optional', () => {
    const { paths, components } = openApi(ROUTES) as {
      paths: Record<
        string,
        Record<string, { responses: Record<string, { content: Record<string, { schema: object }> }> }>
      >;
      components: { schemas: Record<string, { required?: string[]; properties?: object }> };
    };
    for (const [path, methods] of Object.entries(paths))
      for (const { responses } of Object.values(methods))
        for (const { content } of Object.values(responses))
          for (const { schema } of Object.values(content))
            expect([path, Object.keys(schema).length > 0]).toEqual([path, true]);
    const test = components.schemas['RecordTestBody'];
    expect(test?.required).toContain('failedPreconditions');
    expect(test?.required).not.toContain('configuration');
    expect(components.schemas['MachinesReply']?.required).toEqual(['items', 'next']);
  });
});
