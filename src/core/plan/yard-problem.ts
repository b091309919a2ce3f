import { NEW_SITE } from '../site/site';
import type { DustHazard } from '../machine/machine';
import type { StageKind } from '../path/stage-kinds';
import { priceLife } from './prices';
import type { PlanPart, PlanProblem, PlanTask } from './problem';
import type { ReachQuantiles } from '../forecast/limit-distribution';

/** One stage of a machine as the plan sees it. */
export interface PlannedStage {
  readonly stageId: number;
  readonly name: string;
  readonly kind: StageKind;
  readonly reached: ReachQuantiles;
  /** Position of its part in the list of parts; null without one. */
  readonly part: number | null;
  /** The stage it goes only with; null when it stands alone. */
  readonly withStage: number | null;
  readonly lockedDay: number | null;
  /** Middle life of what is in it, days. */
  readonly lifeDays: number;
}

export interface PlannedMachine {
  readonly tag: string;
  readonly name: string;
  readonly hazard: DustHazard;
  readonly blockedDays: readonly number[];
  readonly stages: readonly PlannedStage[];
}

export interface PlannedPart extends PlanPart {
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
}

export interface PlanOptions {
  readonly weeks: number;
  readonly minutesADay: number;
  /** How much dearer a day past the limit is than a day of life thrown away. */
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

const MINUTES: Partial<Record<StageKind, number>> = {
  bag: 6,
  cyclone: 8,
  dropChamber: 10,
  prefilter: 6,
  mainFilter: 12,
  canister: 25,
  hepa: 15,
  gas: 8,
  exhaustFilter: 4,
};
const OTHER_MINUTES = 8;

/** Minutes a stage takes, without opening and closing its machine. Source: Moorwind defaults, modelling choices. Valid: every kind of stage. */
export const minutesOf = (kind: StageKind): number => MINUTES[kind] ?? OTHER_MINUTES;

const DAYS_A_WEEK = 7;

export interface YardProblem {
  readonly problem: PlanProblem;
  /** The stage of each task, and its machine's tag. */
  readonly stages: readonly (PlannedStage & { readonly tag: string })[];
}

/** The stages that are to be planned: more likely than not reached within the horizon, fixed there, or going only with such a one. */
const wanted = (machine: PlannedMachine, days: number): readonly PlannedStage[] => {
  const own = machine.stages.filter((s) => s.reached[2] <= days || (s.lockedDay !== null && s.lockedDay < days));
  const partners = machine.stages.filter((s) => !own.includes(s) && own.some((o) => o.withStage === s.stageId));
  return [...own, ...partners];
};

/** The planning problem of a yard for a horizon. Source: the problem as stated in `problem`; prices and minutes as said there. */
export const yardProblem = ({ machines, parts, works }: PlanInput, options: PlanOptions): YardProblem => {
  const days = options.weeks * DAYS_A_WEEK;
  const chosen = machines.map((m) => wanted(m, days));
  const tasks = machines.flatMap((m, machine) =>
    (chosen[machine] ?? []).map((s): PlanTask => {
      const openingCost = options.openingCost[m.hazard];
      const part = s.part === null ? null : { index: s.part, quantity: 1 };
      const prices = priceLife({
        partPrice: parts[s.part ?? -1]?.price ?? 0,
        lifeDays: s.lifeDays,
        openingCost,
        setsTheRhythm: s.kind === 'bag' || s.kind === 'cyclone',
        lateFactor: options.lateFactor,
      });
      const partner = (chosen[machine] ?? []).some((x) => x.stageId === s.withStage) ? s.withStage : null;
      return {
        id: String(s.stageId),
        machine,
        minutes: minutesOf(s.kind),
        reached: s.reached,
        ...prices,
        part,
        onlyWith: partner === null ? null : String(partner),
        lockedDay: s.lockedDay,
      };
    }),
  );
  return {
    problem: {
      minutes: Array.from({ length: days }, (_, day) => (works[day] ? options.minutesADay : 0)),
      machines: machines.map((m) => ({
        id: m.tag,
        openingCost: options.openingCost[m.hazard],
        openingMinutes: options.openingMinutes[m.hazard],
        blockedDays: new Set(m.blockedDays),
      })),
      tasks,
      parts,
    },
    stages: machines.flatMap((m, i) => (chosen[i] ?? []).map((s) => ({ ...s, tag: m.tag }))),
  };
};
