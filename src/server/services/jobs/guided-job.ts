import { PlainAnswer } from '@/contracts/action-answer';
import { type JobActionBody, OpenJobReply, type QuickJobBody } from '@/contracts/job';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { integrityStanding } from '@/core/machine/integrity';
import type { Machine } from '@/core/machine/machine';
import { onOneSheet } from '@/core/procedure/on-one-sheet';
import { provedBy } from '@/core/procedure/step';
import { type JobEvent, type JobRecord, jobState, refuseJobEvent } from '@/core/procedure/job-log';
import { inForce } from '@/core/record/records';
import type { Db } from '../../db/connect';
import { loadChanges } from '../../repositories/changes';
import { insertJobEvent, loadJobs } from '../../repositories/jobs';
import { findMachine } from '../../repositories/machines';
import { loadSite } from '../../repositories/site';
import { type Booking, bookCleared, bookGivenUp, bookStep, stageOfJob } from './job-booking';
import { openJob } from './start-job';
import { mayContain } from '../house/sign-in';
import { type Context, runOnce } from '../yard/user-action';

/** The job under way on a machine; `machine.unknown` for another tag. */
export const openJobOf = async ({ db, now }: Context, tag: string): Promise<Result<OpenJobReply>> => {
  const machine = await findMachine(db, tag);
  if (!machine) return fail(failure('machine.unknown', '', { tag }));
  const record = (await loadJobs(db, machine.id)).findLast((j) => jobState(j).ended === null) ?? null;
  const integrity = machine.stages.flatMap((s) => {
    const position = record ? record.stages.findIndex((x) => x.id === s.id) : -1;
    const due =
      (record && position >= 0 ? dueSince({ machine, record }, position) : null) ?? integrityStanding(machine, s);
    return due ? [{ stageId: s.id, ...due }] : [];
  });
  const { timeZone } = await loadSite(db);
  const changeIds = record
    ? inForce(await loadChanges(db, timeZone, machine.id))
        .filter((c) => c.jobId === record.id)
        .map((c) => c.id)
    : [];
  return ok(OpenJobReply.parse({ record, changeIds, now: now(), integrity }));
};

/** The tests a stage still needs since its seat was last closed in this job; null without any. */
const dueSince = ({ machine, record }: Pick<Booking, 'machine' | 'record'>, position: number) => {
  const stage = stageOfJob(record, machine, position);
  const closed = jobState(record).moves.findLast(
    (m) => m.stage === position && (m.move === 'fitNew' || m.move === 'putOldBack'),
  );
  return stage && closed ? integrityStanding(machine, { ...stage, openedAt: closed.at }) : null;
};

/** Every screening that is due must have been passed since the part went in, before its step is done. */
const untested = ({ machine, record }: Booking, step: number): Result<true> => {
  const s = jobState(record).steps[step];
  const proves = s && provedBy(s);
  const due = proves && s.stage !== null ? dueSince({ machine, record }, s.stage) : null;
  // The penetration test is somebody else's and takes days: the step waits for the screening, the class wording for the proof.
  const left = due?.due.filter((test) => proves?.includes(test)) ?? [];
  return left.length > 0 ? fail(failure('job.untested', 'event', { tests: left.join(',') })) : ok(true);
};

/** The pack in the hand is the one this stage takes, if its code was read. */
const wrongPack = (
  { machine, record }: Booking,
  { event, partCode }: Pick<JobActionBody, 'event' | 'partCode'>,
): Result<true> => {
  const step = event.kind === 'did' ? jobState(record).steps[event.step] : undefined;
  const stage = step?.moves === 'takeNew' ? stageOfJob(record, machine, step.stage) : null;
  if (!stage?.part || partCode === '' || partCode.toUpperCase() === stage.part.code.toUpperCase()) return ok(true);
  return fail(
    failure('part.wrong-for-stage', 'partCode', { stage: stage.name, fits: `${stage.part.name}, ${stage.part.code}` }),
  );
};

/** One action inside a transaction: whether it fits, what it moves, and its line in the log. */
const action = async (b: Booking, event: JobEvent, partCode: string): Promise<Result<JobRecord>> => {
  const why = refuseJobEvent(b.record, { by: b.by, event, at: b.at });
  if (why) return fail(failure('job.refused', 'event', { why }));
  const pack = wrongPack(b, { event, partCode });
  if (!pack.ok) return pack;
  if (event.kind === 'did') {
    const proven = untested(b, event.step);
    if (!proven.ok) return proven;
    await bookStep(b, jobState(b.record), event.step);
  }
  if (event.kind === 'abandoned') await bookGivenUp(b);
  if (event.kind === 'finished') await bookCleared(b, jobState(b.record));
  const logged = { at: b.at, by: b.by, event };
  const id = await insertJobEvent(b.tx, { jobId: b.record.id, ...logged });
  return ok({ ...b.record, events: [...b.record.events, { id, ...logged }] });
};

/** A clock that was set back does not turn the log round: a line is never older than the one before it. */
const notBefore = (record: JobRecord, now: string): string => {
  const last = record.events.at(-1)?.at ?? record.startedAt;
  return now < last ? last : now;
};

const findJob = async (
  tx: Db,
  tag: string,
  jobId: number,
): Promise<Result<{ readonly machine: Machine; readonly record: JobRecord }>> => {
  const machine = await findMachine(tx, tag);
  if (!machine) return fail(failure('machine.unknown', '', { tag }));
  const record = (await loadJobs(tx, machine.id)).find((j) => j.id === jobId);
  return record ? ok({ machine, record }) : fail(failure('job.unknown', 'jobId'));
};

/** Records one thing done in a job, with what it moves in stock and file, in one transaction. */
export const doInJob = async (
  { db, now, person }: Context,
  tag: string,
  body: JobActionBody,
): Promise<Result<{ readonly id: number }>> => {
  const moment = now();
  return runOnce(db, { kind: `job ${tag}`, body, at: moment, answers: PlainAnswer }, async (tx) => {
    const found = await findJob(tx, tag, body.jobId);
    if (!found.ok) return found;
    // A photo's line is written with its picture, never without one.
    if (body.event.kind === 'photo') return fail(failure('photo.unknown', 'event'));
    const allowed =
      found.value.record.hazard === 'contained' ? await mayContain(tx, { person, by: body.by }) : ok(true);
    if (!allowed.ok) return allowed;
    const at = notBefore(found.value.record, moment);
    const done = await action({ tx, ...found.value, at, by: body.by }, body.event, body.partCode);
    return done.ok ? ok({ id: done.value.events.at(-1)?.id ?? 0 }) : done;
  });
};

/** The steps of a whole sheet: ticked off where nothing is asked, answered one by one otherwise. */
const sheetEvents = (record: JobRecord, answers: QuickJobBody['answers']): Result<readonly JobEvent[]> => {
  const { steps, at } = jobState(record);
  const asked = steps.flatMap((s, step) =>
    step >= at && (s.check !== undefined || provedBy(s) !== null) ? [step] : [],
  );
  if (asked.length !== answers.length) return fail(failure('job.refused', 'answers', { why: 'unfinished' }));
  return ok(
    steps.flatMap((_, step): readonly JobEvent[] => {
      if (step < at) return [];
      const answer = answers[asked.indexOf(step)];
      if (!answer) return [{ kind: 'did', step }];
      if (answer.kind === 'leftOut') return [{ kind: 'leftOut', step, because: answer.because }];
      return steps[step]?.check === undefined
        ? [{ kind: 'did', step }]
        : [{ kind: 'answered', step, right: true, note: '' }];
    }),
  );
};

/** A whole change from one sheet, in one transaction: begun, every step, finished. A contained change is walked. */
export const quickJob = async (
  { db, now, person }: Context,
  tag: string,
  body: QuickJobBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `quick job ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const { by, job, dust, reason, partInHand } = body;
    const wanted = { by, job, dust, reason, partInHand, people: 1 } as const;
    const opened = await openJob(tx, tag, { wanted, startedAt: at, person });
    if (!opened.ok) return opened;
    const { hazard, procedure } = opened.value.record;
    if (!onOneSheet(procedure, hazard)) return fail(failure('job.walk-it', 'dust.text'));
    const events = sheetEvents(opened.value.record, body.answers);
    if (!events.ok) return events;
    let { record } = opened.value;
    for (const event of [...events.value, { kind: 'finished', wasteKg: body.wasteKg } as const]) {
      const done = await action({ tx, machine: opened.value.machine, record, at, by }, event, '');
      if (!done.ok) return done;
      record = done.value;
    }
    return ok({ id: record.id });
  });
};
