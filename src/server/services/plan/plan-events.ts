import { plannedOpenings } from '@/core/plan/planned-openings';
import { dateOfDay, type YardPlan } from './plan-yard';

/** One opening of the plan, as a calendar or a reminder tells it. */
export interface PlanEvent {
  /** The same for the same opening, wherever the plan moves it: the machine, the change its first stage had before, and how many turns lie between. */
  readonly uid: string;
  readonly day: string;
  readonly tag: string;
  readonly name: string;
  readonly place: string;
  readonly stages: readonly string[];
  readonly parts: readonly { readonly name: string; readonly bin: string }[];
}

/** The openings of a plan, by day. Their ids do not move with their days: who subscribes sees them moved, not doubled. */
export const planEvents = (plan: YardPlan): readonly PlanEvent[] =>
  plannedOpenings(plan.made, plan.days).map(({ machine, day, tasks }) => {
    const planned = plan.input.machines[machine];
    const known = plan.outlook.machines.find((m) => m.machine.tag === planned?.tag)?.machine;
    const stages = tasks.flatMap((i) => plan.made.stages[i] ?? []);
    const first = [...stages].sort((a, b) => a.turn - b.turn || a.stageId - b.stageId)[0];
    const later = first && first.turn > 1 ? `-turn-${first.turn}` : '';
    const since = known?.stages.find((s) => s.id === first?.stageId)?.fittedOn ?? 'first-use';
    return {
      uid: `${planned?.tag ?? ''}-${first?.stageId ?? 0}-after-${since}${later}@moorwind`.toLowerCase(),
      day: dateOfDay(plan.outlook, day),
      tag: planned?.tag ?? '',
      name: planned?.name ?? '',
      place: known?.place ?? '',
      stages: stages.map((s) => s.name),
      parts: stages
        .flatMap((s) => (s.part === null ? [] : [plan.input.parts[s.part]]))
        .flatMap((x) => (x ? [{ name: x.name, bin: x.bin }] : [])),
    };
  });
