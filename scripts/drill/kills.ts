import { execFileSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pause, serveOn } from './yard-server';
import { judge, readYard, type Sent, startWriters, type Verdict } from './writers';

const add = (a: Verdict, b: Verdict): Verdict => ({
  lost: a.lost + b.lost,
  doubled: a.doubled + b.doubled,
  half: a.half + b.half,
  broken: a.broken + b.broken,
});
const NONE: Verdict = { lost: 0, doubled: 0, half: 0, broken: 0 };

export interface KillReport extends Verdict {
  readonly rounds: number;
  readonly acknowledged: number;
}

/** kill -9 at random moments of concurrent writes, round after round on the same file. */
export const killDrill = async (seedFile: string, rounds: number, uniform: () => number): Promise<KillReport> => {
  const folder = mkdtempSync(join(tmpdir(), 'moorwind-drill-'));
  const file = join(folder, 'yard.sqlite');
  copyFileSync(seedFile, file);
  const yard = readYard(file);
  let verdict = NONE;
  const sent: Sent[] = [];
  for (let round = 0; round < rounds; round += 1) {
    const server = await serveOn(file);
    const writing = startWriters(server.url, yard, { writers: 4, uniform });
    await pause(60 + uniform() * 500);
    await server.end('SIGKILL');
    await writing.done;
    sent.push(...writing.acknowledged);
    verdict = add(verdict, judge(file, writing.acknowledged));
  }
  // Checks all kills again: no later kill lost an earlier record.
  verdict = add(verdict, judge(file, sent));
  rmSync(folder, { recursive: true, force: true });
  return { ...verdict, rounds, acknowledged: sent.length };
};

/** A power cut: the file as the kernel would leave it, with synced data only. Needs a C compiler. */
export const powerCutDrill = async (seedFile: string, rounds: number, uniform: () => number): Promise<KillReport> => {
  const folder = mkdtempSync(join(tmpdir(), 'moorwind-drill-'));
  const library = join(folder, 'synced.so');
  execFileSync('cc', ['-O1', '-shared', '-fPIC', '-o', library, 'scripts/drill/synced.c', '-ldl']);
  let verdict = NONE;
  let acknowledged = 0;
  for (let round = 0; round < rounds; round += 1) {
    const [disk, shadow] = [join(folder, `disk-${round}`), join(folder, `shadow-${round}`)];
    mkdirSync(disk);
    mkdirSync(shadow);
    const file = join(disk, 'yard.sqlite');
    copyFileSync(seedFile, file);
    copyFileSync(seedFile, join(shadow, 'yard.sqlite'));
    const server = await serveOn(file, { LD_PRELOAD: library, SYNCED_FROM: `${disk}/`, SYNCED_TO: shadow });
    const writing = startWriters(server.url, readYard(seedFile), { writers: 4, uniform });
    await pause(500 + uniform() * 1500);
    const sure = [...writing.acknowledged];
    await server.end('SIGKILL');
    await writing.done;
    for (const name of readdirSync(shadow)) if (name.endsWith('.part')) rmSync(join(shadow, name));
    // The index of the log is rebuilt from it: after a power cut there is none.
    rmSync(join(shadow, 'yard.sqlite-shm'), { force: true });
    if (!existsSync(join(shadow, 'yard.sqlite-wal')))
      throw new Error('nothing was synced: the drill does not work here');
    verdict = add(verdict, judge(join(shadow, 'yard.sqlite'), sure));
    acknowledged += sure.length;
  }
  rmSync(folder, { recursive: true, force: true });
  return { ...verdict, rounds, acknowledged };
};
