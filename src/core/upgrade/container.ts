export const CONTAINERS = ['bagWithClamp', 'pail', 'panWithGasket'] as const;
export type Container = (typeof CONTAINERS)[number];

export interface ContainerFit {
  /** Room left under it; below 0 where it does not go in. m. */
  readonly roomM: number;
  /** Days until it is full, at the dust a day of the machine; null where that is not known. */
  readonly daysToFull: number | null;
}

/** Filled to here it is emptied: above, dust is drawn back in. Common practice, no published source. */
const FULL_SHARE = 0.75;

/**
 * Whether a bottom container goes under a machine, and how long it lasts. m, m3, m3 a day. Source: plain arithmetic.
 * Valid: volume and heights above 0, dust 0 and more; throws RangeError otherwise.
 */
export const fitContainer = ({
  underM,
  heightM,
  volumeM3,
  dustM3PerDay,
}: {
  readonly underM: number;
  readonly heightM: number;
  readonly volumeM3: number;
  readonly dustM3PerDay: number | null;
}): ContainerFit => {
  if (!(underM > 0 && heightM > 0 && volumeM3 > 0) || (dustM3PerDay !== null && dustM3PerDay < 0))
    throw new RangeError(`container of ${heightM} m and ${volumeM3} m3 under ${underM} m`);
  return {
    roomM: underM - heightM,
    daysToFull: dustM3PerDay !== null && dustM3PerDay > 0 ? (FULL_SHARE * volumeM3) / dustM3PerDay : null,
  };
};
