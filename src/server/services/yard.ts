import type { Dust } from '@/core/dust/dust';
import { type CalendarDate, dayAt } from '@/core/calendar/calendar-date';
import { doNotRun, type JobState, jobState } from '@/core/procedure/job-log';
import { type MachineStatus, machineStatus } from '@/core/status/machine-status';
import { machinesWithOpenCase } from '../repositories/cases';
import { loadChanges } from '../repositories/changes';
import { loadOwnDusts } from '../repositories/dusts';
import { grouped } from '../repositories/grouped';
import { loadOpenJobs } from '../repositories/jobs';
import { loadMachines } from '../repositories/machines';
import { loadSite, type Site } from '../repositories/site';
import { loadTests } from '../repositories/tests';
import type { Context } from './user-action';

export interface Yard {
  readonly site: Site;
  readonly today: CalendarDate;
  /** The site's own entries of the register of dusts. */
  readonly ownDusts: readonly Dust[];
  /** Most urgent first. */
  readonly machines: readonly MachineStatus[];
  /** Machines on which somebody is looking for a fault. */
  readonly openCases: ReadonlySet<number>;
  /** The guided job under way on a machine, by its number. */
  readonly openJobs: ReadonlyMap<number, JobState>;
}

const byMachine = <T extends { readonly machineId: number }>(records: readonly T[]) =>
  grouped(records, (r) => r.machineId);

/** The state of every machine today, most urgent first. */
export const loadYard = async ({ db, now }: Context): Promise<Yard> => {
  const site = await loadSite(db);
  const today = dayAt(now(), site.timeZone);
  const tests = byMachine(await loadTests(db));
  const changes = byMachine(await loadChanges(db, site.timeZone));
  const machines = (await loadMachines(db)).map((machine) =>
    machineStatus({
      machine,
      tests: tests.get(machine.id) ?? [],
      changes: changes.get(machine.id) ?? [],
      thresholds: site.thresholds,
      today,
    }),
  );
  const openJobs = new Map((await loadOpenJobs(db)).map((j) => [j.machineId, jobState(j)]));
  // What stands open comes first: somebody is in the middle of it, and nobody may run it.
  const stands = (m: MachineStatus): number => {
    const job = openJobs.get(m.machine.id);
    return job && doNotRun(job) && job.driesUntil === null ? 0 : 1;
  };
  const order = (a: MachineStatus, b: MachineStatus) =>
    stands(a) - stands(b) || a.need.urgency - b.need.urgency || (a.machine.tag < b.machine.tag ? -1 : 1);
  return {
    site,
    today,
    ownDusts: await loadOwnDusts(db),
    machines: [...machines].sort(order),
    openCases: await machinesWithOpenCase(db),
    openJobs,
  };
};
