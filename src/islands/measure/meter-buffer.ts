import type { Sample } from '@/core/measure/settling';

/** The readings kept of a streaming meter; bounded for any rate. */
export interface MeterBuffer {
  readonly samples: readonly Sample[];
  readonly lastAtMs: number | null;
  readonly dropped: number;
  readonly garbage: number;
  readonly flooded: boolean;
}

export const EMPTY_BUFFER: MeterBuffer = { samples: [], lastAtMs: null, dropped: 0, garbage: 0, flooded: false };

/** After this long without a line, the stream counts as stopped, ms. */
export const STOPPED_AFTER_MS = 3000;
