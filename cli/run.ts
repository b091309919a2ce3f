import { randomUUID } from 'node:crypto';
import { seedDemo } from '../demo/seed';
import { parseConfig } from '@/server/config';
import { type Db, openMigrated } from '@/server/db/connect';
import { findPerson, loadPeople } from '@/server/repositories/people';
import { rebuildDigests } from '@/server/services/yard/digest';
import { keepPerson, makeCode } from '@/server/services/house/people';
import { backup, backups, restore } from './backups';
import { exportBundle, importBundle, schema } from './bundles';
import { sayViolation } from '@/messages/violations';
import { runCalc } from './calc';
import { checkProcedures } from './check-procedures';
import { HELP, helpOf } from './help';
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
      `${made} machines rebuilt; ${differed.length === 0 ? 'nothing differed' : `different before: ${differed.join(', ')}`}.`,
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

/** Proves every procedure there is. Exit code 1 where one of them is unsafe. */
const proveAll = (world: CliWorld): number => {
  const checked = checkProcedures();
  const unproven = checked.filter((c) => c.violations.length > 0);
  for (const { of, violations } of unproven.slice(0, 40))
    world.write(`${of}\n${violations.map((v) => `  ${sayViolation(v)}`).join('\n')}`);
  world.write(`${checked.length} procedures assembled and walked, ${unproven.length} of them unsafe.`);
  return unproven.length === 0 ? 0 : 1;
};

/** Runs one command; the number is the exit code: 0 done, 1 refused with problems, 2 not understood. */
export const runCli = async (world: CliWorld): Promise<number> => {
  const [command, ...rest] = world.args;
  const asked = rest.includes('--help') ? helpOf(command ?? '') : null;
  if (asked !== null) {
    world.write(asked);
    return 0;
  }
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
    case 'check-procedures':
      return proveAll(world);
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
      world.complain(`Unknown command "${command}".\n\n${HELP}`);
      return 2;
  }
};
