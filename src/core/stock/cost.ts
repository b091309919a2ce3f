/** A piece taken for a machine, with its price. */
export interface PartTaken {
  readonly quantity: number;
  readonly price: number;
}

export interface MachineCost {
  readonly parts: number;
  readonly pieces: number;
  /** null where no run hours are on record for the time. */
  readonly perRunHour: number | null;
  /** null where no waste was weighed in the time. */
  readonly perKgDust: number | null;
}

/**
 * Cost of a machine's parts over a time, by run hour and by kilogram of dust where those are known. Definition: the ledger.
 */
export const machineCost = ({
  taken,
  runHours,
  wasteKg,
}: {
  readonly taken: readonly PartTaken[];
  readonly runHours: number;
  readonly wasteKg: number;
}): MachineCost => {
  const parts = taken.reduce((sum, t) => sum + t.quantity * t.price, 0);
  return {
    parts,
    pieces: taken.reduce((sum, t) => sum + t.quantity, 0),
    perRunHour: runHours > 0 ? parts / runHours : null,
    perKgDust: wasteKg > 0 ? parts / wasteKg : null,
  };
};
