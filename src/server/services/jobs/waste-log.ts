import { dayAt } from '@/core/calendar/calendar-date';
import type { Machine } from '@/core/machine/machine';
import { jobState } from '@/core/procedure/job-log';
import { loadChanges } from '../../repositories/changes';
import { loadJobs } from '../../repositories/jobs';
import type { Context } from '../yard/user-action';
import { loadYard, type Yard } from '../yard/yard';

/** A part that came out of a machine, and its fate as far as recorded. */
export interface WasteLine {
  readonly day: string;
  readonly machine: Machine;
  readonly stage: string;
  readonly pieces: number;
  /** Weighed at the end of the job, kg; null when not weighed. */
  readonly wasteKg: number | null;
  readonly by: string;
  /** Containment of an unguided change; null for a guided one. */
  readonly how: string | null;
}

/** Parts that were replaced between two days, newest first; corrected and withdrawn records left out. */
export const wasteLog = async (
  context: Pick<Context, 'db' | 'now'>,
  { from, to }: { readonly from: string; readonly to: string },
): Promise<{ readonly yard: Yard; readonly lines: readonly WasteLine[] }> => {
  const yard = await loadYard(context);
  const { timeZone } = yard.site;
  const machines = new Map([...yard.machines, ...yard.retired].map(({ machine: m }) => [m.id, m]));
  const weighed = new Map<number, number | null>();
  const said = new Set<number>();
  for (const job of await loadJobs(context.db)) {
    const { events } = job;
    const end = events.find((e) => e.event.kind === 'finished')?.event;
    weighed.set(job.id, end?.kind === 'finished' ? end.wasteKg : null);
    if (!jobState(job).ended) weighed.delete(job.id);
  }
  const lines = (await loadChanges(context.db, timeZone))
    .filter((c) => c.supersededById === null && !c.voided && c.partId !== null)
    .flatMap((c): readonly WasteLine[] => {
      const machine = machines.get(c.machineId);
      const day = dayAt(c.performedAt, timeZone);
      if (!machine || day < from || day > to) return [];
      const stage = [...machine.stages, ...machine.retired].find((s) => s.id === c.stageId)?.name ?? '';
      // One weighing covers the whole job: it is on its first part.
      const wasteKg = c.jobId === null || said.has(c.jobId) ? null : (weighed.get(c.jobId) ?? null);
      if (c.jobId !== null) said.add(c.jobId);
      const how = c.jobId === null ? (c.how?.how ?? '') : null;
      return [{ day, machine, stage, pieces: c.quantity, wasteKg, by: c.by, how }];
    });
  return { yard, lines: [...lines].reverse() };
};
