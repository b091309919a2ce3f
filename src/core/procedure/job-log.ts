import type { Opening, PartMove, Procedure, RunState, Step } from './step';

/** One thing done in a job. A job is its events; nothing in it is ever overwritten. */
export type JobEvent =
  | { readonly kind: 'did'; readonly step: number }
  | { readonly kind: 'answered'; readonly step: number; readonly right: boolean; readonly note: string }
  /** A check left out, with its reason. */
  | { readonly kind: 'leftOut'; readonly step: number; readonly because: string }
  /** Back to an earlier step: what was done from there on is done again. */
  | { readonly kind: 'back'; readonly step: number }
  | { readonly kind: 'tookOver' }
  | { readonly kind: 'finished' }
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
  readonly hazard: 'plain' | 'controlled' | 'contained';
  /** As it was assembled at the start: a later edit of the machine does not change a job under way. */
  readonly procedure: Procedure;
  readonly events: readonly LoggedJobEvent[];
}

export interface JobState {
  /** Number of the step that is next, from 0; the number of steps when all are done. */
  readonly at: number;
  /** What stands open, the last opened last. */
  readonly open: readonly Opening[];
  readonly run: RunState;
  /** What has happened to parts, in order. */
  readonly moves: readonly PartMove[];
  /** Checks that were left out, by step, with the reason. */
  readonly leftOut: ReadonlyMap<number, string>;
  /** The step whose check was answered "not right" and waits to be put right; null otherwise. */
  readonly wrong: number | null;
  /** Who has it in hand. */
  readonly holder: string;
  readonly ended: LoggedJobEvent | null;
}

const done = (steps: readonly Step[], count: number): Pick<JobState, 'open' | 'run' | 'moves'> => {
  const open: Opening[] = [];
  const moves: PartMove[] = [];
  let run: RunState = 'off';
  for (const s of steps.slice(0, count)) {
    if (s.closes !== undefined) open.splice(open.lastIndexOf(s.closes), 1);
    if (s.opens !== undefined) open.push(s.opens);
    if (s.moves !== undefined) moves.push(s.moves);
    run = s.run;
  }
  return { open, run, moves };
};

interface Cursor {
  readonly at: number;
  readonly leftOut: ReadonlyMap<number, string>;
  readonly wrong: number | null;
  readonly holder: string;
  readonly ended: LoggedJobEvent | null;
}

const next = (c: Cursor, logged: LoggedJobEvent): Cursor => {
  const { event, by } = logged;
  switch (event.kind) {
    case 'did':
      return { ...c, at: event.step + 1, wrong: null };
    case 'answered':
      // "Not right" keeps the step: it is put right and asked again.
      return event.right ? { ...c, at: event.step + 1, wrong: null } : { ...c, at: event.step, wrong: event.step };
    case 'leftOut':
      return { ...c, at: event.step + 1, wrong: null, leftOut: new Map([...c.leftOut, [event.step, event.because]]) };
    case 'back':
      return { ...c, at: event.step, wrong: null, leftOut: new Map([...c.leftOut].filter(([step]) => step < event.step)) };
    case 'tookOver':
      return { ...c, holder: by };
    case 'finished':
    case 'abandoned':
      return { ...c, ended: logged };
  }
};

/** How a job stands: the fold of its events. Source: the log itself. */
export const jobState = ({ by, procedure, events }: JobRecord): JobState => {
  const cursor = events.reduce<Cursor>(next, { at: 0, leftOut: new Map(), wrong: null, holder: by, ended: null });
  return { ...cursor, ...done(procedure.steps, cursor.at) };
};

/** Whether the machine stands open under a job: it is not to be run by anybody else. */
export const doNotRun = (state: JobState): boolean => state.ended === null && state.open.some((o) => o !== 'inlet');

/** Why a deed does not fit a job now. */
export type JobRefusal = 'ended' | 'notHolder' | 'notNext' | 'isCheck' | 'noCheck' | 'notBack' | 'unfinished' | 'openStill' | 'partOut';

const partsOut = (moves: readonly PartMove[]): boolean => {
  const has = (...which: readonly PartMove[]) => moves.some((m) => which.includes(m));
  return (has('takeNew') && !has('fitNew', 'returnNew')) || (has('bagOld', 'holdOld') && !has('disposeOld', 'putOldBack'));
};

const refuseStep = (event: Extract<JobEvent, { step: number }>, { procedure }: JobRecord, state: JobState): JobRefusal | null => {
  if (event.kind === 'back') return event.step < state.at && event.step >= 0 ? null : 'notBack';
  const step = procedure.steps[event.step];
  if (!step || event.step !== state.at) return 'notNext';
  if (event.kind === 'did') return step.check === undefined ? null : 'isCheck';
  return step.check === undefined ? 'noCheck' : null;
};

/**
 * Whether a deed fits a job as it stands, by whoever does it: steps in their order, checks answered or left out with a
 * reason, the end only when all is done, closed and every part has its fate. null when it fits.
 * Source: common practice, no published source.
 */
export const refuseJobEvent = (record: JobRecord, { by, event }: Pick<LoggedJobEvent, 'by' | 'event'>): JobRefusal | null => {
  const state = jobState(record);
  if (state.ended) return 'ended';
  if (event.kind === 'tookOver') return null;
  if (by !== state.holder) return 'notHolder';
  if (event.kind === 'abandoned') return state.open.length > 0 ? 'openStill' : null;
  if (event.kind !== 'finished') return refuseStep(event, record, state);
  if (state.at < record.procedure.steps.length) return 'unfinished';
  if (state.open.length > 0) return 'openStill';
  return partsOut(state.moves) ? 'partOut' : null;
};
