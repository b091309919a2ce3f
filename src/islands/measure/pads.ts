import type { Method } from '@/core/measure/methods';
import type { ReadingEntry } from '@/core/measure/test-entry';

export interface Pads {
  readonly method: Method;
  /** Readings by method: a slip on the method buttons loses none. */
  readonly pads: Readonly<Record<Method, readonly ReadingEntry[]>>;
}

/** The readings of the method at hand. */
export const readingsOf = ({ pads, method }: Pads): readonly ReadingEntry[] => pads[method];
