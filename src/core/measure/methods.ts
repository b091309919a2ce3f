import type { Measurand } from '../machine/plausible';
import type { QuantityKind } from '../units';

export type Method = 'flowMeter' | 'anemometer' | 'sealedSuction';

export interface MethodFacts {
  readonly label: string;
  /** What the instrument shows. */
  readonly reads: QuantityKind;
  /** What the reduction gives. */
  readonly measurand: Measurand;
  readonly needsBore: boolean;
}

export const METHODS: Record<Method, MethodFacts> = {
  flowMeter: { label: 'flow meter', reads: 'flow', measurand: 'flow', needsBore: false },
  anemometer: { label: 'anemometer in a pipe', reads: 'velocity', measurand: 'flow', needsBore: true },
  sealedSuction: { label: 'sealed suction', reads: 'pressure', measurand: 'suction', needsBore: false },
};

/** What must hold before a reading counts. Source: common practice, no published source. */
export type Precondition = 'speedHigh' | 'bleedClosed' | 'hoseAsBaseline' | 'settled' | 'rigSealed' | 'meterZeroed' | 'brushStated';

/** The preconditions to be ticked for a method, in the order a technician meets them. */
export const preconditionsFor = (input: { method: Method; hasBrush: boolean }): readonly Precondition[] => [
  'speedHigh',
  'bleedClosed',
  'hoseAsBaseline',
  ...(input.hasBrush ? (['brushStated'] as const) : []),
  'settled',
  'rigSealed',
  'meterZeroed',
];
