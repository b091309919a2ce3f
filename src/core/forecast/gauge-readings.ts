import { addDays, type CalendarDate, dayNumber } from '../calendar/calendar-date';
import type { Stage } from '../machine/machine';
import { filterBefore } from '../path/filter-before';
import { usualDays } from './kind-days';
import type { MachineFacts } from './machine-facts';
import type { PathSeen } from './seen';

// A gauge across two filters: its colour tells of the second one only while the first one is fresh.

type GaugeReading = PathSeen['zones'][number];

/** A filter counts as fresh for so long after its change, as a share of the days its kind lasts. A modelling choice. */
const FRESH = 0.1;

const before = ({ record: { machine } }: MachineFacts, stage: Stage): Stage | null => {
  const position = filterBefore(
    machine.stages,
    machine.stages.findIndex((s) => s.id === stage.id),
  );
  return position === null ? null : (machine.stages[position] ?? null);
};

/** Whether the colour of a gauge reading counts for a stage: the gauge reads across it alone, or the filter before it had been changed shortly before. Choice: a modelling choice. Valid: readings of that stage. */
export const countsFor =
  (facts: MachineFacts, stage: Stage) =>
  ({ day, at }: GaugeReading): boolean => {
    const other = before(facts, stage);
    if (!other || stage.spec.fit.gaugePa?.spans === 'own') return true;
    // A change on the day of the reading counts only where it came first.
    const changed = facts.record.changes
      .filter((c) => c.stageId === other.id && c.performedAt <= at)
      .map((c) => dayNumber(c.performedOn));
    const newest = Math.max(dayNumber(other.firstUsedOn), ...changed);
    return day - newest <= FRESH * usualDays(other.kind);
  };

/** A gauge that is not green, and whose colour may be of the filter before the stage. */
export interface UncountedGauge {
  readonly day: CalendarDate;
  readonly zone: 'amber' | 'red';
  /** The name of that filter. */
  readonly before: string;
}

/** The newest gauge reading of the part that is in a stage, where its colour does not count for it; null where it does. Definition: as `countsFor`. Total. */
export const uncountedGauge = (facts: MachineFacts, stage: Stage): UncountedGauge | null => {
  const since = facts.startsOf(stage.id).at(-1) ?? facts.today;
  const newest = facts.seen.zones.findLast((z) => z.stageId === stage.id && z.day > since);
  const other = before(facts, stage);
  if (!newest || newest.zone === 'green' || !other || countsFor(facts, stage)(newest)) return null;
  return { day: addDays(facts.record.today, newest.day - facts.today), zone: newest.zone, before: other.name };
};
