import type { BondingReading, BondingStanding } from '@/core/for-work/bonding';

// The words of continuity readings.

/** Ohm as a meter shows them. */
export const sayOhm = (ohm: number | null): string =>
  ohm === null
    ? 'open'
    : ohm >= 1e6
      ? `${Number((ohm / 1e6).toPrecision(3))} MΩ`
      : ohm >= 1e3
        ? `${Number((ohm / 1e3).toPrecision(3))} kΩ`
        : `${Number(ohm.toPrecision(3))} Ω`;

const ago = (days: number): string =>
  days === 0 ? 'today' : days === 1 ? 'yesterday' : days < 0 ? '' : `${days} days ago`;

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
