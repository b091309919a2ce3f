export const MOVEMENT_REASONS = ['opening', 'delivery', 'taken', 'returned', 'counted', 'correction'] as const;
export type MovementReason = (typeof MOVEMENT_REASONS)[number];

export interface Movement {
  readonly partId: number;
  /** Pieces in (positive) or out (negative). */
  readonly quantity: number;
}

/** Pieces on hand of each part: always the sum of the ledger, never a stored number. May be negative: to settle. */
export const onHand = (movements: readonly Movement[]): ReadonlyMap<number, number> => {
  const sums = new Map<number, number>();
  for (const { partId, quantity } of movements) sums.set(partId, (sums.get(partId) ?? 0) + quantity);
  return sums;
};

/** The movement that brings the ledger to a counted number; 0 when it already agrees. Pieces. Definition: the sum of the ledger. Valid: whole numbers. */
export const countDifference = ({ counted, ledger }: { counted: number; ledger: number }): number => counted - ledger;

/** Whether a ledger says less than nothing: a piece was taken that was never booked in. */
export const isBelowNone = (onHand: number): boolean => onHand < 0;
