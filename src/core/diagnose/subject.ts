import { AS_NEW } from '../path/as-new';
import type { MachineModel, PathParameters } from '../path/machine-path';
import type { CaseSubject } from './expected';
import type { MachineTraits } from './fault';
import type { MachineRecord } from './record-prior';
import { faultSimulatorOf } from './signature';

/** Everything a case is weighed on. Plain data, for the worker. */
export interface CaseSetup {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly traits: MachineTraits;
  readonly hoseM: number | null;
  readonly nominalVolts: number;
  readonly calibrated: boolean;
  readonly baselines: Readonly<Record<string, number>>;
  readonly record: MachineRecord;
}

/** The machine of a case as the weighing sees it: its path with every fault, its traits, its own good figures. */
export const subjectOf = ({
  model,
  parameters,
  traits,
  hoseM,
  nominalVolts,
  calibrated,
  baselines,
}: CaseSetup): CaseSubject => ({
  faultSimulator: faultSimulatorOf({ model, parameters, state: AS_NEW }),
  traits,
  hoseM,
  nominalVolts,
  calibrated,
  baselines,
});
