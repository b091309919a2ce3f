import { randomUUID } from 'node:crypto';
import { seedDemo } from '../demo/seed';
import { parseConfig } from '@/server/config';
import { type Db, openMigrated } from '@/server/db/connect';
import { findPerson, loadPeople } from '@/server/repositories/people';
import { rebuildDigests } from '@/server/services/digest';
import { keepPerson, makeCode } from '@/server/services/people';
import { backup, backups, restore } from './backups';
import { exportBundle, importBundle, schema } from './bundles';
import { runCalc } from './calc';
import { refuse } from './refuse';

/** Everything the command line touches, handed in. */
export interface CliWorld {
  readonly args: readonly string[];
  readonly readInput: () => Promise<string>;
  readonly write: (text: string) => void;
  readonly complain: (text: string) => void;
  readonly env: Readonly<Record<string, string | undefined>>;
  readonly now: () => string;
}

const HELP = `moorwind <command>

  calc --list             the calculations
  calc NAME --schema      the JSON Schema of its input
  calc NAME < in.json     compute; JSON out
  seed                    write the demo yard into an empty database (MOORWIND_DATA names the file)
  rebuild                 make anew what is kept beside the records, and say what differed
  backup                  take a checked copy of the records, beside a running server too
  backups                 the copies there are
  restore NAME [--yes]    say what a copy holds and what would be lost; with --yes bring it back
  export FILE             write everything into one bundle (a zip)
  export --machine TAG FILE     write one machine with its file
  import FILE [--dry-run] take in a bundle; with --dry-run only say what it would do
  schema                  the JSON Schema of a bundle
  people                  who is on file
  people lead INITIALS NAME     make somebody a lead, and print a code to choose a passphrase with
  people code INITIALS    print a code for a new passphrase, for one who has lost it`;

/** Runs something on the records that MOORWIND_DATA names. */
const onRecords = async (world: CliWorld, work: (db: Db) => Promise<number>): Promise<number> => {
  const db = await openMigrated(parseConfig(world.env).dataFile);
  try {
    return await work(db);
  } finally {
    await db.destroy();
  }
};

const rebuild = (world: CliWorld): Promise<number> =>
  onRecords(world, async (db) => {
    const { made, differed } = await rebuildDigests(db);
    world.write(
      `${made} machines made anew; ${differed.length === 0 ? 'nothing differed' : `different before: ${differed.join(', ')}`}.`,
    );
    return differed.length === 0 ? 0 : 1;
  });

const people = (world: CliWorld, [what, initials, ...name]: readonly string[]): Promise<number> =>
  onRecords(world, async (db) => {
    const context = { db, now: world.now };
    if (what === undefined) {
      for (const { person, signsIn } of await loadPeople(db))
        world.write(
          `${person.initials}\t${person.name}\t${person.role}${person.active ? '' : ', no longer here'}${signsIn ? '' : ', no passphrase'}`,
        );
      return 0;
    }
    if ((what !== 'lead' && what !== 'code') || initials === undefined || initials.length > 12) {
      world.complain(HELP);
      return 2;
    }
    if (what === 'lead') {
      const kept = await keepPerson(context, {
        clientId: `console-${randomUUID()}`,
        by: 'CONSOLE',
        mayContain: false,
        maskFitOn: null,
        trainedOn: null,
        ...(await findPerson(db, initials)),
        initials,
        ...(name.length > 0 ? { name: name.join(' ') } : { name: initials }),
        role: 'lead',
        active: true,
      });
      if (!kept.ok) return refuse(world, kept.failures);
    }
    const made = await makeCode(context, { clientId: `console-${randomUUID()}`, by: 'CONSOLE', initials });
    if (!made.ok) return refuse(world, made.failures);
    world.write(`Code for ${initials.toUpperCase()}, for one use at /sign-in: ${made.value.secret}`);
    return 0;
  });

/** Runs one command; the number is the exit code: 0 done, 1 refused with problems, 2 not understood. */
export const runCli = async (world: CliWorld): Promise<number> => {
  const [command, ...rest] = world.args;
  switch (command) {
    case 'calc':
      return runCalc(world, rest);
    case 'seed': {
      const { dataFile } = parseConfig(world.env);
      const db = await openMigrated(dataFile);
      await seedDemo(db, { now: world.now(), seed: 20_240_611 });
      await db.destroy();
      world.write(`Curlew Reach Boatyard is in ${dataFile}`);
      return 0;
    }
    case 'rebuild':
      return rebuild(world);
    case 'backup':
      return backup(world);
    case 'backups':
      return backups(world);
    case 'restore':
      return restore(world, rest);
    case 'export':
      return exportBundle(world, rest);
    case 'import':
      return importBundle(world, rest);
    case 'schema':
      return schema(world);
    case 'people':
      return people(world, rest);
    case undefined:
    case 'help':
    case '--help':
      world.write(HELP);
      return 0;
    default:
      world.complain(`There is no command "${command}".\n\n${HELP}`);
      return 2;
  }
};
