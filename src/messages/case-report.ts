import type { CaseRecord, LoggedEvent } from '@/core/diagnose/case-log';
import type { QuantityKind, UnitSystem } from '@/core/units';
import type { ModelStage } from '@/core/path/machine-path';
import type { Operation } from '@/core/diagnose/operation';
import { COMPLAINT_WORDS, SCHOOL_WORDS, sayOutcome } from './find';
import { testTitle } from './find-tests';
import { sayFault } from './fault-names';
import { sayRepair } from './repairs';

export const sayComplaint = ({ complaint, words }: Pick<CaseRecord, 'complaint' | 'words'>): string =>
  `${COMPLAINT_WORDS[complaint][0]}${words ? `: ${words}` : ''}`;

/** How a case ended, in a line. */
export const sayCaseEnd = (end: LoggedEvent | null): string => {
  if (end === null) return 'still open';
  const { event } = end;
  if (event.kind === 'closed') return `closed, root cause: ${event.rootCause}`;
  return event.kind === 'handedOn' ? `handed on: ${event.because}` : '';
};

export interface LineContext {
  readonly stages: readonly ModelStage[];
  readonly units: UnitSystem;
  /** The quantity a test reads; undefined for tests that give a word. */
  readonly quantityOf: (op: Operation) => QuantityKind | undefined;
}

const FOUND = { yes: 'fault confirmed', no: 'part OK', unseen: 'could not tell' } as const;

/** One line of the log, in words. */
export const sayEvent = ({ event }: LoggedEvent, { stages, units, quantityOf }: LineContext): string => {
  const name = (i: number) => stages[i]?.name ?? 'stage';
  switch (event.kind) {
    case 'saw':
      return `${testTitle(event.operation, stages)}: ${sayOutcome(event.operation, event.outcome, { kind: quantityOf(event.operation), units })}${event.note ? ` (${event.note})` : ''}`;
    case 'struck':
      return `Struck out a line: ${event.because}`;
    case 'skipped':
      return `Skipped: ${testTitle(event.operation, stages)}`;
    case 'school':
      return `Order of tests: ${SCHOOL_WORDS[event.school][0]}`;
    case 'putBack':
      return `The ${name(event.position)} is back in`;
    case 'trialIn':
      return `New ${name(event.position)} fitted on trial from stock; old one kept`;
    case 'trialBack':
      return `Original ${name(event.position)} put back; new one returned to stock`;
    case 'trialKept':
      return `New ${name(event.position)} stays; old one disposed of`;
    case 'repaired':
      return `${sayRepair(event.repair, stages)}, because ${sayFault(event.fault, stages)}: ${FOUND[event.found]}`;
    case 'closed':
      return `Closed. Root cause: ${event.rootCause}`;
    case 'handedOn':
      return `Handed on: ${event.because}`;
  }
};
