import { type CaseRecord, caseState, type LoggedEvent } from '@/core/diagnose/case-log';
import { show, type UnitSystem } from '@/core/units';

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

export interface BeforeAndAfter {
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

/** The complaint's own flow as found and as left; null where it was not measured twice. */
export const beforeAndAfter = (c: CaseRecord, units: UnitSystem): BeforeAndAfter | null => {
  const struck = new Set(c.events.flatMap(({ event }) => (event.kind === 'struck' ? [event.eventId] : [])));
  const flows = c.events.flatMap(({ id, event }) =>
    event.kind === 'saw' &&
    event.operation.kind === 'flow' &&
    event.operation.place === 'toolEnd' &&
    event.outcome.kind === 'number' &&
    !struck.has(id)
      ? [event.outcome.valueSi]
      : [],
  );
  const [first, last] = [flows[0], flows.at(-1)];
  if (first === undefined || last === undefined || flows.length < 2) return null;
  return { what: 'Open flow at the tool end', before: show('flow', first, units), after: show('flow', last, units) };
};
