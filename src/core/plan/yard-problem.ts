import { NEW_SITE } from '../site/site';
import type { MachineClass } from '../filter/machine-class';
import type { DustHazard } from '../machine/machine';
import { STAGE_KINDS, type StageKind } from '../path/stage-kinds';
import { lastDayOf, lateWeight, partDay } from './last-day';
import { priceLife } from './prices';
import type { PlanPart, PlanProblem, PlanTask, PromisedDay } from './problem';
import { turnsOf } from './turns';
import type { ReachQuantiles } from '../forecast/limit-distribution';

/** One stage of a machine as the plan sees it. */
export interface PlannedStage {
  readonly stageId: number;
  readonly name: string;
  readonly kind: StageKind;
  readonly reached: ReachQuantiles;
  /** Days of one whole new interval. */
  readonly whole: ReachQuantiles;
  /** Position of its part in the list of parts; null without one. */
  readonly part: number | null;
  /** The stage it goes only with; null for an independent stage. */
  readonly withStage: number | null;
  readonly lockedDay: number | null;
  /** The day it must be done by, as an examination must, below 0 in the past; null where late is only dear. */
  readonly latest: number | null;
  /** Middle life of the bag or filter, days. */
  readonly lifeDays: number;
  /** Changes on record so far: they name the interval that runs. */
  readonly cycle: number;
  /** The day that the last plan named for it, and the price of moving it, in money; null where no plan named one. */
  readonly promised: PromisedDay | null;
}

export interface PlannedMachine {
  readonly tag: string;
  readonly name: string;
  readonly hazard: DustHazard;
  readonly machineClass: MachineClass | null;
  readonly blockedDays: readonly number[];
  readonly stages: readonly PlannedStage[];
}

export interface PlannedPart extends PlanPart {
  /** Days from an order to the shelf. */
  readonly leadDays: number;
  readonly name: string;
  readonly bin: string;
  readonly price: number;
}

/** Everything a plan of the yard is made from, from today (day 0) on. */
export interface PlanInput {
  readonly machines: readonly PlannedMachine[];
  readonly parts: readonly PlannedPart[];
  /** Whether the yard works on each day of the longest horizon. */
  readonly works: readonly boolean[];
  /** The minutes of each of these days by the people's own times; null where nobody's are on record. */
  readonly crew: { readonly minutes: readonly number[]; readonly containedMinutes: readonly number[] } | null;
}

export interface PlanOptions {
  readonly weeks: number;
  readonly minutesADay: number;
  /** Price of a day past the limit, in times of a wasted day of life. */
  readonly lateFactor: number;
  readonly openingCost: Readonly<Record<DustHazard, number>>;
  /** Minutes to open and close a machine, without the work inside. */
  readonly openingMinutes: Readonly<Record<DustHazard, number>>;
}

/** Moorwind defaults, a modelling choice; every one is an input. */
export const PLAN_OPTIONS: PlanOptions = {
  weeks: 8,
  minutesADay: NEW_SITE.minutesADay,
  lateFactor: NEW_SITE.prices.lateFactor,
  openingCost: NEW_SITE.prices.openingCost,
  openingMinutes: NEW_SITE.prices.openingMinutes,
};

/** Minutes a stage takes, without opening and closing its machine. Choice: Moorwind defaults, modelling choices. Valid: every kind of stage. */
export const minutesOf = (kind: StageKind): number => STAGE_KINDS[kind].minutes;

const DAYS_A_WEEK = 7;

export interface YardProblem {
  readonly problem: PlanProblem;
  /** The stage of each task, its machine's tag, and which of its turns it is: 1 is the interval that runs. */
  readonly stages: readonly (PlannedStage & { readonly tag: string; readonly turn: number })[];
}

/** The stages that are to be planned: more likely than not reached within the horizon, fixed or promised there, or going only with such a one. */
const wanted = (machine: PlannedMachine, days: number): readonly PlannedStage[] => {
  const own = machine.stages.filter(
    (s) =>
      s.reached[2] <= days ||
      (s.lockedDay !== null && s.lockedDay < days) ||
      (s.latest !== null && s.latest < days) ||
      (s.promised !== null && s.promised.day < days),
  );
  const partners = machine.stages.filter((s) => !own.includes(s) && own.some((o) => o.withStage === s.stageId));
  return [...own, ...partners];
};

interface Yard {
  readonly input: PlanInput;
  readonly options: PlanOptions;
  readonly days: number;
}

const firstTurn = (
  s: PlannedStage,
  m: PlannedMachine,
  { input, options }: Yard,
): Omit<PlanTask, 'machine' | 'onlyWith'> => ({
  id: String(s.stageId),
  minutes: minutesOf(s.kind),
  reached: s.reached,
  ...priceLife({
    partPrice: input.parts[s.part ?? -1]?.price ?? 0,
    lifeDays: s.lifeDays,
    openingCost: options.openingCost[m.hazard],
    setsTheRhythm: STAGE_KINDS[s.kind].setsRhythm,
    lateFactor: options.lateFactor * lateWeight(s.kind, m, options.openingCost),
  }),
  part: s.part === null ? null : { index: s.part, quantity: 1 },
  lockedDay: s.lockedDay,
  lastDay: null,
  promised: null,
});

/** Every turn of a machine within the horizon. */
const turnsOfMachine = (m: PlannedMachine, machine: number, yard: Yard) => {
  const { days, input, options } = yard;
  const chosen = wanted(m, days);
  const blocked = new Set(m.blockedDays);
  const open = Array.from({ length: days }, (_, day) => day).filter(
    (day) => input.works[day] === true && !blocked.has(day),
  );
  const turning = chosen.map((s) => ({
    first: {
      ...firstTurn(s, m, yard),
      machine,
      onlyWith: s.withStage !== null && chosen.some((x) => x.stageId === s.withStage) ? String(s.withStage) : null,
    },
    lastDay: lastDayOf({ ...s, machineClass: m.machineClass, part: input.parts[s.part ?? -1] }),
    everyTurn: s.latest !== null,
    partDay: partDay(input.parts[s.part ?? -1]) ?? 0,
    promised: s.promised,
    whole: s.whole,
  }));
  const turns = turnsOf(turning, { days, open, openingCost: options.openingCost[m.hazard] });
  const ids = new Set(turns.map((t) => t.task.id));
  return turns.flatMap(({ task, stage, turn }) => {
    const of = chosen[stage];
    // A partner that does not come round so often goes along as often as it does.
    const onlyWith = task.onlyWith !== null && ids.has(task.onlyWith) ? task.onlyWith : null;
    if (!of) return [];
    const planned = { ...task, onlyWith };
    // A later turn that an order of today would be in time for waits for nothing on the shelf.
    const lead = input.parts[planned.part?.index ?? -1]?.leadDays ?? 0;
    const inTime = turn > 1 && planned.part !== null && (planned.within?.[0] ?? planned.reached[0]) >= lead;
    const ordered = inTime && planned.part ? { ...planned, part: null, orders: planned.part } : planned;
    return [{ task: ordered, stage: { ...of, tag: m.tag, turn } }];
  });
};

/** The planning problem of a yard for a horizon, every stage as often as it comes round in it. Source: the problem as stated in `problem`; prices and minutes as said there. */
export const yardProblem = (input: PlanInput, options: PlanOptions): YardProblem => {
  const days = options.weeks * DAYS_A_WEEK;
  const turns = input.machines.flatMap((m, machine) => turnsOfMachine(m, machine, { input, options, days }));
  return {
    problem: {
      minutes: Array.from({ length: days }, (_, day) =>
        input.works[day] ? (input.crew?.minutes[day] ?? options.minutesADay) : 0,
      ),
      containedMinutes:
        input.crew &&
        Array.from({ length: days }, (_, day) => (input.works[day] ? (input.crew?.containedMinutes[day] ?? 0) : 0)),
      machines: input.machines.map((m) => ({
        id: m.tag,
        openingCost: options.openingCost[m.hazard],
        openingMinutes: options.openingMinutes[m.hazard],
        blockedDays: new Set(m.blockedDays),
        contained: m.hazard === 'contained',
      })),
      tasks: turns.map((t) => t.task),
      parts: input.parts,
    },
    stages: turns.map((t) => t.stage),
  };
};
