import type { BondingReading, BondingStanding } from '@/core/for-work/bonding';
import { ago, sayOhm } from './format';

// The words of continuity readings.

export const sayBondingReading = ({ ohm, between }: BondingReading): string => `${sayOhm(ohm)}, ${between}`;

/** The state of a machine's bonding paths. */
export const sayBonding = (standing: BondingStanding, tag: string): string => {
  switch (standing.kind) {
    case 'never':
      return `No continuity reading of ${tag} on record.`;
    case 'open':
      return `${tag} read open ${ago(standing.daysAgo)} (${standing.reading.between}): no path to earth. Repair it and measure again before use.`;
    case 'reads':
      return `${tag} read ${sayBondingReading(standing.reading)}, ${ago(standing.daysAgo)}. Its maker says what is enough.`;
  }
};
