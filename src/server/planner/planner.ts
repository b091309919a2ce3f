// A process of its own that plans a large yard: its forecasts and its search would hold every answer of the server back.
import { openDatabase } from '../db/connect';
import { planYard, type YardPlan } from '../services/plan/plan-yard';

/** The question to the planner: a plan as of a moment, UTC ISO. */
export interface PlanAsked {
  readonly now: string;
}

/** A plan without its yard, which the server has itself. */
export type PlanMade =
  | {
      readonly ok: true;
      readonly plan: Omit<YardPlan, 'outlook'>;
      readonly outlooks: readonly {
        readonly machineId: number;
        readonly outlooks: YardPlan['outlook']['machines'][number]['outlooks'];
      }[];
    }
  | { readonly ok: false; readonly because: string };

const [, , file = ''] = process.argv;
const db = openDatabase(file);

const made = async ({ now }: PlanAsked): Promise<PlanMade> => {
  try {
    const { outlook, ...plan } = await planYard({ db, now: () => now });
    return {
      ok: true,
      plan,
      outlooks: outlook.machines.map(({ machine, outlooks }) => ({ machineId: machine.id, outlooks })),
    };
  } catch (error) {
    return { ok: false, because: String(error) };
  }
};

process.on('message', (asked: PlanAsked) => {
  // The server may have ended meanwhile: then the answer is dropped.
  void made(asked).then((answer) => process.send?.(answer, undefined, undefined, () => undefined));
});
// The server that asked is gone.
process.on('disconnect', () => process.exit(0));
