// Tests what the records survive: kill -9 during writes and migrations, a power cut, a fuzz of every endpoint, and
// faults of disk, file, lock, port and clock. Writes docs/bench/drill.json; `--short` is the small run for every check.
import { copyFileSync, existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seedDemo } from '../demo/seed';
import { seeded } from '@/core/numeric/seeded';
import { openMigrated } from '@/server/db/connect';
import { loadYard } from '@/server/services/yard/yard';
import { type FaultReport, faultDrill } from './drill/faults';
import { type FuzzReport, fuzz } from './drill/fuzz';
import { killDrill, type KillReport, powerCutDrill } from './drill/kills';
import { migrationDrill, type MigrationReport } from './drill/migrations';
import { serveOn } from './drill/yard-server';

const short = process.argv.includes('--short');
const only = process.argv.find((a) => a.startsWith('--only='))?.slice('--only='.length);
const rounds = short
  ? { kill: 5, power: 2, migration: 4, fuzz: 600 }
  : { kill: 200, power: 12, migration: 40, fuzz: 10_000 };

const folder = mkdtempSync(join(tmpdir(), 'moorwind-drill-'));
const seedFile = join(folder, 'seed.sqlite');
const db = await openMigrated(seedFile);
await seedDemo(db, { now: new Date().toISOString(), seed: 7 });
await loadYard({ db, now: () => new Date().toISOString() });
await db.destroy();
const { uniform } = seeded(short ? 1 : 9);

const told = <T>(name: string, report: T): T => {
  console.log(name, JSON.stringify(report));
  return report;
};
interface Parts {
  readonly kill: KillReport | null;
  readonly power: KillReport | null;
  readonly migration: MigrationReport | null;
  readonly fuzz: FuzzReport | null;
  readonly faults: FaultReport | null;
}

const wanted = (name: string): boolean => only === undefined || only === name;

const fuzzOnce = async () => {
  const file = join(folder, 'fuzz.sqlite');
  copyFileSync(seedFile, file);
  const server = await serveOn(file);
  const report = await fuzz(server.url, file, {
    bodies: rounds.fuzz,
    chance: uniform,
    say: (line) => console.error(line),
  });
  await server.end('SIGTERM');
  return report;
};

const faults = wanted('faults') && !short ? told('faults', await faultDrill(seedFile)) : null;
const fuzzed = wanted('fuzz') ? told('fuzz', await fuzzOnce()) : null;
const migration = wanted('migration') ? told('migration kills', await migrationDrill(rounds.migration, uniform)) : null;
const power = wanted('power') ? told('power cuts', await powerCutDrill(seedFile, rounds.power, uniform)) : null;
const kill = wanted('kill') ? told('kills', await killDrill(seedFile, rounds.kill, uniform)) : null;

// A part that was not run keeps its figures of the run before: the parts take up to an hour, and each can run alone.
const FILE = 'docs/bench/drill.json';
const before = (existsSync(FILE) ? JSON.parse(readFileSync(FILE, 'utf8')) : {}) as Partial<Parts>;
const parts: Parts = {
  kill: kill ?? before.kill ?? null,
  power: power ?? before.power ?? null,
  migration: migration ?? before.migration ?? null,
  fuzz: fuzzed ?? before.fuzz ?? null,
  faults: faults ?? before.faults ?? null,
};
const figures = {
  drill: {
    kill_lost: parts.kill?.lost ?? null,
    kill_doubled: parts.kill?.doubled ?? null,
    half_actions: parts.kill && parts.power ? parts.kill.half + parts.power.half : null,
    power_cut_lost: parts.power?.lost ?? null,
    migration_kill_unopened: parts.migration?.unopened ?? null,
    fuzz_5xx: parts.fuzz?.server_errors ?? null,
    fuzz_hangs: parts.fuzz?.hangs ?? null,
    faults_survived: parts.faults ? `${parts.faults.survived} of ${parts.faults.of}` : null,
  },
  ...parts,
};
if (!short) writeFileSync(FILE, `${JSON.stringify(figures, null, 2)}\n`);
console.log(figures.drill);
const wrong =
  (kill ? kill.lost + kill.doubled + kill.half + kill.broken : 0) +
  (power ? power.lost + power.doubled + power.half + power.broken : 0) +
  (migration ? migration.unopened + migration.lost : 0) +
  (fuzzed ? fuzzed.server_errors + fuzzed.hangs + fuzzed.pages_down : 0) +
  (faults ? faults.failed.length : 0);
process.exitCode = wrong === 0 ? 0 : 1;
