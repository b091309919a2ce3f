import type { StageDue } from '@/core/interval/due';
import { stageDueWord } from '@/core/interval/stage-due-word';
import { THIS_WEEK_DAYS } from '@/core/interval/due-word';
import type { Machine, Stage } from '@/core/machine/machine';
import type { MachineStatus } from '@/core/status/machine-status';
import { chanceBefore } from '@/core/forecast/limit-distribution';
import type { StageOutlook } from '@/core/forecast/from-record';
import { sharedOut } from '@/core/plan/crew';
import { planYard, type YardPlan } from './plan-yard';
import { onceFor } from '../yard/once-for';
import { grouped } from '../../repositories/grouped';
import { loadParts, type PartOnHand } from '../../repositories/stock';
import type { Context } from '../yard/user-action';
import { loadYard, type Yard } from '../yard/yard';

export interface RoundLine {
  readonly status: MachineStatus;
  readonly stage: Stage;
  readonly due: StageDue;
  readonly part: PartOnHand | null;
}

/** One opening of today's plan. */
export interface WalkLine {
  readonly tag: string;
  readonly name: string;
  readonly place: string;
  readonly minutes: number;
  /** Initials of the person it is shared out to; '' where nobody may; null where nobody's time is on record. */
  readonly by: string | null;
  readonly machine: Machine;
  readonly items: readonly {
    readonly stageId: number;
    readonly stage: string;
    readonly part: { readonly name: string; readonly bin: string } | null;
    readonly outlook: StageOutlook;
    /** Chance of being past the limit when it is left for a week. */
    readonly pastInAWeek: number;
  }[];
}

/** The plan's first working day, grouped by machine, in walking order. */
const walkOf = (plan: YardPlan): readonly WalkLine[] => {
  const first = plan.made.problem.minutes.findIndex((m) => m > 0);
  const onFirst = plan.made.problem.tasks.flatMap((t, task) =>
    plan.days[task] === first ? [{ task, machine: t.machine }] : [],
  );
  const byTag = new Map(plan.outlook.machines.map((m) => [m.machine.tag, m]));
  const machines = grouped(onFirst, (t) => t.machine);
  const minutesAt = (index: number, tasks: readonly { readonly task: number }[]): number =>
    (plan.made.problem.machines[index]?.openingMinutes ?? 0) +
    tasks.reduce((sum, { task }) => sum + (plan.made.problem.tasks[task]?.minutes ?? 0), 0);
  const people = plan.crew?.[first]?.people;
  const shared =
    people &&
    sharedOut(
      [...machines].map(([index, at]) => ({
        key: String(index),
        minutes: minutesAt(index, at),
        contained: plan.made.problem.machines[index]?.contained === true,
      })),
      people,
    );
  return [...machines]
    .flatMap(([index, at]): readonly WalkLine[] => {
      const tasks = at.map((t) => t.task);
      const m = plan.input.machines[index];
      const machine = byTag.get(m?.tag ?? '');
      if (!m || !machine) return [];
      return [
        {
          tag: m.tag,
          name: m.name,
          place: machine.machine.place,
          machine: machine.machine,
          minutes: minutesAt(index, at),
          by: shared ? (shared.get(String(index))?.initials ?? '') : null,
          items: tasks.flatMap((i) => itemOf(plan, i, machine)),
        },
      ];
    })
    .sort((a, b) => (a.place < b.place ? -1 : a.place > b.place ? 1 : a.tag < b.tag ? -1 : 1));
};

const itemOf = (
  plan: YardPlan,
  i: number,
  { outlooks }: YardPlan['outlook']['machines'][number],
): WalkLine['items'] => {
  const [stage, task] = [plan.made.stages[i], plan.made.problem.tasks[i]];
  const outlook = outlooks.find((o) => o.stageId === stage?.stageId);
  if (!stage || !task || !outlook) return [];
  const part = stage.part === null ? undefined : plan.input.parts[stage.part];
  return [
    {
      stageId: stage.stageId,
      stage: stage.name,
      part: part ? { name: part.name, bin: part.bin } : null,
      outlook,
      pastInAWeek: chanceBefore(task.reached, THIS_WEEK_DAYS),
    },
  ];
};

export interface Round {
  readonly yard: Yard;
  readonly overdue: readonly RoundLine[];
  readonly today: readonly RoundLine[];
  readonly thisWeek: readonly RoundLine[];
  /** Rules that the record cannot date yet. */
  readonly undated: readonly RoundLine[];
  /** Stages whose last change is not on record: each is looked at first, and is in no plan. */
  readonly changeUnknown: readonly RoundLine[];
  /** The work of the plan's first working day, in walking order, and its distance in days. */
  readonly walk: readonly WalkLine[];
  readonly walkInDays: number;
  /** The revision of the records when its plan was made. */
  readonly planRevision: number;
  /** Machines that need something which no date tells: a low flow, a missing stage. */
  readonly attention: readonly MachineStatus[];
}

type Lists = Pick<Round, 'overdue' | 'today' | 'thisWeek' | 'undated' | 'changeUnknown' | 'attention'>;

const linesOf = (yard: Yard, parts: ReadonlyMap<number, PartOnHand>): readonly RoundLine[] =>
  yard.machines.flatMap((status) =>
    status.due.flatMap((due) => {
      const stage = status.machine.stages.find((s) => s.id === due.stageId);
      return stage ? [{ status, stage, due, part: parts.get(stage.part?.id ?? 0) ?? null }] : [];
    }),
  );

/** Needs that the lists of due parts cover, or that need nothing. */
const CALM: ReadonlySet<MachineStatus['need']['kind']> = new Set(['due', 'nothing', 'baselineOnly'] as const);

/** The lists of one yard, made once: every write makes another yard, the stock's too. */
const listsOf = onceFor((yard: Yard, parts: readonly PartOnHand[]): Lists => {
  const all = linesOf(yard, new Map(parts.map((p) => [p.id, p])));
  const dated = all
    .map((line) => ({ line, word: stageDueWord(line.due) }))
    .sort((a, b) => (a.line.due.daysLeft ?? 0) - (b.line.due.daysLeft ?? 0));
  const pick = (wanted: ReturnType<typeof stageDueWord>) =>
    dated.filter(({ word }) => word === wanted).map(({ line }) => line);
  return {
    overdue: pick('overdue'),
    today: pick('today'),
    thisWeek: pick('thisWeek'),
    undated: pick('undated'),
    changeUnknown: pick('changeUnknown'),
    attention: yard.machines.filter(({ need }) => !CALM.has(need.kind)),
  };
});

/** Stages due today, this week and overdue, with why, and machines to look at. */
export const loadRound = async (context: Context): Promise<Round> => {
  const yard = await loadYard(context);
  const plan = await planYard(context, { yard });
  return {
    yard,
    ...listsOf(yard, await loadParts(context.db)),
    walk: walkOf(plan),
    planRevision: plan.revision,
    walkInDays: Math.max(
      0,
      plan.made.problem.minutes.findIndex((m) => m > 0),
    ),
  };
};
