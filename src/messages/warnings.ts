import type { Question } from '@/core/machine/plausible';

/** A reading that is implausible for the kind of machine: asked, never refused. */
export const sayQuestion = (q: Question): string =>
  q.code === 'reading.high'
    ? 'That is high for this kind of machine. Is the unit right?'
    : 'That is very low for this kind of machine. Is the unit right?';

export const sayShort = ({ partName, onHand }: { partName: string; onHand: number }): string =>
  `Stock of "${partName}" is now ${onHand}. Count the shelf to correct it.`;
