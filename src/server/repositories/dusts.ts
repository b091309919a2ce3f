import { readStored } from '@/contracts/stored';
import { KeysJson } from '@/contracts/dust';
import { AnswersJson, DustJson } from '@/contracts/dust';
import { HazardName } from '@/contracts/enums';
import type { Dust } from '@/core/dust/dust';
import { type CollectedEntry, type Decontamination, DECONTAMINATED_BY } from '@/core/dust/history';
import { registerOf } from '@/core/dust/register';
import type { Db } from '../db/connect';
import { grouped } from './grouped';

/** The site's own entries of the register, the newest of each key. */
export const loadOwnDusts = async (db: Db): Promise<readonly Dust[]> => {
  const rows = await db.selectFrom('dust_entry').selectAll().orderBy('id').execute();
  return [...new Map(rows.map((r) => [r.key, readStored(DustJson, r.dust_json)])).values()];
};

/** The register of this site: the shipped dusts, overlaid by the site's own. */
export const loadRegister = async (db: Db): Promise<readonly Dust[]> => registerOf(await loadOwnDusts(db));

export const insertDust = async (
  db: Db,
  { dust, at, by }: { readonly dust: Dust; readonly at: string; readonly by: string },
): Promise<number> => {
  const { id } = await db
    .insertInto('dust_entry')
    .values({ key: dust.key, dust_json: JSON.stringify(dust), at, by_initials: by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export interface DustRecords {
  readonly entries: ReadonlyMap<number, readonly CollectedEntry[]>;
  readonly decontaminations: ReadonlyMap<number, readonly Decontamination[]>;
}

const made = <R, T>(
  rows: readonly R[],
  keyOf: (row: R) => number,
  make: (row: R) => T,
): ReadonlyMap<number, readonly T[]> =>
  new Map([...grouped(rows, keyOf)].map(([key, group]) => [key, group.map(make)]));

/** Statements of each machine's dust and decontaminations, oldest first; of one machine when it is named. */
export const loadDustRecords = async (db: Db, machineId?: number): Promise<DustRecords> => {
  const said = await db
    .selectFrom('dust_collected')
    .selectAll()
    .$if(machineId !== undefined, (q) => q.where('machine_id', '=', machineId ?? 0))
    .orderBy('at')
    .orderBy('id')
    .execute();
  const cleared = await db
    .selectFrom('decontamination')
    .selectAll()
    .$if(machineId !== undefined, (q) => q.where('machine_id', '=', machineId ?? 0))
    .orderBy('at')
    .orderBy('id')
    .execute();
  const keys = (json: string): readonly string[] => readStored(KeysJson, json);
  return {
    entries: made(
      said,
      (r) => r.machine_id,
      (r): CollectedEntry => ({
        id: r.id,
        since: r.since_on,
        at: r.at,
        by: r.by_initials,
        text: r.said,
        confirmed: keys(r.confirmed_json),
        denied: keys(r.denied_json),
        answers: readStored(AnswersJson, r.answers_json),
        own: r.own_level === null ? null : HazardName.parse(r.own_level),
        lowerBecause: r.lower_because,
      }),
    ),
    decontaminations: made(
      cleared,
      (r) => r.machine_id,
      (r): Decontamination => ({
        id: r.id,
        at: r.at,
        on: r.on_day,
        by: r.by_initials,
        how: DECONTAMINATED_BY.find((h) => h === r.how) ?? 'contractor',
        paper: r.paper,
        jobId: r.job_id,
      }),
    ),
  };
};

export const insertCollected = async (db: Db, machineId: number, e: Omit<CollectedEntry, 'id'>): Promise<number> => {
  const { id } = await db
    .insertInto('dust_collected')
    .values({
      machine_id: machineId,
      since_on: e.since,
      said: e.text,
      confirmed_json: JSON.stringify(e.confirmed),
      denied_json: JSON.stringify(e.denied),
      answers_json: JSON.stringify(e.answers),
      own_level: e.own,
      lower_because: e.lowerBecause,
      at: e.at,
      by_initials: e.by,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

export const insertDecontamination = async (
  db: Db,
  machineId: number,
  d: Omit<Decontamination, 'id'>,
): Promise<number> => {
  const { id } = await db
    .insertInto('decontamination')
    .values({
      machine_id: machineId,
      on_day: d.on,
      how: d.how,
      paper: d.paper,
      job_id: d.jobId,
      at: d.at,
      by_initials: d.by,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};
