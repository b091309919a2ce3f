import type { Dust } from '@/core/dust/dust';
import { type CalendarDate, dayAt } from '@/core/calendar/calendar-date';
import { holdOf, type JobState, jobState } from '@/core/procedure/job-log';
import type { StageOutlook } from '@/core/forecast/from-record';
import { type MachineDigest, type MachineStatus, statusOn } from '@/core/status/machine-status';
import { machinesWithOpenCase } from '../../repositories/cases';
import { loadOwnDusts } from '../../repositories/dusts';
import { loadOpenJobs } from '../../repositories/jobs';
import { findMachine, tagNow } from '../../repositories/machines';
import type { Machine } from '@/core/machine/machine';
import { loadRevision } from '../../repositories/made';
import { type Gone, loadGone } from '../../repositories/retirements';
import type { Site } from '@/core/site/site';
import { loadSite } from '../../repositories/site';
import type { Db } from '../../db/connect';
import { loadDigests } from './digest';
import { outlooksOn } from '../plan/outlooks';
import type { Context } from './user-action';

export interface Yard {
  readonly site: Site;
  readonly today: CalendarDate;
  /** How many writes the records had seen when it was read. */
  readonly revision: number;
  /** The site's own entries of the register of dusts. */
  readonly ownDusts: readonly Dust[];
  /** Most urgent first. */
  readonly machines: readonly MachineStatus[];
  /** Machines that are no longer kept, by tag: their files stay. */
  readonly retired: readonly MachineStatus[];
  readonly gone: ReadonlyMap<number, Gone>;
  /** Tags of machines whose records cannot be read. */
  readonly unreadable: readonly string[];
  /** Machines with an open fault case. */
  readonly openCases: ReadonlySet<number>;
  /** The guided job under way on a machine, by its number. */
  readonly openJobs: ReadonlyMap<number, JobState>;
}

const held = new WeakMap<Db, Yard>();
/** A yard that is being loaded: concurrent requests share it. */
const reading = new WeakMap<Db, { readonly of: Pick<Yard, 'today' | 'revision'>; readonly yard: Promise<Yard> }>();

const statuses = new WeakMap<MachineDigest, { readonly today: CalendarDate; readonly status: MachineStatus }>();
const NO_OUTLOOKS: readonly StageOutlook[] = [];

/** Memoised per digest and day. */
const statusOf = (digest: MachineDigest, today: CalendarDate, outlooks: readonly StageOutlook[]): MachineStatus => {
  const known = statuses.get(digest);
  if (known?.today === today && known.status.outlooks === outlooks) return known.status;
  const status = statusOn(digest, today, outlooks);
  statuses.set(digest, { today, status });
  return status;
};

const readYard = async (db: Db, { today, revision }: Pick<Yard, 'today' | 'revision'>): Promise<Yard> => {
  const { digests, unreadable } = await loadDigests(db);
  const gone = await loadGone(db);
  const site = await loadSite(db);
  // Retired machines are not forecast: their rules stay unchanged.
  const kept = digests.map((d) => d.machine.id).filter((id) => !gone.has(id));
  const outlooks = await outlooksOn(db, { site, today, revision }, kept);
  const all = digests.map((digest) => statusOf(digest, today, outlooks.get(digest.machine.id) ?? NO_OUTLOOKS));
  const machines = all.filter((m) => !gone.has(m.machine.id));
  const openJobs = new Map((await loadOpenJobs(db)).map((j) => [j.machineId, jobState(j)]));
  // Open jobs come first: the machine is in work, and nobody may run it.
  const rank = (m: MachineStatus): number => (holdOf(openJobs.get(m.machine.id)) === 'open' ? 0 : 1);
  const order = (a: MachineStatus, b: MachineStatus) =>
    rank(a) - rank(b) || a.need.urgency - b.need.urgency || (a.machine.tag < b.machine.tag ? -1 : 1);
  return {
    site,
    today,
    revision,
    ownDusts: await loadOwnDusts(db),
    machines: [...machines].sort(order),
    retired: all.filter((m) => gone.has(m.machine.id)),
    gone,
    unreadable,
    openCases: await machinesWithOpenCase(db),
    openJobs,
  };
};

/** The state of every machine today, most urgent first. It is read again only after something was written, or on another day. */
export const loadYard = async ({ db, now }: Pick<Context, 'db' | 'now'>): Promise<Yard> => {
  const today = dayAt(now(), (await loadSite(db)).timeZone);
  const revision = await loadRevision(db);
  const known = held.get(db);
  if (known?.revision === revision && known.today === today) return known;
  const begun = reading.get(db);
  if (begun?.of.revision === revision && begun.of.today === today) return begun.yard;
  const of = { today, revision };
  const yard = readYard(db, of);
  reading.set(db, { of, yard });
  try {
    held.set(db, await yard);
    return await yard;
  } finally {
    if (reading.get(db)?.of === of) reading.delete(db);
  }
};

/** The yard, and the status of the machine with a tag, in any spelling. */
export const yardMachine = async (
  context: Pick<Context, 'db' | 'now'>,
  tag: string,
): Promise<{ readonly yard: Yard; readonly status: MachineStatus | undefined }> => {
  const yard = await loadYard(context);
  const wanted = tag.trim().toUpperCase();
  return { yard, status: [...yard.machines, ...yard.retired].find((m) => m.machine.tag.toUpperCase() === wanted) };
};

/** The tag that the machine has now which had this one once; null where none had. */
export const machineOnceTagged = ({ db }: Pick<Context, 'db'>, tag: string): Promise<string | null> => tagNow(db, tag);

/** The machine of a tag, kept or retired, however the tag is written; null where there is none. */
export const machineNamed = ({ db }: Pick<Context, 'db'>, tag: string): Promise<Machine | null> => findMachine(db, tag);
