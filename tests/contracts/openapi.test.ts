import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { Validator } from '@seriousme/openapi-schema-validator';
import { describe, expect, it } from 'vitest';
import { openApi, OPERATIONS } from '@/contracts/openapi';

const API = 'src/pages/api';
const filesIn = (folder: string): readonly string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesIn(path) : [path];
  });
const addressOf = (file: string): string =>
  `/api${file.slice(API.length)}`
    .replace(/\.ts$/, '')
    .replace(/\/index$/, '')
    .replace(/\[(\w+)\]/g, '{$1}');

/** As a program reads it off the line. */
const asRead = (document: object) => JSON.parse(JSON.stringify(document)) as Record<string, unknown>;

describe('the interface as OpenAPI 3.1', () => {
  it('is one to a validator of its own', async () => {
    const result = await new Validator().validate(asRead(openApi()));
    expect(result.errors ?? []).toEqual([]);
    expect(result.valid).toBe(true);
    const broken = { ...openApi(), paths: { '/x': { post: { responses: 7 } } } };
    expect((await new Validator().validate(asRead(broken))).valid).toBe(false);
  });

  it('names every address the server answers, and no other, each with the shape it is read by', () => {
    const answered = filesIn(API)
      .filter((f) => !f.includes('[...path]'))
      .flatMap((file) => {
        const text = readFileSync(file, 'utf8');
        const body = /body: (\w+)Body\b/.exec(text)?.[1] ?? /readJson\(astro\.request, (\w+)Body\)/.exec(text)?.[1];
        return ['GET', 'POST']
          .filter((m) => text.includes(`export const ${m}`))
          .map((m) => `${m.toLowerCase()} ${addressOf(file)} ${m === 'POST' && body ? `${body}Body` : ''}`);
      });
    const said = OPERATIONS.map((o) => `${o.method} ${o.path} ${typeof o.body === 'string' ? o.body : ''}`);
    expect([...said].sort()).toEqual([...answered].sort());
  });
});
