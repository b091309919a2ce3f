import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

describe('what Moorwind runs on', () => {
  const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as { dependencies: Record<string, string> };
  const rows = readFileSync('docs/dependencies.md', 'utf8')
    .split('\n')
    .filter((line) => line.startsWith('| `'))
    .map((line) => line.split('|').map((cell) => cell.trim()));
  const listed = rows.flatMap(([, names = '']) => [...names.matchAll(/`([^`]+)`/g)].map((m) => m[1] ?? ''));

  it('is all listed with why it is there, and nothing more', () => {
    expect([...listed].sort()).toEqual(Object.keys(dependencies).sort());
    expect(rows.every(([, , why = '']) => why.length > 3)).toBe(true);
  });

  it('comes from nowhere but the registry', () => {
    const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as {
      packages: Record<string, { resolved?: string; integrity?: string; link?: boolean }>;
    };
    for (const [name, { resolved, integrity, link }] of Object.entries(lock.packages)) {
      expect([name, link ?? false]).toEqual([name, false]);
      expect([name, /^(git|http:|file:)/.test(resolved ?? '')]).toEqual([name, false]);
      if (name !== '' && resolved !== undefined) expect([name, integrity === undefined]).toEqual([name, false]);
    }
  });
});
