import { type JobDeedBody, OpenJobReply, type StartJobBody } from '@/contracts/job';
import { hazardGate } from '@/core/diagnose/hazard-gate';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import { dayAt } from '@/core/interval/calendar-date';
import type { Machine, Stage } from '@/core/machine/machine';
import { assemble } from '@/core/procedure/assemble';
import { type JobRecord, jobState, refuseJobEvent } from '@/core/procedure/job-log';
import type { PartMove, Procedure } from '@/core/procedure/step';
import { standing } from '@/core/record/records';
import type { Db } from '../db/connect';
import { insertChange, loadChanges } from '../repositories/changes';
import { insertJob, insertJobEvent, loadJobs } from '../repositories/jobs';
import { findMachine } from '../repositories/machines';
import { loadSite } from '../repositories/site';
import { insertMovement } from '../repositories/stock';
import { type Context, runOnce } from './user-action';

const unended = (jobs: readonly JobRecord[]): JobRecord | null => jobs.findLast((j) => jobState(j).ended === null) ?? null;

/** A wrap is changed only right after a bag: the bag's change must be of the same day. */
const preconditions = async (tx: Db, machine: Machine, { procedure, now }: { readonly procedure: Procedure; readonly now: string }): Promise<Result<true>> => {
  const { timeZone } = await loadSite(tx);
  const changes = standing(await loadChanges(tx, timeZone, machine.id));
  const today = dayAt(now, timeZone);
  const wanting = procedure.before.find((b) => b.kind === 'afterChangeOf' && !changes.some((c) => c.stageId === machine.stages[b.stage]?.id && c.performedOn === today));
  return wanting?.kind === 'afterChangeOf' ? fail(failure('job.not-yet', 'job', { stage: machine.stages[wanting.stage]?.name ?? 'stage' })) : ok(true);
};

/** Starts a guided change: the hazard first, one job at a time on a machine, the steps as they are assembled now. */
export const startJob = async ({ db, now }: Context, tag: string, body: StartJobBody): Promise<Result<{ readonly id: number }>> => {
  const startedAt = now();
  return runOnce(db, { kind: `start job ${tag}`, body, at: startedAt }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const gate = hazardGate(body.lastCollected);
    if (!gate.ok) return gate;
    const running = unended(await loadJobs(tx, machine.id));
    if (running) return fail(failure('job.open', '', { holder: jobState(running).holder }));
    const procedure = at('job', assemble(machine, body.job, body.hazard));
    if (!procedure.ok) return procedure;
    const ready = await preconditions(tx, machine, { procedure: procedure.value, now: startedAt });
    if (!ready.ok) return ready;
    const { by, hazard, lastCollected } = body;
    return ok({ id: await insertJob(tx, { machineId: machine.id, startedAt, by, hazard, lastCollected, procedure: procedure.value }) });
  });
};

/** The job under way on a machine; `machine.unknown` for another tag. */
export const openJobOf = async ({ db }: Pick<Context, 'db'>, tag: string): Promise<Result<OpenJobReply>> => {
  const machine = await findMachine(db, tag);
  if (!machine) return fail(failure('machine.unknown', '', { tag }));
  return ok(OpenJobReply.parse({ record: unended(await loadJobs(db, machine.id)) }));
};

interface Booking {
  readonly tx: Db;
  readonly machine: Machine;
  readonly record: JobRecord;
  readonly at: string;
  readonly by: string;
}

const stageOfJob = ({ machine, record }: Booking): Stage | null => (record.procedure.stage === null ? null : (machine.stages[record.procedure.stage] ?? null));

/** What a step moves on the shelf; a step done again after "back" moves nothing twice. */
const bookMove = async (b: Booking, move: PartMove): Promise<void> => {
  const part = stageOfJob(b)?.part;
  if (!part || (move !== 'takeNew' && move !== 'returnNew')) return;
  const before = b.record.events.some(({ event }) => event.kind === 'did' && b.record.procedure.steps[event.step]?.moves === move);
  if (before) return;
  await insertMovement(b.tx, { partId: part.id, quantity: move === 'takeNew' ? -1 : 1, reason: move === 'takeNew' ? 'taken' : 'returned', at: b.at, by: b.by, changeId: null, note: `job ${b.record.id}` });
};

/** A finished change goes into the file; a part that was taken and never fitted goes back to the shelf. */
const bookEnd = async (b: Booking, how: 'finished' | 'abandoned'): Promise<void> => {
  const stage = stageOfJob(b);
  const { moves, leftOut } = jobState(b.record);
  if (!stage) return;
  if (how === 'abandoned') {
    if (stage.part && moves.includes('takeNew') && !moves.includes('fitNew')) await insertMovement(b.tx, { partId: stage.part.id, quantity: 1, reason: 'returned', at: b.at, by: b.by, changeId: null, note: `job ${b.record.id} given up` });
    return;
  }
  if (!moves.includes('fitNew') && !moves.includes('putOldBack')) return;
  const fitted = stage.part && moves.includes('fitNew') ? stage.part : null;
  const unseen = leftOut.size === 0 ? '' : ` Left out: ${[...leftOut.values()].join('; ')}.`;
  await insertChange(b.tx, {
    machineId: b.machine.id,
    stageId: stage.id,
    performedAt: b.at,
    recordedAt: b.at,
    by: b.by,
    note: `Guided, job ${b.record.id}.${unseen}`,
    reason: 'precaution',
    partId: fitted?.id ?? null,
    quantity: fitted ? 1 : 0,
    beforeTestId: null,
    supersedes: null,
  });
};

/** Records one thing done in a job, with what it moves in stock and file, in one transaction. */
export const doInJob = async ({ db, now }: Context, tag: string, body: JobDeedBody): Promise<Result<{ readonly id: number }>> => {
  const moment = now();
  return runOnce(db, { kind: `job ${tag}`, body, at: moment }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const record = (await loadJobs(tx, machine.id)).find((j) => j.id === body.jobId);
    if (!record) return fail(failure('job.unknown', 'jobId'));
    const { by, event } = body;
    const why = refuseJobEvent(record, { by, event });
    if (why) return fail(failure('job.refused', 'event', { why }));
    const booking: Booking = { tx, machine, record, at: moment, by };
    const move = event.kind === 'did' ? record.procedure.steps[event.step]?.moves : undefined;
    if (move) await bookMove(booking, move);
    if (event.kind === 'finished' || event.kind === 'abandoned') await bookEnd(booking, event.kind);
    return ok({ id: await insertJobEvent(tx, { jobId: record.id, at: moment, by, event }) });
  });
};
