import { isAsFound } from '@/core/record/as-found';
import { inForce } from '@/core/record/records';
import type { Machine, Stage } from '@/core/machine/machine';
import { changeMadeBy, type JobRecord, type JobState, jobState } from '@/core/procedure/job-log';
import type { Step } from '@/core/procedure/step';
import { isSeries } from '@/core/record/series';
import { dayAt } from '@/core/calendar/calendar-date';
import type { Db } from '../db/connect';
import { insertChange, loadChanges } from '../repositories/changes';
import { integrityTestsOf } from '@/core/machine/integrity';
import { insertDecontamination } from '../repositories/dusts';
import { startTimers } from '../repositories/machine-edits';
import { insertSeatOpening } from '../repositories/proofs';
import { loadSite } from '../repositories/site';
import { insertMovement } from '../repositories/stock';
import { loadTests } from '../repositories/tests';

/** What a action of a job moves in stock and file. */
export interface Booking {
  readonly tx: Db;
  readonly machine: Machine;
  readonly record: JobRecord;
  readonly at: string;
  readonly by: string;
}

/** A stage as the job knows it: by its number, wherever an edit of the path has put it since. */
export const stageOfJob = (record: JobRecord, machine: Machine, position: number | null): Stage | null => {
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
  { quantity, note }: { readonly quantity: 1 | -1; readonly note: string },
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

const OPENS_SEAT: ReadonlySet<NonNullable<Step['moves']>> = new Set<NonNullable<Step['moves']>>([
  'bagOld',
  'holdOld',
  'fitNew',
  'putOldBack',
]);

/** What a step moves: the shelf, the file, the timers of a new machine. A step done again after "back" moves nothing twice. */
export const bookStep = async (b: Booking, state: JobState, index: number): Promise<void> => {
  const step: Step | undefined = state.steps[index];
  if (!step || doneBefore(b, state, index)) return;
  const stage = stageOfJob(b.record, b.machine, step.stage);
  if (step.moves === 'takeNew') await move(b, stage, { quantity: -1, note: '' });
  if (step.moves === 'returnNew') await move(b, stage, { quantity: 1, note: 'proved nothing, opened' });
  // Whatever opens the seat that carries a class has it proven anew, a part put back too.
  if (stage && step.moves !== undefined && OPENS_SEAT.has(step.moves) && integrityTestsOf(b.machine, stage).length > 0)
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
  const { moves } = jobState(b.record);
  for (const { stage } of moves.filter((m) => m.move === 'takeNew')) {
    if (moves.some((m) => m.stage === stage && (m.move === 'fitNew' || m.move === 'returnNew'))) continue;
    await move(b, stageOfJob(b.record, b.machine, stage), { quantity: 1, note: 'given up' });
  }
};

/** A decontamination walked to its end with nothing left out but its proof clears the machine's dust. */
export const bookCleared = async (b: Booking, state: JobState): Promise<void> => {
  if (b.record.procedure.id !== 'decontamination') return;
  if ([...state.leftOut.keys()].some((i) => state.steps[i]?.key !== 'integrityTest')) return;
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
