// Serves the built application. HOST, PORT, MOORWIND_DATA, MOORWIND_ALLOW_LAN and MOORWIND_HOSTS as the README says.
import { ensureBuilt, ensureInstalled, serve } from './ready.mjs';

ensureInstalled();
if (!ensureBuilt()) process.exit(1);
serve();
