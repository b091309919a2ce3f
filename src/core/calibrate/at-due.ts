import { type PressureProfile, pressureProfile } from '../path/pressure-profile';
import type { PathView } from './path-view';

export interface AtDueInput {
  readonly view: PathView;
  /** Position of the stage that comes due. */
  readonly position: number;
  /** Share of its life that is used today, above 0, at most 1. */
  readonly shareUsed: number;
}

/** Less used than this says too little of the load to come. */
const LEAST_USED = 0.05;

/**
 * The staircase on the day a stage comes due: its load of today grows in proportion to its life, the other loads stay
 * the same. null for a stage without load, or without a working point. Source: the air-path model; linear growth of
 * load is a modelling choice.
 */
export const stairsAtDue = ({ view, position, shareUsed }: AtDueInput): PressureProfile | null => {
  const today = view.today.state.stages[position];
  if (!today || !(today.loadPaSM3 > 0) || !(shareUsed >= LEAST_USED && shareUsed <= 1)) return null;
  const stages = { ...view.today.state.stages, [position]: { ...today, loadPaSM3: today.loadPaSM3 / shareUsed } };
  const drawn = pressureProfile({
    model: view.model,
    parameters: view.parameters,
    state: { ...view.today.state, stages },
  });
  return drawn.ok ? drawn.value : null;
};
