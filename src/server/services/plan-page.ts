import type { PlanPageJson } from '@/contracts/plan';
import { planYard, type YardPlan } from './plan-yard';
import type { Context } from './user-action';
import type { Yard } from './yard';

/** The plan of a larger yard is fetched by its page, once that stands. */
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
  // By way of its text: what is read only becomes what anybody may read.
  JSON.parse(JSON.stringify(pageOfPlan(await planYard(context, { yard }), yard))) as PlanPageJson;

/** The same where the page itself carries it; null for a larger yard. */
export const planWithPage = async (context: Context, yard: Yard): Promise<PlanPageJson | null> =>
  yard.machines.length <= WITH_PAGE ? loadPlanPage(context, yard) : null;
