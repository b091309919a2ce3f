import { entails } from '@/core/deed/entails';
import { isAsFound } from '@/core/record/as-found';
import { inForce } from '@/core/record/records';
import type { Machine, Stage, MachineAirPath } from '@/core/machine/machine';
import { changeMadeBy, type JobRecord, type JobState, jobState } from '@/core/procedure/job-log';
import type { Step } from '@/core/procedure/step';
import { isSeries } from '@/core/record/series';
import { dayAt } from '@/core/calendar/calendar-date';
import type { Db } from '../../db/connect';
import { insertChange, loadChanges } from '../../repositories/changes';
import { insertDecontamination } from '../../repositories/dusts';
import { startTimers } from '../../repositories/machine-edits';
import { insertSeatOpening } from '../../repositories/proofs';
import { loadSite } from '../../repositories/site';
import { insertMovement } from '../../repositories/stock';
import { loadTests } from '../../repositories/tests';

/** Everything a job action needs to book stock movements and records. */
export interface Booking {
  readonly tx: Db;
  readonly machine: Machine;
  readonly record: JobRecord;
  readonly at: string;
  readonly by: string;
}

/** A stage as the job knows it: by its number, wherever an edit of the path has put it since. */
export const stageOfJob = (record: JobRecord, machine: MachineAirPath, position: number | null): Stage | null => {
  if (position === null) return null;
  const known = record.stages[position];
  return known ? (machine.stages.find((s) => s.id === known.id) ?? null) : (machine.stages[position] ?? null);
};

/** The newest usable test that shows the machine as found. */
const measuredBefore = async ({ tx, record }: Booking): Promise<number | null> => {
  const tests = inForce(await loadTests(tx, record.machineId)).filter(
    (t) => isSeries(t) && t.test.failedPreconditions.length === 0,
  );
  return tests.filter((t) => isAsFound({ testAt: t.performedAt, workAt: record.startedAt })).at(-1)?.id ?? null;
};

const move = (
  b: Booking,
  stage: Stage | null,
  { quantity, note }: { readonly quantity: number; readonly note: string },
): Promise<void> | null =>
  stage?.part
    ? insertMovement(b.tx, {
        partId: stage.part.id,
        quantity,
        reason: quantity < 0 ? 'taken' : 'returned',
        at: b.at,
        by: b.by,
        of: { kind: 'job', id: b.record.id },
        note,
      })
    : null;

const doneBefore = ({ record }: Booking, { turnedAt }: JobState, step: number): boolean => {
  const turn = record.events.findIndex((e) => e.event.kind === 'turnedBack');
  const track = turnedAt === null ? record.events : record.events.slice(turn + 1);
  return track.some(({ event }) => event.kind === 'did' && event.step === step);
};

const bookChange = async (
  b: Booking,
  made: NonNullable<ReturnType<typeof changeMadeBy>>,
  fittedAt: string,
): Promise<void> => {
  const stage = stageOfJob(b.record, b.machine, made.stage);
  if (!stage) return;
  const part = made.withPart ? stage.part : null;
  await insertChange(b.tx, {
    machineId: b.machine.id,
    stageId: stage.id,
    performedAt: fittedAt,
    recordedAt: b.at,
    by: b.by,
    note: `Guided, job ${b.record.id}.`,
    reason: b.record.reason,
    partId: part?.id ?? null,
    quantity: part ? 1 : 0,
    beforeTestId: await measuredBefore(b),
    jobId: b.record.id,
    supersedes: null,
  });
};

/**
 * Books the effects of a step: stock, file, the timers of a new machine. A step done again after "back" books nothing
 * twice.
 */
export const bookStep = async (b: Booking, state: JobState, index: number): Promise<void> => {
  const step: Step | undefined = state.steps[index];
  if (!step || doneBefore(b, state, index)) return;
  const stage = stageOfJob(b.record, b.machine, step.stage);
  const position = stage ? b.machine.stages.indexOf(stage) : null;
  // A stage that was taken out of the path since has no seat and no shelf.
  const done = entails(b.machine, { kind: 'step', step: { ...step, stage: position } });
  for (const { quantity } of done.stock)
    await move(b, stage, { quantity, note: quantity > 0 ? 'proved nothing, opened' : '' });
  if (stage && done.suspends.length > 0)
    await insertSeatOpening(b.tx, { stageId: stage.id, why: `job ${b.record.id}`, at: b.at, by: b.by });
  const made = changeMadeBy(state.steps, index, state.turnedAt !== null && index >= state.turnedAt);
  if (made)
    await bookChange(b, made, state.moves.find((m) => m.stage === made.stage && m.move === 'fitNew')?.at ?? b.at);
  if (step.key === 'startTimer') {
    const { timeZone } = await loadSite(b.tx);
    const changed = new Set(inForce(await loadChanges(b.tx, timeZone, b.machine.id)).map((c) => c.stageId));
    await startTimers(
      b.tx,
      b.machine.stages.filter((s) => !changed.has(s.id)).map((s) => s.id),
      dayAt(b.at, timeZone),
    );
  }
};

/** A job that is given up: what was taken and never fitted goes back to the shelf. */
export const bookGivenUp = async (b: Booking): Promise<void> => {
  for (const { stage, quantity } of entails(b.machine, { kind: 'givenUp', state: jobState(b.record) }).stock)
    await move(b, stageOfJob(b.record, b.machine, stage), { quantity, note: 'given up' });
};

/** A decontamination walked to its end with nothing left out clears the machine's dust. */
export const bookCleared = async (b: Booking, state: JobState): Promise<void> => {
  if (!entails(b.machine, { kind: 'finished', procedure: b.record.procedure, state }).clears) return;
  const { timeZone } = await loadSite(b.tx);
  await insertDecontamination(b.tx, b.machine.id, {
    at: b.at,
    on: dayAt(b.at, timeZone),
    by: b.by,
    how: 'job',
    paper: '',
    jobId: b.record.id,
  });
};
