import { existsSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type RunningServer, startServer } from '../support/server';

// A technician opens these pages in a van: the script that must be there before a page answers a hand has a budget.

const CLIENT = 'dist/client';
/** kB of compressed script, by page. */
const BUDGETS: readonly (readonly [page: string, kB: number])[] = [
  ['/m/CR-04', 90],
  ['/m/CR-04/measure', 150],
  ['/m/CR-04/find', 170],
  ['/m/CR-07/find', 170],
  ['/m/CR-04/path', 150],
  ['/m/CR-07/job', 150],
  ['/m/CR-12/job', 150],
  ['/round', 90],
  ['/work', 90],
];

let server: RunningServer;
beforeAll(async () => {
  server = await startServer({ seeded: true });
});
afterAll(() => server.stop());

const importsOf = (file: string): readonly string[] =>
  [...readFileSync(join(CLIENT, file), 'utf8').matchAll(/(?:import|from)\s*"(\.\/[^"]+\.js)"/g)].map(
    ([, name]) => `/_astro/${(name ?? '').slice(2)}`,
  );

/** Bytes on the wire; the smallest files are sent as they are. */
const sizeOf = (file: string): number => {
  const whole = join(CLIENT, file);
  return statSync(existsSync(`${whole}.br`) ? `${whole}.br` : whole).size;
};

/** The scripts of a page with all that they import at once; what is loaded later, on demand, is not counted. */
const scriptsOf = (html: string): ReadonlySet<string> => {
  const found = new Set<string>();
  const visit = (file: string): void => {
    if (found.has(file)) return;
    found.add(file);
    importsOf(file).forEach(visit);
  };
  [...html.matchAll(/(?:component-url|renderer-url|src)="(\/_astro\/[^"]+\.js)"/g)].forEach(([, f]) => visit(f ?? ''));
  return found;
};

it.each(BUDGETS)('%s answers a hand after %d kB of script', async (page, budget) => {
  const scripts = scriptsOf(await (await fetch(`${server.url}${page}`)).text());
  expect(scripts.size).toBeGreaterThan(5);
  const kB = [...scripts].reduce((sum, f) => sum + sizeOf(f), 0) / 1000;
  expect(Math.round(kB), [...scripts].join(' ')).toBeLessThanOrEqual(budget);
});
