import { DAY_MS } from '@/core/calendar/time';
import { wayOf } from '@/core/machine/kinds';
import { EXAMINATION } from '@/core/interval/due';
import { isChangeUnknown } from '@/core/interval/stage-due-word';
import { addDays, daysBetween } from '@/core/calendar/calendar-date';
import { worksOn } from '@/core/calendar/working-days';
import type { Machine, Stage } from '@/core/machine/machine';
import { seeded } from '@/core/numeric/seeded';
import { bestPlan, roundsFor } from '@/core/plan/planner';
import type { CrewDay } from '@/core/plan/crew';
import type { PlanDays } from '@/core/plan/problem';
import { type Promised, promisesOf, withPromises } from '@/core/plan/promises';
import {
  PLAN_OPTIONS,
  type PlanInput,
  type PlannedMachine,
  type PlanOptions,
  yardProblem,
  type YardProblem,
} from '@/core/plan/yard-problem';
import { assemble } from '@/core/procedure/assemble';
import type { JobState } from '@/core/procedure/job-log';
import { freeToTake } from '@/core/stock/held';
import type { Db } from '../../db/connect';
import { loadOpenJobs } from '../../repositories/jobs';
import {
  type Away,
  countChanges,
  countRecords,
  loadAway,
  loadLocks,
  loadOpenOrders,
  loadPromises,
  type OpenOrder,
  savePromises,
} from '../../repositories/plans';
import { loadParts, partOfStages, type PartOnHand } from '../../repositories/stock';
import type { Context } from '../yard/user-action';
import { loadCrew } from './crew';
import { loadOutlook, type MachineOutlook, type YardOutlook } from './yard-outlook';
import { loadYard, type Yard } from '../yard/yard';

const LONGEST_DAYS = 52 * 7;
/** Seconds of the quick plan in a page; the worker continues from it. */
const QUICK_SECONDS = 0.3;
const SEED = 7;

export interface YardPlan {
  /** How many writes the records had seen when it was made. */
  readonly revision: number;
  readonly outlook: YardOutlook;
  readonly input: PlanInput;
  readonly options: PlanOptions;
  readonly made: YardProblem;
  readonly days: PlanDays;
  /** The days it names, with the moves since the last plan. */
  readonly promises: readonly Promised[];
  readonly parts: readonly PartOnHand[];
  readonly orders: readonly OpenOrder[];
  /** The people of each day, from today on; null where nobody's minutes are on record. */
  readonly crew: readonly CrewDay[] | null;
}

/** A stage that by rule, or by the way its maker built it, is changed only with another. */
const withOf = (machine: Machine, stage: Stage): number | null => {
  const rule = stage.rules.find((r) => r.rule.kind === 'together')?.rule;
  if (rule?.kind === 'together') return rule.stageId;
  const position = machine.stages.indexOf(stage);
  if (wayOf(machine, stage) !== 'wrap') return null;
  const made = assemble(machine, { kind: 'change', stage: position, school: 'headAside' }, machine.hazard);
  const before = made.ok ? made.value.before.find((b) => b.kind === 'afterChangeOf') : undefined;
  return before?.kind === 'afterChangeOf' ? (machine.stages[before.stage]?.id ?? null) : null;
};

/** Nothing is priced as if it lasted less, days. */
const LEAST_LIFE = 4;

/** Days of the plan on which a machine is not at hand. */
const awayDays = (away: Away | undefined, today: string): readonly number[] => {
  if (!away) return [];
  const [from, to] = [daysBetween({ from: today, to: away.from }), daysBetween({ from: today, to: away.to })];
  return Array.from({ length: LONGEST_DAYS }, (_, day) => day).filter((day) => day >= from && day <= to);
};

/** Days on which a machine cannot be opened: a washed medium dries. */
const blockedOf = (state: JobState | undefined, now: string): readonly number[] => {
  if (!state || state.driesUntil === null || state.driesUntil <= now) return [];
  const days = Math.ceil((Date.parse(state.driesUntil) - Date.parse(now)) / DAY_MS);
  return Array.from({ length: days }, (_, day) => day);
};

interface Around {
  readonly now: string;
  readonly openJobs: Yard['openJobs'];
  readonly away: ReadonlyMap<number, Away>;
  readonly today: string;
  readonly parts: readonly PartOnHand[];
  readonly locks: ReadonlyMap<number, string>;
  readonly changes: ReadonlyMap<number, number>;
}

const plannedMachine = (
  { machine, outlooks, due }: MachineOutlook,
  { now, openJobs, away, today, parts, locks, changes }: Around,
): PlannedMachine => ({
  tag: machine.tag,
  name: machine.name,
  hazard: machine.hazard,
  machineClass: machine.machineClass,
  blockedDays: [...new Set([...blockedOf(openJobs.get(machine.id), now), ...awayDays(away.get(machine.id), today)])],
  stages: outlooks.flatMap((o) => {
    const stage = machine.stages.find((s) => s.id === o.stageId);
    const lock = locks.get(o.stageId);
    // A stage whose last change is not known is looked at first: the plan would order changes that nobody needs.
    const unknown = due.some((d) => d.stageId === o.stageId && isChangeUnknown(d)) && lock === undefined;
    if (!stage || !o.forecast || unknown) return [];
    const examined = stage.rules.some((r) => r.rule.kind === 'examination');
    const index = parts.findIndex((p) => p.id === stage.part?.id);
    const lockedDay = lock === undefined ? null : daysBetween({ from: today, to: lock });
    return [
      {
        stageId: stage.id,
        name: examined ? EXAMINATION : stage.name,
        kind: stage.kind,
        reached: o.forecast.reached,
        whole: o.forecast.whole,
        part: index < 0 ? null : index,
        withStage: withOf(machine, stage),
        lockedDay: lockedDay !== null && lockedDay >= 0 ? lockedDay : null,
        latest: examined ? Math.floor(o.forecast.reached[2]) : null,
        lifeDays: Math.max(LEAST_LIFE, o.forecast.whole[2]),
        cycle: (changes.get(stage.id) ?? 0) + (examined ? machine.examinations.length : 0),
        promised: null,
      },
    ];
  }),
});

/** Everything the plan of the yard is made from. */
export const loadPlanInput = async (
  context: Pick<Context, 'db' | 'now'>,
  yard?: Yard,
): Promise<Pick<YardPlan, 'outlook' | 'input' | 'parts' | 'orders' | 'crew'>> => {
  const outlook = await loadOutlook(context, yard);
  const { today } = outlook.yard;
  const parts = await loadParts(context.db);
  const orders = await loadOpenOrders(context.db);
  const free = freeToTake({ parts, jobs: await loadOpenJobs(context.db), partOf: await partOfStages(context.db) });
  const around: Around = {
    now: context.now(),
    openJobs: outlook.yard.openJobs,
    away: await loadAway(context.db),
    today,
    parts,
    locks: await loadLocks(context.db),
    changes: await countChanges(context.db),
  };
  const works = worksOn(outlook.yard.site.working, today);
  const crew = await loadCrew(context.db, { today, days: LONGEST_DAYS });
  const input: PlanInput = {
    machines: [...outlook.machines]
      .sort((a, b) => (a.machine.tag < b.machine.tag ? -1 : 1))
      .map((m) => plannedMachine(m, around)),
    parts: parts.map((p) => ({
      id: p.code,
      name: p.name,
      bin: p.bin,
      price: p.price,
      leadDays: p.leadDays,
      onHand: Math.max(0, free.get(p.id) ?? 0),
      deliveries: orders
        .filter((o) => o.partId === p.id)
        .map((o) => ({ day: Math.max(0, daysBetween({ from: today, to: o.arrivesOn })), quantity: o.quantity })),
    })),
    works: Array.from({ length: LONGEST_DAYS }, (_, day) => works(day)),
    crew: crew && { minutes: crew.map((d) => d.minutes), containedMinutes: crew.map((d) => d.containedMinutes) },
  };
  return { outlook, input, parts, orders, crew };
};

const held = new WeakMap<Db, YardPlan>();

interface Asked {
  readonly options: PlanOptions;
  /** Whether the next plan starts from this one: a plan by other figures than the site's is a trial. */
  readonly promising: boolean;
}

const makePlan = async (
  context: Pick<Context, 'db' | 'now'>,
  yard: Yard,
  { options, promising }: Asked,
): Promise<YardPlan> => {
  const found = await loadPlanInput(context, yard);
  const counts = await countRecords(context.db);
  const ids = new Map(yard.machines.map((m) => [m.machine.tag, m.machine.id]));
  const now = {
    input: found.input,
    today: yard.today,
    records: found.input.machines.map((m) => counts.get(ids.get(m.tag) ?? 0) ?? 0),
  };
  const before = await loadPromises(context.db);
  const loaded = { ...found, input: withPromises(now, before) };
  const made = yardProblem(loaded.input, options);
  const { days } = bestPlan(made.problem, {
    random: seeded(SEED).uniform,
    rounds: roundsFor(made.problem, QUICK_SECONDS),
  });
  const promises = promisesOf(made, days, { now, promises: before });
  if (promising && JSON.stringify(promises) !== JSON.stringify(before)) await savePromises(context.db, promises);
  return { ...loaded, revision: yard.revision, options, made, days, promises };
};

/** The plan by the site's own figures. */
const optionsOf = ({
  minutesADay,
  prices: { lateFactor, openingCost, openingMinutes },
}: Yard['site']): PlanOptions => ({
  ...PLAN_OPTIONS,
  minutesADay,
  lateFactor,
  openingCost,
  openingMinutes,
});

/** The plan of a yard, made here and now: deterministic for one day and one record, and made once for them. */
export const planHere = async (context: Pick<Context, 'db' | 'now'>, yard: Yard): Promise<YardPlan> => {
  const known = held.get(context.db);
  // What hangs up to dry blocks whole days, by the hour: a plan is held for as long as its yard is.
  if (known?.outlook.yard === yard) return known;
  const plan = await makePlan(context, yard, { options: optionsOf(yard.site), promising: true });
  held.set(context.db, plan);
  return plan;
};

type PlanDesk = (context: Pick<Context, 'db' | 'now'>, yard: Yard) => Promise<YardPlan>;
const desks = new WeakMap<Db, PlanDesk>();

/** Has the yard of a file planned otherwise than here and now. */
export const planAt = (db: Db, desk: PlanDesk): void => {
  desks.set(db, desk);
};

/** The plan of the yard as its pages are drawn with it. */
export const planYard = async (
  context: Pick<Context, 'db' | 'now'>,
  { yard: known, options }: { readonly yard?: Yard; readonly options?: PlanOptions } = {},
): Promise<YardPlan> => {
  const yard = known ?? (await loadYard(context));
  if (options) return makePlan(context, yard, { options, promising: false });
  return (desks.get(context.db) ?? planHere)(context, yard);
};

/** The calendar day of a day of the plan. */
export const dateOfDay = ({ yard }: YardOutlook, day: number): string => addDays(yard.today, day);
