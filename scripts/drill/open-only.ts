// Opens a file as a start does, and says when it begins: the drill kills it somewhere on the way.
import { openRecords } from '@/server/db/open-records';

process.stdout.write('go\n');
await (await openRecords(process.argv[2] ?? '')).destroy();
process.stdout.write('done\n');
