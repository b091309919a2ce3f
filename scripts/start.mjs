// Serves the built application. HOST, PORT, MOORWIND_DATA and MOORWIND_ALLOW_LAN as the README says.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root } from './ready.mjs';

ensureInstalled();
if (!ensureBuilt()) process.exit(1);
const { status } = spawnSync(process.execPath, ['--import', 'tsx', join(root, 'scripts/serve.ts')], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, ASTRO_NODE_AUTOSTART: 'disabled' },
});
process.exit(status ?? 0);
