import { PlainAnswer } from '@/contracts/action-answer';
import type { StartJobBody } from '@/contracts/job';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import { dayAt } from '@/core/calendar/calendar-date';
import type { Machine, MachineAirPath } from '@/core/machine/machine';
import { assemble } from '@/core/procedure/assemble';
import { type JobRecord, jobState } from '@/core/procedure/job-log';
import type { Procedure } from '@/core/procedure/step';
import { inForce } from '@/core/record/records';
import { freeToTake } from '@/core/stock/held';
import type { Db } from '../../db/connect';
import { loadChanges } from '../../repositories/changes';
import { insertJob, insertJobEvent, loadJobs, loadOpenJobs } from '../../repositories/jobs';
import { findMachine } from '../../repositories/machines';
import { loadSite } from '../../repositories/site';
import { loadParts, partOfStages } from '../../repositories/stock';
import { stateBefore } from '../yard/state-dust';
import { mayContain } from '../house/sign-in';
import { type Context, refuseAndKeep, runOnce } from '../yard/user-action';

/** A wrap is changed only right after a bag: the bag's change must be of the same day. */
const preconditions = async (
  tx: Db,
  machine: Machine,
  { procedure, now }: { readonly procedure: Procedure; readonly now: string },
): Promise<Result<true>> => {
  const { timeZone } = await loadSite(tx);
  const changes = inForce(await loadChanges(tx, timeZone, machine.id));
  const today = dayAt(now, timeZone);
  const wanting = procedure.before.find(
    (b) =>
      b.kind === 'afterChangeOf' &&
      !changes.some((c) => c.stageId === machine.stages[b.stage]?.id && c.performedOn === today),
  );
  return wanting?.kind === 'afterChangeOf'
    ? fail(failure('job.not-yet', 'job', { stage: machine.stages[wanting.stage]?.name ?? 'stage' }))
    : ok(true);
};

/** Every part the job will take must be on the shelf and not spoken for by another job. */
const partsReady = async (tx: Db, machine: MachineAirPath, procedure: Procedure): Promise<Result<true>> => {
  const wanted = procedure.steps
    .flatMap((s) => (s.moves === 'takeNew' && s.stage !== null ? [machine.stages[s.stage]?.part ?? null] : []))
    .filter((p) => p !== null);
  const free = freeToTake({ parts: await loadParts(tx), jobs: await loadOpenJobs(tx), partOf: await partOfStages(tx) });
  const short = wanted.find((p) => (free.get(p.id) ?? 0) < wanted.filter((w) => w.id === p.id).length);
  return short ? fail(failure('job.no-stock', 'partInHand', { part: short.name })) : ok(true);
};

export interface Opened {
  readonly machine: Machine;
  readonly record: JobRecord;
}

type Wanted = Omit<StartJobBody, 'clientId'>;

/** Opens a job inside a transaction: its dust first, one job at a time on a machine, its parts on the shelf. */
export const openJob = async (
  tx: Db,
  tag: string,
  { wanted, startedAt, person }: { readonly wanted: Wanted; readonly startedAt: string } & Pick<Context, 'person'>,
): Promise<Result<Opened> & { readonly keep?: true }> => {
  const found = await findMachine(tx, tag);
  if (!found) return fail(failure('machine.unknown', '', { tag }));
  const { by, reason, people } = wanted;
  const said = await stateBefore(tx, found, { statement: wanted.dust, by, at: startedAt });
  if (!said.ok) return said;
  const machine = said.value;
  const { hazard, lastCollected } = machine;
  const allowed = hazard === 'contained' ? await mayContain(tx, { person, by }) : ok(true);
  // A statement of its dust stays on the machine, also when the opening is refused.
  if (!allowed.ok) return refuseAndKeep(allowed);
  const running = (await loadJobs(tx, machine.id)).findLast((j) => jobState(j).ended === null);
  if (running) return fail(failure('job.open', '', { holder: jobState(running).holder }));
  const procedure = at('job', assemble(machine, wanted.job, hazard));
  if (!procedure.ok) return procedure;
  const ready = await preconditions(tx, machine, { procedure: procedure.value, now: startedAt });
  if (!ready.ok) return ready;
  const stocked = wanted.partInHand ? ok(true) : await partsReady(tx, machine, procedure.value);
  if (!stocked.ok) return stocked;
  const job = {
    machineId: machine.id,
    startedAt,
    by,
    hazard,
    lastCollected,
    reason,
    people,
    procedure: procedure.value,
    stages: machine.stages.map(({ id, name }) => ({ id, name })),
  };
  const id = await insertJob(tx, job);
  // The dust was asked before the start: that step is done already.
  const asked = { at: startedAt, by, event: { kind: 'did', step: 0 } } as const;
  const eventId = await insertJobEvent(tx, { jobId: id, ...asked });
  return ok({ machine, record: { ...job, id, events: [{ id: eventId, ...asked }] } });
};

/** Starts a guided change. */
export const startJob = async (
  { db, now, person }: Context,
  tag: string,
  body: StartJobBody,
): Promise<Result<{ readonly id: number }>> => {
  const startedAt = now();
  return runOnce(db, { kind: `start job ${tag}`, body, at: startedAt, answers: PlainAnswer }, async (tx) => {
    const opened = await openJob(tx, tag, { wanted: body, startedAt, person });
    return opened.ok ? ok({ id: opened.value.record.id }) : opened;
  });
};
