import type { Question } from '@/core/machine/plausible';

/** A reading that is implausible for the kind of machine: asked, never refused. */
export const sayQuestion = (q: Question): string =>
  q.code === 'reading.high'
    ? 'That is more than machines of this kind give. Is the unit right?'
    : 'That is next to nothing for a machine of this kind. Is the unit right?';

export const sayShort = ({ partName, onHand }: { partName: string; onHand: number }): string =>
  `The ledger now has ${onHand} of "${partName}": it was taken all the same. Count the shelf to settle it.`;
