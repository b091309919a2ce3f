import { HOUR_MS } from '../calendar/time';
import type { ChangeReason } from '../record/records';
import type { DustHazard } from '../dust/level';
import {
  type OpenedPart,
  type PartMove,
  type Procedure,
  PROOF_CHECKS,
  provedBy,
  type RunState,
  type Step,
} from './step';

/** One thing done in a job. A job is its events; nothing in it is ever overwritten. */
export type JobEvent =
  | { readonly kind: 'did'; readonly step: number }
  | { readonly kind: 'answered'; readonly step: number; readonly right: boolean; readonly note: string }
  /** A check or a test left out, with its reason. */
  | { readonly kind: 'leftOut'; readonly step: number; readonly because: string }
  /** Back to an earlier step: the later steps are done again. */
  | { readonly kind: 'back'; readonly step: number }
  /** The new part proved nothing: the old one, which was held, goes back in. */
  | { readonly kind: 'turnedBack'; readonly step: number }
  | { readonly kind: 'photo'; readonly step: number; readonly photoId: number }
  | { readonly kind: 'tookOver' }
  /** With what went to waste, if it was weighed, kg. */
  | { readonly kind: 'finished'; readonly wasteKg: number | null }
  | { readonly kind: 'abandoned'; readonly because: string };

export interface LoggedJobEvent {
  readonly id: number;
  readonly at: string;
  readonly by: string;
  readonly event: JobEvent;
}

export interface JobRecord {
  readonly id: number;
  readonly machineId: number;
  readonly startedAt: string;
  readonly by: string;
  readonly lastCollected: string;
  readonly hazard: DustHazard;
  /** Why it is done. */
  readonly reason: ChangeReason;
  /** Two people: one keeps clean hands. */
  readonly people: 1 | 2;
  /** The procedure assembled at the start: a later edit of the machine does not change a running job. */
  readonly procedure: Procedure;
  /** The stages its steps name, by position at the start. */
  readonly stages: readonly { readonly id: number; readonly name: string }[];
  readonly events: readonly LoggedJobEvent[];
}

/** A movement of a stage's part. */
export interface MovedPart {
  readonly move: PartMove;
  readonly stage: number | null;
  /** When, UTC ISO. */
  readonly at: string;
}

export interface JobState {
  /** The steps that are walked: another end of them once it was turned back. */
  readonly steps: readonly Step[];
  /** Number of the step that is next, from 0; the number of steps when all are done. */
  readonly at: number;
  /** Open places, the last opened last. */
  readonly open: readonly OpenedPart[];
  readonly run: RunState;
  /** Movements of parts, in order. */
  readonly moves: readonly MovedPart[];
  /** Checks that were left out, by step, with the reason. */
  readonly leftOut: ReadonlyMap<number, string>;
  /** The step whose check was answered "not right" and is still wrong; null otherwise. */
  readonly wrong: number | null;
  /** The step at which the old part went back in; null when it did not. */
  readonly turnedAt: number | null;
  /** Wet until this moment, UTC ISO: out of service. null when nothing dries. */
  readonly driesUntil: string | null;
  /** Who has it in hand. */
  readonly holder: string;
  readonly ended: LoggedJobEvent | null;
}

interface Cursor {
  readonly at: number;
  /** When each completed step was done. */
  readonly doneAt: readonly string[];
  readonly leftOut: ReadonlyMap<number, string>;
  readonly wrong: number | null;
  readonly turnedAt: number | null;
  readonly holder: string;
  readonly ended: LoggedJobEvent | null;
}

const onward = (c: Cursor, step: number, at: string): Cursor => ({
  ...c,
  at: step + 1,
  wrong: null,
  doneAt: [...c.doneAt.slice(0, step), at],
});

const next = (c: Cursor, logged: LoggedJobEvent): Cursor => {
  const { event, by, at } = logged;
  switch (event.kind) {
    case 'did':
      return onward(c, event.step, at);
    case 'answered':
      // "Not right" keeps the step: it is put right and asked again.
      return event.right ? onward(c, event.step, at) : { ...c, at: event.step, wrong: event.step };
    case 'leftOut':
      return { ...onward(c, event.step, at), leftOut: new Map([...c.leftOut, [event.step, event.because]]) };
    case 'back':
      return {
        ...c,
        at: event.step,
        wrong: null,
        doneAt: c.doneAt.slice(0, event.step),
        leftOut: new Map([...c.leftOut].filter(([step]) => step < event.step)),
      };
    case 'turnedBack':
      return { ...c, at: event.step, wrong: null, turnedAt: event.step };
    case 'photo':
      return c;
    case 'tookOver':
      return { ...c, holder: by };
    case 'finished':
    case 'abandoned':
      return { ...c, ended: logged };
  }
};

const walked = (steps: readonly Step[], doneAt: readonly string[]): Pick<JobState, 'open' | 'run' | 'moves'> => {
  const open: OpenedPart[] = [];
  const moves: MovedPart[] = [];
  let run: RunState = 'off';
  doneAt.forEach((at, i) => {
    const s = steps[i];
    if (!s) return;
    if (s.closes !== undefined) open.splice(open.lastIndexOf(s.closes), 1);
    if (s.opens !== undefined) open.push(s.opens);
    if (s.moves !== undefined) moves.push({ move: s.moves, stage: s.stage, at });
    run = s.run;
  });
  return { open, run, moves };
};

/** From the moment it was hung up until its check is answered. */
const drying = ({ driesHours }: Procedure, steps: readonly Step[], { at, doneAt }: Cursor): string | null => {
  const hung = steps.findIndex((s) => s.key === 'startDrying');
  const since = doneAt[hung];
  const asked = steps.findIndex((s, i) => i > hung && s.check === 'dry');
  return hung < 0 || since === undefined || driesHours === null || at > asked
    ? null
    : new Date(Date.parse(since) + driesHours * HOUR_MS).toISOString();
};

/** The state of a job, folded from its events. Definition: the log itself. */
export const jobState = ({ by, procedure, events }: JobRecord): JobState => {
  const { doneAt, ...cursor } = events.reduce<Cursor>(next, {
    at: 0,
    doneAt: [],
    leftOut: new Map(),
    wrong: null,
    turnedAt: null,
    holder: by,
    ended: null,
  });
  const steps =
    cursor.turnedAt === null ? procedure.steps : [...procedure.steps.slice(0, cursor.turnedAt), ...procedure.turnBack];
  return { ...cursor, steps, ...walked(steps, doneAt), driesUntil: drying(procedure, steps, { ...cursor, doneAt }) };
};

/** Whether the machine is open under a job, or dries: nobody else may run it. */
export const doNotRun = (state: JobState): boolean =>
  state.ended === null && (state.driesUntil !== null || state.open.some((o) => o !== 'inlet'));

/** Whether a job keeps the machine from its work: it may run, its wet part dries, or it is open in somebody's hands. */
export type JobHold = 'mayRun' | 'drying' | 'open';

/** The hold of the job on a machine; a machine without a job may run. */
export const holdOf = (job: JobState | undefined): JobHold => {
  if (!job || !doNotRun(job)) return 'mayRun';
  return job.driesUntil === null ? 'open' : 'drying';
};

/** Why a action does not fit a job now. */
export type JobRefusal =
  | 'ended'
  | 'notHolder'
  | 'notNext'
  | 'isCheck'
  | 'noCheck'
  | 'notBack'
  | 'noTurn'
  | 'wet'
  | 'unfinished'
  | 'openStill'
  | 'partOut';

/** Stages with a new or old part that is not accounted for. */
const partsOut = (moves: readonly MovedPart[]): boolean =>
  [...new Set(moves.map((m) => m.stage))].some((stage) => {
    const has = (...which: readonly PartMove[]) => moves.some((m) => m.stage === stage && which.includes(m.move));
    const newOne = has('putOldBack') ? has('returnNew') : has('fitNew', 'returnNew');
    return (has('takeNew') && !newOne) || (has('bagOld', 'holdOld') && !has('disposeOld', 'putOldBack'));
  });

/** Going back past the turn would undo work already done by hand: it is refused. */
const refuseBack = (step: number, { at, turnedAt }: JobState): JobRefusal | null =>
  step >= (turnedAt ?? 0) && step < at ? null : 'notBack';

const refuseStep = (
  event: Extract<JobEvent, { step: number }>,
  now: string,
  { record, state }: { readonly record: JobRecord; readonly state: JobState },
): JobRefusal | null => {
  if (event.kind === 'back') return refuseBack(event.step, state);
  const step = state.steps[event.step];
  if (event.kind === 'photo') return step ? null : 'notNext';
  if (!step || event.step !== state.at) return 'notNext';
  if (event.kind === 'turnedBack')
    return step.check !== undefined &&
      PROOF_CHECKS.has(step.check) &&
      record.procedure.turnBack.length > 0 &&
      state.turnedAt === null
      ? null
      : 'noTurn';
  if (event.kind === 'did') return step.check === undefined ? null : 'isCheck';
  if (event.kind === 'leftOut' && provedBy(step) !== null) return null;
  if (step.check === undefined) return 'noCheck';
  // Before its time is up a wet medium is not dry; who knows better says why.
  return event.kind === 'answered' &&
    event.right &&
    step.check === 'dry' &&
    state.driesUntil !== null &&
    now < state.driesUntil
    ? 'wet'
    : null;
};

/**
 * Refuses an action that does not fit the job: steps in their order, checks answered or left out with a reason, the end
 * only when all is done, closed and every part is accounted for. null when it fits. Source: common practice, no
 * published source.
 */
export const refuseJobEvent = (record: JobRecord, { by, event, at }: Omit<LoggedJobEvent, 'id'>): JobRefusal | null => {
  const state = jobState(record);
  if (state.ended) return 'ended';
  if (event.kind === 'tookOver') return null;
  if (by !== state.holder) return 'notHolder';
  if (event.kind === 'abandoned') return state.open.length > 0 || state.driesUntil !== null ? 'openStill' : null;
  if (event.kind !== 'finished') return refuseStep(event, at, { record, state });
  if (state.at < state.steps.length) return 'unfinished';
  if (state.open.length > 0) return 'openStill';
  return partsOut(state.moves) ? 'partOut' : null;
};

/** The stages whose change a step makes true: where the old part was held, once it is let go; otherwise as the new one goes in. */
export const changeMadeBy = (
  steps: readonly Step[],
  index: number,
  turned: boolean,
): { readonly stage: number; readonly withPart: boolean; readonly fitStep: number } | null => {
  const s = steps[index];
  if (!s || s.stage === null || s.moves === undefined || turned) return null;
  const held = steps.some((x) => x.stage === s.stage && x.moves === 'holdOld');
  if (s.moves === 'putOldBack') return { stage: s.stage, withPart: false, fitStep: index };
  if (held ? s.moves !== 'disposeOld' : s.moves !== 'fitNew') return null;
  const fitStep = steps.findIndex((x) => x.stage === s.stage && x.moves === 'fitNew');
  return fitStep < 0 ? null : { stage: s.stage, withPart: true, fitStep };
};
