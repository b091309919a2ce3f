import { addDays, type CalendarDate, daysBetween } from '../calendar/calendar-date';
import type { PlanDays } from './problem';
import { partDay } from './last-day';
import type { PlanInput, PlannedMachine, PlannedStage, YardProblem } from './yard-problem';

/** Why a plan may name another day than the last one did. */
export const MOVE_REASONS = [
  /** Its day went by, and the change is not on record. */
  'passed',
  /** Fixed on another day by hand. */
  'hand',
  /** Nobody works on that day now. */
  'closed',
  /** Nobody who may do it has time on that day now. */
  'absent',
  /** The machine is away on that day. */
  'away',
  /** Its part comes later than that day. */
  'partLater',
  /** Its part comes earlier than the last plan expected. */
  'partSooner',
  /** A new record of the machine moved its forecast. */
  'record',
  /** Something else of the same machine moved, and it goes along. */
  'company',
  /** An earlier day became possible. */
  'sooner',
  /** Work with a last day, or a fixed day, needs the minutes. */
  'room',
] as const;
export type MoveReason = (typeof MOVE_REASONS)[number];

/** One change of a stage, by the changes before it, as the last plan named it. */
export interface Promised {
  readonly stageId: number;
  readonly cycle: number;
  readonly day: CalendarDate;
  readonly setOn: CalendarDate;
  /** The facts on the day it was named: the middle day of the forecast, the first day of its part, the number of records of its machine. */
  readonly middle: CalendarDate;
  readonly partDay: CalendarDate | null;
  readonly records: number;
  /** Whether it was fixed by hand. */
  readonly locked: boolean;
  /** Its last move; null for a day that was never moved. */
  readonly moved: { readonly from: CalendarDate; readonly on: CalendarDate; readonly because: MoveReason } | null;
}

/** Days ahead within which people count on a promised day. */
export const NEAR_DAYS = 14;

/**
 * Price of moving a promised day, in money: firm, or freed by a reason; within the coming fortnight, or later. Firm and
 * near, putting it off outweighs some late days of a bag, and no day past a last day. Bringing it forward costs less: an
 * earlier day may have become possible. Choice: a modelling choice.
 */
const CHARGE = {
  firm: { near: { later: 400, sooner: 120 }, far: { later: 60, sooner: 40 } },
  /** A new record makes the day a bad one, but need not move it. */
  loose: { near: { later: 15, sooner: 15 }, far: { later: 1, sooner: 1 } },
  /** Going along with other work saves an opening; without that saving a far day stays. */
  company: { near: { later: 4, sooner: 4 }, far: { later: 10, sooner: 10 } },
  free: { near: { later: 4, sooner: 4 }, far: { later: 1, sooner: 1 } },
} as const;

/** A forecast has moved when its middle day differs by more than this: days, and a share of the days it is ahead. */
const MOVED_DAYS = 2;
const MOVED_SHARE = 0.12;

/** A promised day is too early by this much before the 10 % quantile, as a share of the way to the middle. A modelling choice. */
const TOO_EARLY = 0.8;

/** Whether a forecast makes a promised day a bad one: its limit is most likely reached before it, or is far from it. */
const isWrong = (day: number, [, low, middle]: PlannedStage['reached']): boolean =>
  day > middle || day < low - MOVED_DAYS - TOO_EARLY * (middle - low);

interface Now {
  readonly input: PlanInput;
  readonly today: CalendarDate;
  /** The records of each machine, by position: a larger number for more of them. */
  readonly records: readonly number[];
}

const partDate = (stage: PlannedStage, { input, today }: Now): CalendarDate | null => {
  const day = stage.part === null ? null : partDay(input.parts[stage.part]);
  return day === null ? null : addDays(today, day);
};

/** Why a promised day may be moved now; null for a day that holds. A machine's position, one of its stages. */
const freedBy = (
  p: Promised,
  {
    stage,
    machine,
    position,
  }: { readonly stage: PlannedStage; readonly machine: PlannedMachine; readonly position: number },
  now: Now,
): MoveReason | null => {
  const { input, today } = now;
  const day = daysBetween({ from: today, to: p.day });
  if (day < 0) return 'passed';
  if (stage.lockedDay !== null && stage.lockedDay !== day) return 'hand';
  if (input.works[day] !== true) return 'closed';
  const there = machine.hazard === 'contained' ? input.crew?.containedMinutes[day] : input.crew?.minutes[day];
  if (there === 0) return 'absent';
  if (machine.blockedDays.includes(day)) return 'away';
  const part = partDate(stage, now);
  if (part !== null && part > p.day) return 'partLater';
  if (part !== null && p.partDay !== null && part < p.partDay && p.partDay >= addDays(p.day, -1)) return 'partSooner';
  const shift = Math.abs(daysBetween({ from: p.middle, to: addDays(today, Math.round(stage.reached[2])) }));
  const ahead = Math.max(0, daysBetween({ from: p.setOn, to: p.middle }));
  const isNew = (now.records[position] ?? 0) > p.records;
  return isNew && shift > Math.max(MOVED_DAYS, MOVED_SHARE * ahead) && isWrong(day, stage.reached) ? 'record' : null;
};

interface Held {
  readonly promise: Promised;
  /** Why its day may be moved now; null for a day that holds. */
  readonly free: MoveReason | null;
}

/** The promises that still speak of the interval that runs, by their stage. */
const heldNow = (promises: readonly Promised[], now: Now): ReadonlyMap<number, Held> => {
  const known = new Map(promises.map((p) => [p.stageId, p]));
  const held = now.input.machines.flatMap((machine, position) => {
    const running = machine.stages.flatMap((stage) => {
      const promise = known.get(stage.stageId);
      return promise?.cycle === stage.cycle + 1 ? [{ promise, stage }] : [];
    });
    // A day that was fixed by hand and is set free binds nobody.
    const [unfixed, bound] = [true, false].map((free) =>
      running.filter(({ promise, stage }) => (promise.locked && stage.lockedDay === null) === free),
    );
    const mine = (bound ?? []).map(({ promise, stage }) => ({
      promise,
      free: freedBy(promise, { stage, machine, position }, now),
    }));
    // Work that was not done on its day only goes to the next one: nothing else has to move with it.
    const open = (unfixed ?? []).length > 0 || mine.some(({ free }) => free !== null && free !== 'passed');
    return mine.map(
      ({ promise, free }) => [promise.stageId, { promise, free: free ?? (open ? 'company' : null) }] as const,
    );
  });
  return new Map(held);
};

/**
 * The plan's input with the days that the last plan named, each with the price of moving it, in money. A day that has gone
 * by is left out. Choice: a modelling choice. Valid: promises of stages of that yard, as of the same day.
 */
export const withPromises = (now: Now, promises: readonly Promised[]): PlanInput => {
  const held = heldNow(promises, now);
  const chargedFor = (stageId: number): PlannedStage['promised'] => {
    const known = held.get(stageId);
    const day = known ? daysBetween({ from: now.today, to: known.promise.day }) : -1;
    if (!known || day < 0) return null;
    const price =
      CHARGE[
        known.free === null ? 'firm' : known.free === 'record' ? 'loose' : known.free === 'company' ? 'company' : 'free'
      ];
    return { day, ...(day <= NEAR_DAYS ? price.near : price.far) };
  };
  return {
    ...now.input,
    machines: now.input.machines.map((m) => ({
      ...m,
      stages: m.stages.map((s) => ({ ...s, promised: chargedFor(s.stageId) })),
    })),
  };
};

/**
 * Returns the days that a plan names for the running intervals. The next plan starts from them. An unmoved day keeps its
 * facts; a moved day has its reason. Definition: the plan against the last one. Valid: a plan made from `withPromises` of the same promises.
 */
export const promisesOf = (
  { stages }: YardProblem,
  days: PlanDays,
  { now, promises }: { readonly now: Now; readonly promises: readonly Promised[] },
): readonly Promised[] => {
  const held = heldNow(promises, now);
  const position = new Map(now.input.machines.map((m, i) => [m.tag, i]));
  const all = stages.flatMap((stage, i): readonly Promised[] => {
    const on = days[i] ?? null;
    if (on === null || stage.turn > 1) return [];
    const day = addDays(now.today, on);
    const before = held.get(stage.stageId);
    const locked = stage.lockedDay !== null;
    if (before?.promise.day === day) return [{ ...before.promise, locked }];
    return [
      {
        stageId: stage.stageId,
        cycle: stage.cycle + 1,
        day,
        setOn: now.today,
        middle: addDays(now.today, Math.round(stage.reached[2])),
        partDay: partDate(stage, now),
        records: now.records[position.get(stage.tag) ?? -1] ?? 0,
        locked,
        moved: before
          ? {
              from: before.promise.day,
              on: now.today,
              because: before.free ?? (day < before.promise.day ? 'sooner' : 'room'),
            }
          : null,
      },
    ];
  });
  return all.sort((a, b) => a.stageId - b.stageId);
};
