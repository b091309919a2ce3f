// npm run demo: installs, builds, makes the demo yard, serves it. A second start keeps the data; --fresh starts over.
import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root, run, serve } from './ready.mjs';

const data = join(root, 'data/demo.sqlite');
const env = { MOORWIND_DATA: data };

ensureInstalled();
if (!ensureBuilt()) process.exit(1);
if (process.argv.includes('--fresh')) for (const end of ['', '-wal', '-shm']) rmSync(data + end, { force: true });
if (!existsSync(data) && run('npx', ['tsx', 'cli/moorwind.ts', 'seed'], { env }) !== 0) {
  rmSync(data, { force: true });
  process.exit(1);
}
serve(env);
