import type { Fault, FaultKind } from '@/core/diagnose/fault';
import type { ModelStage } from '@/core/path/machine-path';

export type Named = Pick<ModelStage, 'name' | 'kind'>;

export const nameAt = (stages: readonly Named[], position: number): string => stages[position]?.name ?? 'stage';

/** A fault as a short sentence without its full stop. */
export const sayFault = ({ kind, position }: Pick<Fault, 'kind' | 'position'>, stages: readonly Named[]): string => {
  const name = nameAt(stages, position);
  const WORDS: Record<FaultKind, string> = {
    blocked:
      stages[position]?.kind === 'hose' || stages[position]?.kind === 'duct' || position === 0
        ? `the ${name} is plugged`
        : `the ${name} is blocked`,
    missing: `the ${name} is missing`,
    torn: `the ${name} is torn or washed out`,
    misseated: `the ${name} is not seated: dust gets round it`,
    reversed: `the ${name} is in back to front`,
    leakingSeal: `the seal at the ${name} leaks`,
    hoseHoled: `the ${name} has a hole`,
    weakFan: 'the fan is weak: worn brushes or motor',
    bearings: 'the bearings are worn',
    lowVoltage: 'the line voltage is low',
    lowSupply: 'the supply air is low',
    wrongSetting: 'speed or bleed is set wrong',
    wrongSelector: 'the hose selector is not set to the hose',
    brushJammed: 'the belt or brush roll is jammed',
    indicatorOut: 'the indicator is out of adjustment (false light)',
    spentGas: `the ${name} is spent`,
  };
  return WORDS[kind];
};
