import type { Measurand } from '../measure/methods';
import { MACHINE_KINDS, type MachineKind } from './kinds';

/** Half as much again as the strongest of its kind: past this a slip of the unit is likelier than the reading. */
const HIGH_MARGIN = 1.5;
/** One per cent of the strongest of its kind: below this a slip of the unit is likelier than a plug. */
const LOW_SHARE = 0.01;

export interface Question {
  readonly code: 'reading.high' | 'reading.low';
  readonly typicalLow: number;
  readonly typicalHigh: number;
}

/**
 * Whether a reading is implausible for this kind of machine; such a reading is questioned, never refused.
 * Choice: Moorwind defaults, a modelling choice. Reading in m3/s or Pa.
 */
export const questionReading = (input: {
  kind: MachineKind;
  measurand: Measurand;
  valueSi: number;
}): Question | null => {
  if (input.measurand !== 'flow' && input.measurand !== 'suction') return null;
  const { flowM3s, suctionPa } = MACHINE_KINDS[input.kind];
  const [typicalLow, typicalHigh] = input.measurand === 'flow' ? flowM3s : suctionPa;
  if (input.valueSi > typicalHigh * HIGH_MARGIN) return { code: 'reading.high', typicalLow, typicalHigh };
  if (input.valueSi < typicalHigh * LOW_SHARE) return { code: 'reading.low', typicalLow, typicalHigh };
  return null;
};
