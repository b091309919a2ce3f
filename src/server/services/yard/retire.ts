import { PlainAnswer } from '@/contracts/action-answer';
import type { RetireBody } from '@/contracts/machine-edit';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { dayAt } from '@/core/calendar/calendar-date';
import { jobState } from '@/core/procedure/job-log';
import { machinesWithOpenCase } from '../../repositories/cases';
import { loadOpenJobs } from '../../repositories/jobs';
import { findMachine, machineIdOf } from '../../repositories/machines';
import { type Gone, insertRetirement, loadGone } from '../../repositories/retirements';
import { loadSite } from '../../repositories/site';
import { type Context, runOnce } from './user-action';

/** What became of a machine that is no longer kept; null for one that is kept, or is not there. */
export const goneOf = async ({ db }: Pick<Context, 'db'>, tag: string): Promise<Gone | null> => {
  const id = await machineIdOf(db, tag);
  return id === null ? null : ((await loadGone(db)).get(id) ?? null);
};

/** Retires a machine, notes it as sold, or brings it back. Its records stay. Refused while a job is open. */
export const retireMachine = async (
  { db, now }: Context,
  tag: string,
  body: RetireBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `retire ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const machineId = machine.id;
    const gone = (await loadGone(tx)).has(machineId);
    if (gone === (body.how !== 'back')) return fail(failure('edit.nothing'));
    const job = (await loadOpenJobs(tx)).find((j) => j.machineId === machineId);
    if (job) return fail(failure('job.open', '', { holder: jobState(job).holder }));
    if ((await machinesWithOpenCase(tx)).has(machineId)) return fail(failure('case.open'));
    // The dust inside goes with the machine: its receiver must know.
    if (body.how !== 'back' && machine.hazard !== 'plain' && body.note === '')
      return fail(failure('retire.state', 'note', { level: machine.hazard }));
    const on = dayAt(at, (await loadSite(tx)).timeZone);
    return ok({ id: await insertRetirement(tx, { machineId, on, how: body.how, at, by: body.by, note: body.note }) });
  });
};
