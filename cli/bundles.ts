import { createWriteStream } from 'node:fs';
import { readFile, rename, rm } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { BUNDLE_TABLE_NAMES, bundleSchema, type BundleScope } from '@/contracts/bundle';
import type { ImportReport } from '@/contracts/bundle-report';
import { parseConfig } from '@/server/config';
import { openMigrated } from '@/server/db/connect';
import { bundleOf } from '@/server/bundle/out';
import { machineIdOf } from '@/server/repositories/machines';
import { takeInBundle } from '@/server/services/house/bundle-in';
import { TABLE_WORDS } from '@/messages/bundle';
import type { CliWorld } from './run';
import { refuse } from './refuse';

/** Prints the published schema of a bundle. */
export const schema = (world: CliWorld): number => {
  world.write(JSON.stringify(bundleSchema(), null, 2));
  return 0;
};

/** Takes an option with its value out of the arguments: the value, and the other arguments. */
const option = (
  args: readonly string[],
  name: string,
): { readonly value: string | null; readonly rest: readonly string[] } => {
  const at = args.indexOf(name);
  return at < 0 ? { value: null, rest: args } : { value: args[at + 1] ?? '', rest: args.toSpliced(at, 2) };
};

/** Writes everything, or one machine with its file, into a bundle. */
export const exportBundle = async (world: CliWorld, args: readonly string[]): Promise<number> => {
  const { value: tag, rest } = option(args, '--machine');
  const [to] = rest;
  const { dataFile } = parseConfig(world.env);
  if (to === undefined || tag === '') {
    world.complain('Say where to: moorwind export FILE.zip, or moorwind export --machine TAG FILE.zip.');
    return 2;
  }
  if (!existsSync(dataFile)) {
    world.complain(`There are no records at ${dataFile}. Name the file in MOORWIND_DATA.`);
    return 1;
  }
  if (existsSync(to)) {
    world.complain(`${to} is there already. Nothing was written.`);
    return 1;
  }
  const db = await openMigrated(dataFile);
  try {
    if (tag !== null && (await machineIdOf(db, tag)) === null) {
      world.complain(`Machine ${tag} does not exist. Nothing was written.`);
      return 1;
    }
  } finally {
    await db.destroy();
  }
  const scope: BundleScope = tag === null ? { kind: 'yard' } : { kind: 'machine', tag: tag.toUpperCase() };
  const making = `${to}.part`;
  try {
    await pipeline(Readable.from(bundleOf(dataFile, scope)), createWriteStream(making));
    await rename(making, to);
  } catch (error) {
    await rm(making, { force: true });
    world.complain(`${to} could not be written: ${error instanceof Error ? error.message : 'the disk refused'}.`);
    return 1;
  }
  world.write(`${to}: ${scope.kind === 'yard' ? 'the whole yard' : `${scope.tag} with its file`}.`);
  return 0;
};

const say = (world: CliWorld, report: ImportReport, dryRun: boolean): void => {
  const lines = BUNDLE_TABLE_NAMES.flatMap((t) => {
    const n = report.added[t];
    return n ? [`${n} ${TABLE_WORDS[t][n === 1 ? 0 : 1]}`] : [];
  });
  const did = dryRun ? 'Would take in' : 'Took in';
  world.write(lines.length === 0 ? 'Everything in it is here already.' : `${did}: ${lines.join(', ')}.`);
  if (report.taken.length > 0)
    world.write(`Changed elsewhere, and ${dryRun ? 'would be' : 'now'} as there: ${report.taken.join(', ')}.`);
  for (const k of report.kept) world.write(`Differs here and was not changed: ${TABLE_WORDS[k.table][0]} ${k.name}.`);
  if (dryRun) world.write('Nothing was changed.');
};

/** Takes in a bundle: says what it would do with --dry-run, and does it without. */
export const importBundle = async (world: CliWorld, args: readonly string[]): Promise<number> => {
  const dryRun = args.includes('--dry-run');
  const [from] = args.filter((a) => a !== '--dry-run');
  if (from === undefined) {
    world.complain('Say which: moorwind import FILE.zip, with --dry-run to ask first.');
    return 2;
  }
  if (!existsSync(from)) {
    world.complain(`The file ${from} does not exist.`);
    return 1;
  }
  const db = await openMigrated(parseConfig(world.env).dataFile);
  try {
    const ask = { clientId: `console-${randomUUID()}`, by: 'CONSOLE', dryRun };
    const taken = await takeInBundle({ db, now: world.now }, await readFile(from), ask);
    if (!taken.ok) return refuse(world, taken.failures);
    say(world, taken.value, dryRun);
    return 0;
  } finally {
    await db.destroy();
  }
};
