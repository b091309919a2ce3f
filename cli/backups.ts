import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { parseConfig } from '@/server/config';
import { openMigrated } from '@/server/db/connect';
import {
  type Copy,
  copiesFolder,
  CopyError,
  inspectCopy,
  isAsTaken,
  isInUse,
  listCopies,
  restoreCopy,
} from '@/server/db/copies';
import { MIGRATIONS } from '@/server/db/migrations';
import { backUp } from '@/server/services/backups';
import type { CliWorld } from './run';
import { refuse } from './refuse';

/** Takes a copy, beside a running server too. */
export const backup = async (world: CliWorld): Promise<number> => {
  const file = parseConfig(world.env).dataFile;
  if (!existsSync(file)) {
    world.complain(`There are no records at ${file}. Name the file in MOORWIND_DATA.`);
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

/** The copies there are, newest first. */
export const backups = (world: CliWorld): number => {
  const file = parseConfig(world.env).dataFile;
  const all = listCopies(file);
  for (const c of all) world.write(`${c.name}\t${c.why}\t${c.rows['machine'] ?? 0} machines\t${sumOf(c)} rows`);
  if (all.length === 0) world.write(`No checked copy in ${copiesFolder(file)} yet.`);
  return 0;
};

/** What a restore would take away, table by table: rows the records hold and the copy does not. */
const lost = (now: Readonly<Record<string, number>>, then: Readonly<Record<string, number>>): readonly string[] =>
  Object.entries(now).flatMap(([table, n]) => {
    const fewer = n - (then[table] ?? 0);
    return fewer > 0 ? [`${fewer} of ${table.replaceAll('_', ' ')}`] : [];
  });

/** What the records hold; null where they are damaged: that is what a copy is there for. */
const rowsNow = (file: string): Readonly<Record<string, number>> | null => {
  if (!existsSync(file)) return {};
  try {
    return inspectCopy(file).rows;
  } catch (error) {
    if (error instanceof CopyError) return null;
    throw error;
  }
};

const find = (file: string, name: string): string | null =>
  [join(copiesFolder(file), name), name].find((path) => existsSync(path)) ?? null;

/** Brings a copy back: first says what it holds and what would be lost, and does it only when told so. */
export const restore = async (world: CliWorld, args: readonly string[]): Promise<number> => {
  const file = parseConfig(world.env).dataFile;
  const [name] = args.filter((a) => a !== '--yes');
  const from = name === undefined ? null : find(file, name);
  if (from === null) {
    world.complain(name === undefined ? 'Say which copy: moorwind backups lists them.' : `There is no copy ${name}.`);
    return 2;
  }
  try {
    const copy = inspectCopy(from);
    if (!(await isAsTaken(from))) throw new CopyError('changed');
    if (!(copy.schema in MIGRATIONS)) {
      world.complain(`That copy is of a newer Moorwind (${copy.schema}). Nothing was changed.`);
      return 1;
    }
    const now = rowsNow(file);
    const gone = lost(now ?? {}, copy.rows);
    world.write(`The copy holds ${copy.rows['machine'] ?? 0} machines and ${sumOf(copy)} rows, and reads through.`);
    world.write(
      now === null
        ? 'The records are damaged and cannot be counted: whatever came after the copy would be lost. The damaged file is kept beside.'
        : gone.length === 0
          ? 'Nothing on record now would be lost.'
          : `Would be lost: ${gone.join(', ')}.`,
    );
    if (!args.includes('--yes')) {
      world.write('Nothing was changed. Add --yes to bring it back.');
      return 0;
    }
    if (isInUse(file)) {
      world.complain('Moorwind, or another program, has the records open. Stop it first. Nothing was changed.');
      return 1;
    }
    const replaced = await restoreCopy(file, from, world.now());
    world.write(`Brought back.${replaced ? ` What it replaced is kept as ${replaced}.` : ''}`);
    return 0;
  } catch (error) {
    if (!(error instanceof CopyError)) throw error;
    world.complain(`That file is damaged, or no copy of these records. Nothing was changed.`);
    return 1;
  }
};
