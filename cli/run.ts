import { seedDemo } from '../demo/seed';
import { parseConfig } from '@/server/config';
import { openMigrated } from '@/server/db/connect';
import { runCalc } from './calc';

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
  seed                    write the demo yard into an empty database (MOORWIND_DATA names the file)`;

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
