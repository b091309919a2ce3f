import { addDays, dayAt } from '@/core/calendar/calendar-date';
import { jobState } from '@/core/procedure/job-log';
import { inForce } from '@/core/record/records';
import { machineCost, type MachineCost } from '@/core/stock/cost';
import { loadChangesSince } from '../../repositories/changes';
import { grouped } from '../../repositories/grouped';
import { loadJobsEndedSince } from '../../repositories/jobs';
import { loadParts } from '../../repositories/stock';
import type { Context } from '../yard/user-action';
import type { Yard } from '../yard/yard';

const YEAR_DAYS = 365;

export interface MachineCostLine extends MachineCost {
  readonly tag: string;
  readonly name: string;
}

/** Parts of the last year by machine, the dearest first; hours and waste only of the days they are on record for. */
export const loadMachineCosts = async (
  { db }: Pick<Context, 'db'>,
  yard: Yard,
): Promise<readonly MachineCostLine[]> => {
  const yearAgo = addDays(yard.today, -YEAR_DAYS);
  const prices = new Map((await loadParts(db)).map((p) => [p.id, p.price]));
  const changes = inForce(await loadChangesSince(db, yard.site.timeZone, addDays(yearAgo, -1))).filter(
    (c) => c.performedOn >= yearAgo && c.partId !== null,
  );
  const jobs = grouped(await loadJobsEndedSince(db, addDays(yearAgo, -1)), (j) => j.machineId);
  const changed = grouped(changes, (c) => c.machineId);
  return yard.machines
    .map(({ machine }) => {
      const firstHour = machine.hours[0]?.day;
      const taken = (changed.get(machine.id) ?? []).map((c) => ({
        day: c.performedOn,
        quantity: c.quantity,
        price: prices.get(c.partId ?? 0) ?? 0,
      }));
      const ends = (jobs.get(machine.id) ?? []).flatMap((j) => jobState(j).ended ?? []);
      const wasteKg = ends
        .filter((e) => dayAt(e.at, yard.site.timeZone) >= yearAgo)
        .reduce((sum, { event: e }) => sum + (e.kind === 'finished' ? (e.wasteKg ?? 0) : 0), 0);
      const whole = machineCost({ taken, runHours: 0, wasteKg });
      // By run hour only over the time hours were written down.
      const timed = firstHour === undefined ? [] : taken.filter((t) => t.day >= firstHour);
      const { perRunHour } = machineCost({
        taken: timed,
        runHours: machine.hours.reduce((sum, h) => sum + (h.day >= yearAgo ? h.hours : 0), 0),
        wasteKg: 0,
      });
      return { tag: machine.tag, name: machine.name, ...whole, perRunHour };
    })
    .sort((a, b) => b.parts - a.parts);
};
