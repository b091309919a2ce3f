import { addDays } from '@/core/calendar/calendar-date';
import type { PlanPageJson } from '@/contracts/plan';
import type { CrewPageJson } from '@/contracts/crew';
import { loadCrewPage } from './crew';
import { planYard, type YardPlan } from './plan-yard';
import type { Context } from '../yard/user-action';
import type { Yard } from '../yard/yard';

/** Largest yard whose plan is sent with the page, machines; a larger one is fetched. */
const WITH_PAGE = 60;

/** Days within which a moved promise is shown. */
const SHOWN_DAYS = 7;

/** Promised days that moved within the last week, the newest move first. */
const movesOf = ({ promises, input, outlook }: YardPlan) => {
  const since = addDays(outlook.yard.today, -SHOWN_DAYS);
  const stages = new Map(
    input.machines.flatMap((m) => m.stages.map((s) => [s.stageId, { tag: m.tag, stage: s.name }])),
  );
  return promises
    .flatMap(({ stageId, day, moved }) => {
      const of = stages.get(stageId);
      return of && moved && moved.on > since
        ? [{ ...of, from: moved.from, to: day, on: moved.on, because: moved.because }]
        : [];
    })
    .sort((a, b) => (a.on === b.on ? (a.to < b.to ? -1 : 1) : a.on < b.on ? 1 : -1));
};

const pageOfPlan = (plan: YardPlan, yard: Yard, crew: CrewPageJson) => ({
  crew,
  input: plan.input,
  options: plan.options,
  days: plan.days,
  moves: movesOf(plan),
  today: plan.outlook.yard.today,
  behind: plan.revision !== yard.revision,
});

/** The data of the plan page. */
export const loadPlanPage = async (context: Context, yard: Yard): Promise<PlanPageJson> =>
  // Copied by way of its text, because the types are read-only.
  JSON.parse(
    JSON.stringify(pageOfPlan(await planYard(context, { yard }), yard, await loadCrewPage(context.db, yard.today))),
  ) as PlanPageJson;

/** The same where the page itself carries it; null for a larger yard. */
export const planWithPage = async (context: Context, yard: Yard): Promise<PlanPageJson | null> =>
  yard.machines.length <= WITH_PAGE ? loadPlanPage(context, yard) : null;
