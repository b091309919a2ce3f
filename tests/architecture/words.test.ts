import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

// A short list of turns that a reader has to read twice, in comments, docs and shown texts (docs/words.md).

const BANNED: readonly (readonly [name: string, turn: RegExp])[] = [
  [
    'a sentence that opens with a noun clause',
    /(?:^|[.!?] )What (?:is|are|was|were|has|have|no|nobody|a|an|the|it)\b(?![^.]*\?)/,
  ],
  ['"is no" with a thing', /\b(?:is|are) no (?:day|number|copy|proof|way|plain|part of|source)\b/],
  ['"any more", "no more"', /\b(?:any|no) more\b(?! than)/],
  ['"stands" for "is"', /\bstands? (?:as|beside|behind|in|on|by|over|under|still)\b/],
  ['"hangs on", "is told", "be said"', /\b(?:hangs? on|(?:is|are) told|be said)\b/],
  ['"whoever", "whatever"', /\b(?:whoever|whatever)\b/i],
  ['archaic words', /\b(?:mend(?:s|ed|ing)?|foretell|foretold|anew|thereby|lest|hence|whence|seldom)\b/i],
];

const WORDS_DOC = 'docs/words.md';
const filesBelow = (folder: string): readonly string[] =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((f) => f.isFile() && /\.(?:tsx?|astro|mjs|md)$/.test(f.name))
    .map((f) => join(f.parentPath, f.name));

/** The sentences of a line: its comment, its longer quoted texts, or the line of a document. */
const textsOf = (file: string, line: string): readonly string[] => {
  if (file.endsWith('.md')) return line.startsWith('|') ? [] : [line];
  const comment = /(?:^\s*\/?\*+|\/\/|\{\/\*)\s?(.*?)(?:\*\/.*)?$/.exec(line)?.[1];
  const quoted = [...line.matchAll(/(['"`])((?:(?!\1)[^\\]|\\.){12,})\1/g)].map((m) => m[2] ?? '');
  return [comment ?? '', ...quoted.filter((t) => /[a-z] [a-z]+ [a-z]/i.test(t))];
};

/** Turns in a line, by name. */
const turnsIn = (file: string, line: string): readonly string[] =>
  textsOf(file, line).flatMap((text) => BANNED.filter(([, turn]) => turn.test(text)).map(([name]) => name));

describe('plain words', () => {
  it('no comment, document or shown text uses a banned turn', () => {
    const files = ['src', 'cli', 'scripts', 'demo', 'docs'].flatMap(filesBelow).concat('README.md', 'CONTRIBUTING.md');
    expect(files.length).toBeGreaterThan(500);
    const found = files
      .filter((f) => f !== WORDS_DOC)
      .flatMap((file) =>
        readFileSync(file, 'utf8')
          .split('\n')
          .flatMap((line, i) =>
            turnsIn(file, line).map((name) => `${file}:${i + 1} ${name}: ${line.trim().slice(0, 90)}`),
          ),
      );
    expect(found).toEqual([]);
  });

  it('sees a turn when there is one, and leaves plain sentences alone', () => {
    expect(turnsIn('x.ts', '// What is not known stays.')).toHaveLength(1);
    expect(turnsIn('x.ts', "const t = 'The bag stands in the way of it.';")).toHaveLength(1);
    expect(turnsIn('x.ts', '/** Returns the flow, m3/s; no more than the fan gives. */')).toEqual([]);
    expect(turnsIn('x.md', 'What is due? The bag.')).toEqual([]);
  });
});
