import { type CaseRecord, caseState, type LoggedEvent } from '@/core/diagnose/case-log';

/** The line that ended a case; null while it is open. */
export const endOf = (c: CaseRecord): LoggedEvent | null => caseState(c).ended;

/** How often each root cause was the answer, by "kind position". */
export const rootCounts = (cases: readonly CaseRecord[]): Readonly<Record<string, number>> => {
  const counts: Record<string, number> = {};
  for (const c of cases) {
    const end = endOf(c)?.event;
    if (end?.kind !== 'closed' || !end.root) continue;
    const key = `${end.root.kind} ${end.root.position}`;
    counts[key] = (counts[key] ?? 0) + 1;
  }
  return counts;
};
