import type { Part } from './part';

// Two entries of one part. A wrong merge fits a wrong filter, so every difference refuses it.

export const NO_MERGE = [
  'same',
  'alreadyMerged',
  'keptIsRetired',
  'onOrder',
  'held',
  'otherMedium',
  'otherArea',
  'otherRating',
  'otherSeat',
] as const;
export type NoMerge = (typeof NO_MERGE)[number];

interface Side {
  readonly part: Part;
  /** Kinds of stage that take it. */
  readonly seats: ReadonlySet<string>;
}

interface Merge {
  readonly gone: Side;
  readonly kept: Side;
  /** The one that goes was merged before. */
  readonly merged: boolean;
  /** Pieces of the one that goes that are on order. */
  readonly onOrder: number;
  /** Open jobs and cases that have one of it in hand. */
  readonly held: number;
}

/** Areas further apart than this are two filters, not two readings of one label. A Moorwind default. */
const SAME_AREA = 0.05;

const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');
const differ = (a: string, b: string): boolean => a.trim() !== '' && b.trim() !== '' && plain(a) !== plain(b);

const areasDiffer = (a: number | null, b: number | null): boolean =>
  a !== null && b !== null && !(Math.abs(a - b) <= SAME_AREA * Math.max(a, b));

/** Why two entries are not one and the same part, or cannot be made one now; null when nothing speaks against it. */
export const whyNotMerged = ({ gone, kept, merged, onOrder, held }: Merge): NoMerge | null => {
  if (gone.part.id === kept.part.id) return 'same';
  if (merged) return 'alreadyMerged';
  if (kept.part.retired) return 'keptIsRetired';
  if (onOrder > 0) return 'onOrder';
  if (held > 0) return 'held';
  if (differ(gone.part.medium, kept.part.medium)) return 'otherMedium';
  if (areasDiffer(gone.part.areaM2, kept.part.areaM2)) return 'otherArea';
  if (differ(gone.part.rating, kept.part.rating)) return 'otherRating';
  const shared = [...gone.seats].some((s) => kept.seats.has(s));
  return gone.seats.size > 0 && kept.seats.size > 0 && !shared ? 'otherSeat' : null;
};

/** The part an entry is read as, after every merge. Part numbers. Source: the merges on record. Valid: no part is merged twice. */
export const standsFor = (partId: number, merged: ReadonlyMap<number, number>): number => {
  let id = partId;
  for (let steps = merged.size; steps > 0; steps--) id = merged.get(id) ?? id;
  return id;
};
