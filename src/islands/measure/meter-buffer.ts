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

/** Without a line for so long, the stream is taken to have stopped. */
export const STOPPED_AFTER_MS = 3000;
