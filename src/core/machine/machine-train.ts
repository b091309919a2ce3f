import type { Result } from '../failure/failure';
import type { Machine, Stage, MachineAirPath } from './machine';
import { CLEAN, type PathState } from '../path/machine-path';
import type { PressureProfile } from '../path/pressure-profile';
import { filterTrain, type Train, type TrainStage } from '../filter/train';

export interface TrainOf {
  readonly machine: Machine;
  /** Velocities through the media in the present state. */
  readonly stairs: PressureProfile | null;
  /** As new, for the clean resistance of each stage. */
  readonly asNew: PressureProfile | null;
  readonly state: PathState;
}

const filtersOf = (machine: MachineAirPath): readonly { readonly stage: Stage; readonly position: number }[] =>
  machine.stages
    .map((stage, position) => ({ stage, position }))
    .filter(({ stage }) => stage.spec.air.form === 'medium');

/** How many times its clean resistance a stage has now. */
const timesCleanAt = ({ asNew, state }: TrainOf, position: number): number => {
  const { loadPaSM3 } = state.stages[position] ?? CLEAN;
  const step = asNew?.steps[position];
  const clean = step && step.flowM3s > 0 ? step.dropPa / step.flowM3s : 0;
  return clean > 0 ? 1 + loadPaSM3 / clean : 1;
};

/** The filters of a machine that are in it, dirty to clean, as a train. Errors as `filterTrain`. */
export const trainOfMachine = (input: TrainOf): Result<Train> =>
  filterTrain({
    wholeBypass: 0,
    stages: filtersOf(input.machine).flatMap(({ stage, position }): readonly TrainStage[] => {
      const { air, fit } = stage.spec;
      if (air.form !== 'medium' || stage.missing) return [];
      return [
        {
          name: stage.name,
          medium: air.medium,
          rating: fit.rating,
          bypass: fit.bypass,
          // A machine without airflow gives no velocities.
          faceMs: input.stairs?.steps[position]?.faceVelocityMs || null,
          timesClean: timesCleanAt(input, position),
        },
      ];
    }),
  });
