export const CONTAINERS = ['bagWithClamp', 'pail', 'panWithGasket'] as const;
export type Container = (typeof CONTAINERS)[number];

export interface ContainerFit {
  /** Room left under the machine; below 0 where it does not fit. m; null when not measured. */
  readonly roomM: number | null;
  /** Days until it is full, by how long the one there lasts; null where that is not known. */
  readonly daysToFull: number | null;
}

/** Whether it goes under the machine; null when that is not measured. */
export const goesUnder = ({ roomM }: Pick<ContainerFit, 'roomM'>): boolean | null =>
  roomM === null ? null : roomM >= 0;

/**
 * Whether a bottom container goes under a machine, and how long it lasts at the dust the machine makes: as long as the one
 * that is there, by their volumes. m and m3. Source: plain arithmetic. Valid: heights, volumes and days above 0; throws
 * RangeError otherwise.
 */
export const fitContainer = ({
  underM,
  heightM,
  volumeM3,
  now,
}: {
  readonly underM: number | null;
  readonly heightM: number | null;
  readonly volumeM3: number;
  /** The present container and the days it takes to fill; null where unknown. */
  readonly now: { readonly volumeM3: number; readonly days: number } | null;
}): ContainerFit => {
  const all = [underM ?? 1, heightM ?? 1, volumeM3, now?.volumeM3 ?? 1, now?.days ?? 1];
  if (!all.every((v) => v > 0)) throw new RangeError(`container of ${heightM} m and ${volumeM3} m3 under ${underM} m`);
  return {
    roomM: underM === null || heightM === null ? null : underM - heightM,
    daysToFull: now === null ? null : (now.days * volumeM3) / now.volumeM3,
  };
};
