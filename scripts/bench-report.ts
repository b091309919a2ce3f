import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';

export interface Figure {
  readonly id: string;
  readonly value: number;
  readonly unit: string;
  readonly goal: string;
}

const commit = (): string => {
  try {
    return execFileSync('git', ['rev-parse', '--short', 'HEAD'], { encoding: 'utf8' }).trim();
  } catch {
    return 'none';
  }
};

/** Calls a second of a function, over at least the given time, after a warm-up. */
export const callsPerSecond = (work: () => unknown, leastMs = 1500): number => {
  const warm = performance.now();
  while (performance.now() - warm < 200) work();
  let calls = 0;
  const began = performance.now();
  while (performance.now() - began < leastMs) {
    work();
    calls += 1;
  }
  return (calls * 1000) / (performance.now() - began);
};

/** Prints the figures and writes docs/bench/NAME.json. */
export const report = (name: string, seed: number, figures: readonly Figure[]): void => {
  const folder = join(process.cwd(), 'docs/bench');
  mkdirSync(folder, { recursive: true });
  const rounded = figures.map((f) => ({ ...f, value: Number(f.value.toPrecision(4)) }));
  writeFileSync(join(folder, `${name}.json`), `${JSON.stringify({ name, commit: commit(), cores: cpus().length, seed, figures: rounded }, null, 2)}\n`);
  console.table(rounded);
};
