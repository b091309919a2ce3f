import { expectedOverrun, expectedWaste } from '../forecast/limit-distribution';
import type { PlanTask } from './problem';

/** Price of the first day past a last day, in money, and the days after which the next one costs twice as much. Modelling choices: above any opening and any moved promise. */
const FIRST_LATE_DAY = 250;
const DOUBLES_IN = 10;

/** Price of so many days past a last day, in money: it rises with each day. Choice: a modelling choice. Valid: any number of days; 0 up to the last day. */
export const lateCost = (days: number): number => (days <= 0 ? 0 : FIRST_LATE_DAY * days * (1 + days / DOUBLES_IN));

/** The costs of one task on one day, in money. */
export interface TaskCost {
  readonly waste: number;
  readonly overrun: number;
  readonly late: number;
  readonly move: number;
}

const moveCost = (promised: PlanTask['promised'], day: number): number =>
  promised === null || promised.day === day ? 0 : day > promised.day ? promised.later : promised.sooner;

/**
 * The costs of a task on a day, in money, without its opening: part life thrown away, days past the limit, days past its
 * last day, and a moved promise. Definition: the planning problem as stated in `problem`. Valid: a day of the horizon.
 */
export const taskCost = (t: PlanTask, day: number): TaskCost => ({
  waste: t.lifeValuePerDay * expectedWaste(t.reached, day),
  overrun: t.overrunCostPerDay * expectedOverrun(t.reached, day),
  late: t.lastDay === null ? 0 : lateCost(day - t.lastDay),
  move: moveCost(t.promised, day),
});

/** The sum of the costs of a task on a day, in money. Definition: as `taskCost`. Valid: a day of the horizon. */
export const wholeTaskCost = (t: PlanTask, day: number): number => {
  const { waste, overrun, late, move } = taskCost(t, day);
  return waste + overrun + late + move;
};
