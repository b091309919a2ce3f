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

export interface Report {
  readonly name: string;
  readonly seed: number;
  readonly figures: readonly Figure[];
  /** The same by kind of machine, or another cut. */
  readonly tables?: Readonly<Record<string, unknown>>;
}

/** Prints the figures and writes docs/bench/NAME.json. */
export const report = ({ name, seed, figures, tables }: Report): void => {
  const folder = join(process.cwd(), 'docs/bench');
  mkdirSync(folder, { recursive: true });
  const rounded = figures.map((f) => ({ ...f, value: Number(f.value.toPrecision(4)) }));
  const whole = { name, commit: commit(), cores: cpus().length, seed, figures: rounded, ...(tables ? { tables } : {}) };
  writeFileSync(join(folder, `${name}.json`), `${JSON.stringify(whole, null, 2)}\n`);
  console.table(rounded);
};
