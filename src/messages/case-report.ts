import type { CaseRecord, LoggedEvent } from '@/core/diagnose/case-log';
import { COMPLAINT_WORDS } from './find';

export const sayComplaint = ({ complaint, words }: Pick<CaseRecord, 'complaint' | 'words'>): string => `${COMPLAINT_WORDS[complaint][0]}${words ? `: ${words}` : ''}`;

/** How a case ended, in a line. */
export const sayCaseEnd = (end: LoggedEvent | null): string => {
  if (end === null) return 'still open';
  const { event } = end;
  if (event.kind === 'closed') return `closed, root cause: ${event.rootCause}`;
  return event.kind === 'handedOn' ? `handed on: ${event.because}` : '';
};
