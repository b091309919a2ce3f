/** The fate of a part at the end of a swap. */
export type PartFate = 'fitted' | 'disposed' | 'returned' | 'putBack';

export interface SwapEnd {
  readonly cause: 'prefilter' | 'hepa' | 'both' | 'neither';
  readonly oldPrefilter: PartFate;
  readonly newPrefilter: PartFate;
  readonly oldHepa: PartFate;
  readonly newHepa: PartFate | null;
}

/** The light, 10 to 15 s after each start; null for a step that was not reached. */
export interface SwapSeen {
  /** With the new pre-filter and the old HEPA. */
  readonly withNewPrefilter: 'out' | 'lit';
  /** With the ORIGINAL pre-filter back and a new HEPA. */
  readonly withNewHepa: 'out' | 'lit' | null;
  /** With both new. */
  readonly withBoth: 'out' | 'lit' | null;
}

/**
 * How a swap of pre-filter and HEPA ends: the old part is held until the light proves it, the original pre-filter goes
 * back before the HEPA is judged, and a new part that proved nothing returns to stock. null while a step is missing.
 * Source: common practice, no published source.
 */
export const swapEnd = ({ withNewPrefilter, withNewHepa, withBoth }: SwapSeen): SwapEnd | null => {
  if (withNewPrefilter === 'out')
    return { cause: 'prefilter', oldPrefilter: 'disposed', newPrefilter: 'fitted', oldHepa: 'fitted', newHepa: null };
  if (withNewHepa === null) return null;
  if (withNewHepa === 'out')
    return { cause: 'hepa', oldPrefilter: 'putBack', newPrefilter: 'returned', oldHepa: 'disposed', newHepa: 'fitted' };
  if (withBoth === null) return null;
  return withBoth === 'out'
    ? { cause: 'both', oldPrefilter: 'disposed', newPrefilter: 'fitted', oldHepa: 'disposed', newHepa: 'fitted' }
    : { cause: 'neither', oldPrefilter: 'putBack', newPrefilter: 'returned', oldHepa: 'putBack', newHepa: 'returned' };
};
