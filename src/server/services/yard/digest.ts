import { setImmediate } from 'node:timers/promises';
import { type MachineDigest, machineDigest } from '@/core/status/machine-status';
import type { Db } from '../../db/connect';
import { loadChanges } from '../../repositories/changes';
import { loadMachines } from '../../repositories/machines';
import {
  ANY_DAY,
  forgetMade,
  heldByOther,
  loadMade,
  machineIds,
  madeFor,
  saveMade,
  unlessBusy,
  withoutMade,
} from '../../repositories/made';
import { loadSite } from '../../repositories/site';
import { loadTests } from '../../repositories/tests';

/** Largest number of digests that an action rebuilds before it ends; more are rebuilt when they are next read. */
const IN_ACTION = 8;

/** Makes a digest from every record of one machine. The JSON round trip makes it equal to a digest read back from the table. */
export const makeDigest = async (db: Db, machineId: number): Promise<MachineDigest> => {
  const { timeZone, thresholds } = await loadSite(db);
  const [machine] = await loadMachines(db, machineId);
  if (!machine) throw new Error(`machine ${machineId} does not exist`);
  const digest = machineDigest({
    machine,
    tests: await loadTests(db, machineId),
    changes: await loadChanges(db, timeZone, machineId),
    thresholds,
  });
  return JSON.parse(JSON.stringify(digest)) as MachineDigest;
};

const make = async (db: Db, machineId: number): Promise<{ readonly rev: number; readonly digest: MachineDigest }> => {
  const digest = await makeDigest(db, machineId);
  return { rev: await saveMade(db, 'machine_digest', { machineId, day: ANY_DAY, content: digest }), digest };
};

/** Machines without a digest of this build. */
export const withoutDigest = (db: Db): Promise<ReadonlySet<number>> => withoutMade(db, 'machine_digest', ANY_DAY);

/**
 * Rebuilds the digests that an action deleted, in its own transaction. If a digest cannot be built, the action is rolled
 * back. Machines that had no digest before the action are left alone.
 */
export const renewDigests = async (tx: Db, without: ReadonlySet<number>): Promise<void> => {
  const taken = [...(await withoutDigest(tx))].filter((id) => !without.has(id));
  if (taken.length > IN_ACTION) return;
  for (const id of taken) await make(tx, id);
};

export interface Digests {
  readonly digests: readonly MachineDigest[];
  /** Machines whose records cannot be read: a fault of ours, which must not take the others' pages with it. */
  readonly unreadable: readonly string[];
}

const held = new WeakMap<Db, Map<number, { readonly rev: number; readonly digest: MachineDigest }>>();

/** Where somebody else writes it is shown all the same, and kept the next time. */
const makeAndKeep = async (db: Db, machineId: number) =>
  (await unlessBusy(db, (tx) => make(tx, machineId))) ?? { rev: -1, digest: await makeDigest(db, machineId) };

/** The digest of every machine, by tag: read where it was made, made where it is missing. */
export const loadDigests = async (db: Db): Promise<Digests> => {
  const mine = held.get(db) ?? new Map<number, { readonly rev: number; readonly digest: MachineDigest }>();
  held.set(db, mine);
  const made = await madeFor(db, 'machine_digest', ANY_DAY);
  const digests: MachineDigest[] = [];
  const unreadable: string[] = [];
  for (const { id, tag } of await machineIds(db)) {
    const rev = made.get(id);
    const known = mine.get(id);
    if (known && known.rev === rev) {
      digests.push(known.digest);
      continue;
    }
    try {
      const kept = rev === undefined ? null : await loadMade<MachineDigest>(db, 'machine_digest', rev);
      const fresh = kept && rev !== undefined ? { rev, digest: kept } : await makeAndKeep(db, id);
      mine.set(id, fresh);
      digests.push(fresh.digest);
      // After another build there may be hundreds to make: what else is asked meanwhile is answered in between.
      if (rev === undefined) await setImmediate();
    } catch (error) {
      if (heldByOther(error)) throw error;
      console.error(`The records of ${tag} cannot be read:`, error);
      unreadable.push(tag);
    }
  }
  return { digests, unreadable };
};

/** Rebuilds every digest from the records; returns how many there are, and which differed from the stored one. */
export const rebuildDigests = async (
  db: Db,
): Promise<{ readonly made: number; readonly differed: readonly string[] }> =>
  db.transaction().execute(async (tx) => {
    const before = await madeFor(tx, 'machine_digest', ANY_DAY);
    const differed: string[] = [];
    const machines = await machineIds(tx);
    const kept = new Map<number, string>();
    for (const [id, rev] of before) kept.set(id, JSON.stringify(await loadMade(tx, 'machine_digest', rev)));
    await forgetMade(tx, 'machine_digest');
    await forgetMade(tx, 'machine_forecast');
    for (const { id, tag } of machines) {
      const { digest } = await make(tx, id);
      const was = kept.get(id);
      if (was !== undefined && was !== JSON.stringify(digest)) differed.push(tag);
    }
    return { made: machines.length, differed };
  });
