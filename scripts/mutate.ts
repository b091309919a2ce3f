// How well the tests bite: single changes are made to a seeded sample of the code, and the tests are run on each.
// npm run mutate -- [--seed 8] [--core 330] [--services 150]   The figures are lines of code, drawn in ranges of twelve.
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { spawnSync } from 'node:child_process';
import { z } from 'zod';
import { seeded } from '../src/core/numeric/seeded';

const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '8' },
    core: { type: 'string', default: '330' },
    services: { type: 'string', default: '150' },
  },
});

/** Lines of one range: long enough for a whole thought, short enough that many files are drawn. */
const RANGE = 12;
const REPORT = '.cache/mutation';

const below = (folder: string): readonly string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? below(path) : [path];
  });

/** Skips tables of data: they are checked against their source, and a mutated letter shows nothing about logic. */
const isCode = (file: string): boolean =>
  file.endsWith('.ts') && !/\/(table-|constants\/)|failure\/failure\.ts$/.test(file);

interface Part {
  readonly name: 'core' | 'services';
  readonly folder: string;
  /** Tests that judge it: the core is tested on its own, the services on a database. */
  readonly tests: string;
  /** Lines of code to draw. */
  readonly lines: number;
}

const rangesOf = ({ folder, lines }: Part, seed: number): readonly string[] => {
  const { uniform } = seeded(seed);
  const all = below(folder)
    .filter(isCode)
    .flatMap((file) => {
      const length = readFileSync(file, 'utf8').split('\n').length;
      return Array.from(
        { length: Math.ceil(length / RANGE) },
        (_, i) => `${file}:${i * RANGE + 1}-${Math.min(length, (i + 1) * RANGE)}`,
      );
    })
    .sort();
  const drawn: string[] = [];
  while (drawn.length * RANGE < lines && all.length > 0)
    drawn.push(...all.splice(Math.floor(uniform() * all.length), 1));
  return drawn.sort();
};

const Report = z.object({
  files: z.record(
    z.string(),
    z.object({
      mutants: z.array(
        z.object({
          mutatorName: z.string(),
          replacement: z.string().optional(),
          status: z.string(),
          location: z.object({ start: z.object({ line: z.number() }) }),
        }),
      ),
    }),
  ),
});

const run = (part: Part, seed: number) => {
  const ranges = rangesOf(part, seed);
  const file = join(REPORT, `${part.name}.json`);
  rmSync(file, { force: true });
  const config = {
    testRunner: 'vitest',
    vitest: { configFile: 'vitest.mutate.config.ts', related: true },
    coverageAnalysis: 'perTest',
    ignoreStatic: true,
    mutate: ranges,
    concurrency: 2,
    timeoutMS: 30_000,
    reporters: ['json', 'progress-append-only'],
    jsonReporter: { fileName: file },
    tempDirName: '.stryker-tmp',
    checkers: [],
    disableTypeChecks: false,
    ignorePatterns: ['dist', 'data', '.cache', 'public', 'tests/e2e', 'tests/bench'],
  };
  writeFileSync(join(REPORT, `${part.name}.config.json`), JSON.stringify(config));
  const { status } = spawnSync('npx', ['stryker', 'run', join(REPORT, `${part.name}.config.json`)], {
    stdio: 'inherit',
    env: { ...process.env, MUTATE_TESTS: part.tests },
  });
  if (status !== 0) throw new Error(`the mutation run of ${part.name} ended with ${status ?? 'a signal'}`);
  const { files } = Report.parse(JSON.parse(readFileSync(file, 'utf8')));
  const all = Object.entries(files).flatMap(([name, { mutants }]) => mutants.map((m) => ({ name, ...m })));
  const count = (...statuses: readonly string[]) => all.filter((m) => statuses.includes(m.status)).length;
  const found = count('Killed', 'Timeout');
  const missed = count('Survived', 'NoCoverage');
  return {
    score: Number((found / (found + missed)).toFixed(3)),
    found,
    missed,
    static: count('Ignored'),
    ranges: ranges.length,
    survivors: all
      .filter((m) => m.status === 'Survived' || m.status === 'NoCoverage')
      .map(
        (m) =>
          `${m.name}:${m.location.start.line} ${m.mutatorName}${m.status === 'NoCoverage' ? ' (no test comes here)' : ''}: ${(m.replacement ?? '').slice(0, 80)}`,
      ),
  };
};

mkdirSync(REPORT, { recursive: true });
const seed = Number(values.seed);
const from = Date.now();
const core = run(
  {
    name: 'core',
    folder: 'src/core',
    tests: 'tests/{core,cli,contracts,messages,charts,view-models,islands,ui}/**/*.test.ts',
    lines: Number(values.core),
  },
  seed,
);
const services = run(
  {
    name: 'services',
    folder: 'src/server/services',
    tests: 'tests/server/**/*.test.ts',
    lines: Number(values.services),
  },
  seed,
);
const minutes = Number(((Date.now() - from) / 60_000).toFixed(1));
writeFileSync(
  'docs/bench/mutation.json',
  `${JSON.stringify({ seed, minutes, mutation: { core: core.score, services: services.score }, core, services }, null, 2)}\n`,
);
console.log(`mutation.core ${core.score}, mutation.services ${services.score}, ${minutes} min`);
