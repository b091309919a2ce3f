import { SEAL_LEAK } from '../constants/path';
import type { Failure } from '../failure/failure';
import type { Machine, MachineAirPath } from '../machine/machine';
import type { MachineModel, PathParameters } from '../path/machine-path';
import { templateParameters } from '../path/pressure-profile';
import { inForce, type TestRecord } from '../record/records';
import { type Calibration, calibrate } from './calibrate';
import type { Observation } from './observation';
import { observationsOfTest } from './observations-of-tests';

export const modelOfMachine = (machine: MachineAirPath): MachineModel => ({
  stages: machine.stages.map(({ id, kind, name, missing, spec }) => ({ id, kind, name, missing, spec })),
  hoseBoreM: machine.hoseBoreM,
  hoseLengthM: machine.hoseLengthM,
});

/** The machine in good order: a baseline is taken with every stage in place. */
export const wholeModel = (model: MachineModel): MachineModel => ({
  ...model,
  stages: model.stages.map((s) => ({ ...s, missing: false })),
});

export type Basis =
  | { readonly kind: 'calibrated'; readonly calibration: Calibration }
  /** Drawn from typical figures; why not calibrated, null where nothing was measured yet. */
  | { readonly kind: 'template'; readonly why: Failure | null; readonly observations: number };

export interface ModelledMachine {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly basis: Basis;
}

/** One method at one place: only its newest baseline speaks. */
const seriesKey = ({ test }: TestRecord): string =>
  JSON.stringify([test.method, test.place, 'stageId' in test.detail ? test.detail.stageId : null]);

/** The baselines that hold: standing, usable, of the path as it runs now, the newest of each method and place. */
export const baselinesOf = (tests: readonly TestRecord[], since: string | null): readonly TestRecord[] => {
  const newest = new Map<string, TestRecord>();
  for (const test of inForce(tests)) {
    const key = seriesKey(test);
    const held = newest.get(key);
    const ofThisPath = since === null || test.performedAt > since;
    if (
      ofThisPath &&
      test.isBaseline &&
      test.test.failedPreconditions.length === 0 &&
      (!held || held.performedAt < test.performedAt)
    )
      newest.set(key, test);
  }
  return [...newest.values()].sort((a, b) => a.id - b.id);
};

export const baselineObservations = (machine: Machine, tests: readonly TestRecord[]): readonly Observation[] =>
  baselinesOf(tests, machine.reshapedAt).flatMap((t) => observationsOfTest(t, machine));

/**
 * A machine's model, calibrated on its baselines where they allow it. Returns calibration errors; never throws them.
 */
export const modelledMachine = (machine: Machine, tests: readonly TestRecord[]): ModelledMachine => {
  const model = modelOfMachine(machine);
  const template = templateParameters(model, SEAL_LEAK.value);
  const observations = baselineObservations(machine, tests);
  if (observations.length === 0)
    return { model, parameters: template, basis: { kind: 'template', why: null, observations: 0 } };
  const calibration = calibrate(wholeModel(model), observations);
  if (calibration.ok)
    return {
      model,
      parameters: calibration.value.parameters,
      basis: { kind: 'calibrated', calibration: calibration.value },
    };
  return {
    model,
    parameters: template,
    basis: { kind: 'template', why: calibration.failures[0] ?? null, observations: observations.length },
  };
};
