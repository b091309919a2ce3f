import { toDigits } from '@/core/units';
import type { ScreeningVerdict } from '@/core/measure/penetration-ratio';
import type { WholeJob } from '@/core/procedure/choose';
import type { JobEvent, JobRecord, JobState } from '@/core/procedure/job-log';
import type { OpenedPart, PartMove, RunState } from '@/core/procedure/step';
import type { HeldPart } from '@/core/stock/held';
import { CHECK_WORDS, OPENING_WORDS, PROCEDURE_WORDS } from './procedure';
import { sayStepOf } from './step-words';
import { capital, HAZARD_WORDS } from './words';

/** A share in per cent, with as many digits as it needs. */
export const sayPercent = (share: number): string =>
  Number.isFinite(share) ? `${toDigits(100 * share, 2)} %` : 'any share';

/** The result of a count behind a filter, by its limits. */
export const sayScreening = (v: ScreeningVerdict): string => {
  const could = `A count of this length can show no better than ${sayPercent(v.best)}; the class allows ${sayPercent(v.limit)}.`;
  const through = `${sayPercent(v.ratio)} of the room's particles were counted through, ${sayPercent(v.low)} to ${sayPercent(v.high)} at 95 % (one-sided limits of the ratio of two Poisson rates, Clopper and Pearson).`;
  switch (v.outcome) {
    case 'fails':
      return `Failed: at least ${sayPercent(v.low)} passes, the class allows ${sayPercent(v.limit)}. ${through}`;
    case 'screened':
      return `Screened: at most ${sayPercent(v.high)} passes, under the screening limit of ${sayPercent(v.figure)}. ${v.provesLimit ? '' : `This does not prove the class. ${could}`}`.trim();
    case 'notShown':
      return `Cannot tell: up to ${sayPercent(v.high)} may pass. ${could}`;
  }
};

export const WHOLE_JOB_WORDS: Record<WholeJob, string> = { ...PROCEDURE_WORDS };

export const CARE_WORDS = { purge: 'Purge by pulse', wash: 'Wash and dry', section: 'Section off the liner' } as const;

/** How the machine runs at a step. */
export const RUN_SHORT: Record<RunState, string> = {
  off: 'machine off',
  running: 'machine running',
  headAside: 'head running, set aside',
  secondVacuum: 'on the second vacuum',
};

/** Which way the air flows now, in a sentence. */
export const sayAir = (run: RunState, open: readonly OpenedPart[]): string => {
  const opened = open.some((o) => o !== 'inlet');
  if (run === 'off') return opened ? 'No air flow: nothing holds the dust back.' : 'No air flow: machine off.';
  if (run === 'headAside')
    return 'Air flows only through the head set aside: it holds its own dust cake, it does not clear the tank.';
  if (run === 'secondVacuum') return 'The clean machine draws the air out of the tank.';
  return opened
    ? 'Air flows into the opening.'
    : open.includes('inlet')
      ? 'Running, inlet not open to the hose.'
      : 'Running: air from tool to room.';
};

/** Open places in words; empty when none is open. */
export const sayOpenings = (open: readonly OpenedPart[]): string =>
  open.map((o) => (o === 'inlet' ? 'the inlet is plugged or off' : OPENING_WORDS[o])).join(', ');

/** A machine under a job, short enough for its tag; `until` is the moment it is dry, in words. */
export const sayUnderJob = (state: JobState, until: string | null): string => {
  if (until !== null) return `Drying until ${until}: out of service`;
  if (!state.open.some((o) => o !== 'inlet')) return `Job under way (${state.holder})`;
  return state.run === 'off' ? `Open, do not run (${state.holder})` : `Open and running (${state.holder})`;
};

const MOVE_WORDS: Record<PartMove, string> = {
  takeNew: 'taken from the shelf',
  fitNew: 'fitted',
  bagOld: 'old one bagged',
  holdOld: 'old one kept, bagged and tagged',
  disposeOld: 'old one disposed of',
  putOldBack: 'old one put back',
  returnNew: 'new one back on the shelf, opened',
};

/** What became of the parts of each stage, a line a stage. */
export const sayParts = (record: JobRecord, state: JobState): readonly string[] =>
  [...new Set(state.moves.map((m) => m.stage))].map((stage) => {
    const name = stage === null ? 'machine' : (record.stages[stage]?.name ?? 'stage');
    return `${capital(name)}: ${state.moves
      .filter((m) => m.stage === stage)
      .map((m) => MOVE_WORDS[m.move])
      .join(', ')}.`;
  });

/** The waste line: the part, its dust level, and its mass if weighed. null without waste. */
export const sayWaste = (record: JobRecord, state: JobState, mass: string | null): string | null => {
  const gone = state.moves
    .filter((m) => m.move === 'disposeOld')
    .map((m) => (m.stage === null ? 'part' : (record.stages[m.stage]?.name ?? 'part')));
  if (gone.length === 0) return null;
  return `${capital(gone.join(', '))} with ${record.lastCollected} (${HAZARD_WORDS[record.hazard]} work), bagged and tied${record.hazard === 'contained' ? ', second bag, labelled' : ''}, ${mass === null ? 'not weighed' : mass}; waste by your local rules.`;
};

/** One line of a job's log. */
export const sayJobEvent = (event: JobEvent, record: JobRecord, state: JobState): string => {
  if ('step' in event) {
    const step = state.steps[event.step] ?? record.procedure.steps[event.step];
    const name = step?.stage === null || !step ? 'machine' : (record.stages[step.stage]?.name ?? 'stage');
    const said = step ? sayStepOf(step, name, record.procedure.id) : 'Step';
    const looked =
      step?.check !== undefined && step.key !== 'check' && step.key !== 'proveIndicator'
        ? `${said} ${CHECK_WORDS[step.check]}`
        : said;
    switch (event.kind) {
      case 'did':
        return said;
      case 'answered':
        return `${looked} ${event.right ? 'Yes.' : 'No: to fix.'}`;
      case 'leftOut':
        return `${looked} Left out: ${event.because}.`;
      case 'back':
        return `Back to: ${said}`;
      case 'turnedBack':
        return 'The new part made no difference: the old one goes back in.';
      case 'photo':
        return `Photo at: ${said}`;
    }
  }
  switch (event.kind) {
    case 'tookOver':
      return 'Took it over.';
    case 'finished':
      return 'Finished.';
    case 'abandoned':
      return `Given up: ${event.because}.`;
  }
};

const HELD_WORDS: Record<HeldPart['state'], string> = {
  reserved: 'reserved for a job',
  out: 'new, on trial or being fitted',
  old: 'old one kept, bagged and tagged',
};

/** Where a part is that is neither on the shelf nor in for good. */
export const sayHeld = ({ state, tag, by }: HeldPart & { readonly tag: string }): string =>
  `1 ${HELD_WORDS[state]}: ${tag}, ${by.kind} ${by.id}`;
