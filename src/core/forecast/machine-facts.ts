import { type CalendarDate, dayAt, dayNumber } from '../calendar/calendar-date';
import { isWear } from '../interval/rules';
import type { Machine } from '../machine/machine';
import { seeded } from '../numeric/seeded';
import type { ChangeReason, ChangeRecord, TestRecord } from '../record/records';
import { type Ahead, aheadOf, USE_UNSURE } from './ahead';
import { dustWeights, type Stretch } from './dust-weights';
import type { IntervalEnd } from './history';
import { pathSeen, type PathSeen } from './seen';
import { type LoadClock, loadClock, type Used, usedOf } from './used';

/** The records of one machine that a forecast needs. */
export interface MachineRecord {
  readonly machine: Machine;
  /** Standing changes, oldest first. */
  readonly changes: readonly ChangeRecord[];
  readonly tests: readonly TestRecord[];
  readonly today: CalendarDate;
  /** Whether the yard works that many days from today; negative: in the past. */
  readonly works: (day: number) => boolean;
  readonly seed: number;
}

/** The end of an interval, by the reason of its change. */
export const END_OF: Record<ChangeReason, IntervalEnd> = {
  gauge: 'limit',
  fill: 'limit',
  test: 'limit',
  date: 'bound',
  count: 'bound',
  precaution: 'early',
  damage: 'other',
};

/** Facts computed once for all stages of a machine. */
export interface MachineFacts {
  readonly record: MachineRecord;
  readonly today: number;
  readonly used: Used;
  readonly clock: LoadClock;
  /** The clock of recorded hours, without weights by dust. */
  readonly plain: LoadClock;
  /** Paths of use to come on the clock's scale; made when first asked for. */
  readonly ahead: () => Ahead;
  readonly aheadPlain: () => Ahead;
  readonly seen: PathSeen;
  readonly startsOf: (stageId: number) => readonly number[];
  readonly regime: number | null;
}

const startsOf =
  ({ machine, changes }: MachineRecord) =>
  (stageId: number): readonly number[] => {
    const first = machine.stages.find((s) => s.id === stageId)?.firstUsedOn;
    const days = changes.filter((c) => c.stageId === stageId).map((c) => dayNumber(c.performedOn));
    return [...new Set([...(first === undefined ? [] : [dayNumber(first)]), ...days])].sort((a, b) => a - b);
  };

const stretchesOf = (record: MachineRecord, starts: ReturnType<typeof startsOf>): readonly Stretch[] =>
  record.machine.stages
    .filter((s) => s.rules.some((r) => isWear(r.rule)))
    .flatMap((stage) => {
      const days = starts(stage.id);
      return days.slice(1).flatMap((to, i): readonly Stretch[] => {
        const from = days[i] ?? to;
        const reason = record.changes.findLast(
          (c) => c.stageId === stage.id && dayNumber(c.performedOn) === to,
        )?.reason;
        const end = reason ? END_OF[reason] : 'other';
        if (end === 'other' || end === 'bound') return [];
        return [
          { stage: stage.id, from, to, spread: end === 'limit' ? 0.35 : 0.5, late: end === 'limit' ? 0.05 : -0.29 },
        ];
      });
    });

/** Everything of a machine that its stages share. */
export const machineFacts = (record: MachineRecord): MachineFacts => {
  const { machine, changes, tests } = record;
  const today = dayNumber(record.today);
  const dayOf = (moment: string): number => dayNumber(dayAt(moment, machine.timeZone));
  const seen = pathSeen(machine, tests);
  const starts = startsOf(record);
  const first = Math.min(
    today,
    ...machine.stages.map((s) => dayNumber(s.firstUsedOn)),
    ...machine.hours.slice(0, 1).map((h) => dayNumber(h.day)),
  );
  const worked = (day: number): boolean => record.works(day - today);
  const used = usedOf({
    first,
    today,
    worked,
    written: machine.hours.map((h) => ({ day: dayNumber(h.day), hours: h.hours, dust: h.dust })),
    seen: [
      ...changes.map((c) => dayNumber(c.performedOn)),
      ...seen.flows.map((f) => f.day),
      ...seen.zones.map((z) => z.day),
      ...machine.stages.flatMap((s) => s.looks.map((l) => dayNumber(l.day))),
    ],
  });
  const { weights, newestUnsure } = dustWeights(used, stretchesOf(record, starts));
  const once = (w: readonly number[], unsure: number) => {
    let made: Ahead | null = null;
    return () =>
      (made ??= aheadOf({
        used,
        weights: w,
        unsure: Math.hypot(USE_UNSURE[used.counts], unsure),
        worked,
        works: (day) => worked(today + day),
        chance: seeded(record.seed + 31 * machine.id),
      }));
  };
  const plain = used.dusts.map(() => 1);
  const ahead = once(weights, newestUnsure);
  return {
    record,
    today,
    used,
    clock: loadClock(used, weights),
    plain: loadClock(used, plain),
    ahead,
    aheadPlain: weights.every((w) => w === 1) ? ahead : once(plain, 0),
    seen,
    startsOf: starts,
    regime: machine.reshapedAt === null ? null : dayOf(machine.reshapedAt),
  };
};
