import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { parseConfig } from '@/server/config';
import { openMigrated } from '@/server/db/connect';
import { type Copy, copiesFolder, listCopies } from '@/server/db/copies';
import { backUp } from '@/server/services/house/backups';
import { bringBack, lookAtCopy } from '@/server/services/house/restore';
import { sayLost } from '@/messages/settings';
import type { CliWorld } from './run';
import { refuse } from './refuse';

/** Makes a backup, also beside a running server. */
export const backup = async (world: CliWorld): Promise<number> => {
  const file = parseConfig(world.env).dataFile;
  if (!existsSync(file)) {
    world.complain(`No records were found at ${file}. Name the file in MOORWIND_DATA.`);
    return 1;
  }
  const db = await openMigrated(file);
  try {
    const made = await backUp({ db, now: world.now, file }, 'asked');
    if (!made.ok) return refuse(world, made.failures);
    world.write(`${join(copiesFolder(file), made.value.name)}: read through, ${sumOf(made.value)} rows.`);
    return 0;
  } finally {
    await db.destroy();
  }
};

const sumOf = ({ rows }: Pick<Copy, 'rows'>): number => Object.values(rows).reduce((a, b) => a + b, 0);

/** Lists the backups, newest first. */
export const backups = (world: CliWorld): number => {
  const file = parseConfig(world.env).dataFile;
  const all = listCopies(file);
  for (const c of all) world.write(`${c.name}\t${c.why}\t${c.rows['machine'] ?? 0} machines\t${sumOf(c)} rows`);
  if (all.length === 0) world.write(`No checked backup in ${copiesFolder(file)} yet.`);
  return 0;
};

const find = (file: string, name: string): string | null =>
  [join(copiesFolder(file), name), name].find((path) => existsSync(path)) ?? null;

/** Restores a backup with --yes; without it, reports its content and the records that would be lost. */
export const restore = async (world: CliWorld, args: readonly string[]): Promise<number> => {
  const file = parseConfig(world.env).dataFile;
  const [name] = args.filter((a) => a !== '--yes');
  const from = name === undefined ? null : find(file, name);
  if (from === null) {
    world.complain(name === undefined ? 'Name a backup: moorwind backups lists them.' : `No backup is called ${name}.`);
    return 2;
  }
  const look = await lookAtCopy(file, from);
  if (!look.ok) return refuse(world, look.failures);
  world.write(
    `The backup holds ${look.value.rows['machine'] ?? 0} machines and ${sumOf(look.value)} rows, and passes its check.`,
  );
  world.write(sayLost(look.value.lost));
  if (!args.includes('--yes')) {
    world.write('Nothing was changed. Add --yes to restore it.');
    return 0;
  }
  const done = await bringBack(file, { from, at: world.now() });
  if (!done.ok) return refuse(world, done.failures);
  const { replaced } = done.value;
  world.write(`Restored.${replaced ? ` The replaced records are kept as ${replaced}.` : ''}`);
  return 0;
};
