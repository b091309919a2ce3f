// Checks the configuration and the database before the server listens, so that a refusal is a sentence, not a page.
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ConfigError, parseConfig } from '@/server/config';
import { openMigrated } from '@/server/db/connect';

const config = (() => {
  try {
    return parseConfig(process.env);
  } catch (error) {
    if (!(error instanceof ConfigError)) throw error;
    console.error(error.message);
    process.exit(1);
  }
})();

const db = await openMigrated(config.dataFile);
await db.destroy();
process.env['HOST'] = config.host;
process.env['PORT'] = String(config.port);
process.env['ASTRO_NODE_AUTOSTART'] = 'disabled';

interface Entry {
  startServer: () => { server: { host?: string; port: number } };
}
const entry = (await import(pathToFileURL(join(process.cwd(), 'dist/server/entry.mjs')).href)) as Entry;
entry.startServer();
console.log(`Moorwind: http://${config.host}:${config.port}/   records in ${config.dataFile}`);
