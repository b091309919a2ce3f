import type { PlanPageJson } from '@/contracts/plan';
import { planYard, type YardPlan } from './plan-yard';
import type { Context } from '../yard/user-action';
import type { Yard } from '../yard/yard';

/** Largest yard whose plan is sent with the page, machines; a larger one is fetched. */
const WITH_PAGE = 60;

const pageOfPlan = ({ input, options, days, revision, outlook }: YardPlan, yard: Yard) => ({
  input,
  options,
  days,
  today: outlook.yard.today,
  behind: revision !== yard.revision,
});

/** The data of the plan page. */
export const loadPlanPage = async (context: Context, yard: Yard): Promise<PlanPageJson> =>
  // Copied by way of its text, because the types are read-only.
  JSON.parse(JSON.stringify(pageOfPlan(await planYard(context, { yard }), yard))) as PlanPageJson;

/** The same where the page itself carries it; null for a larger yard. */
export const planWithPage = async (context: Context, yard: Yard): Promise<PlanPageJson | null> =>
  yard.machines.length <= WITH_PAGE ? loadPlanPage(context, yard) : null;
