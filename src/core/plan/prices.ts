export interface LifePriced {
  readonly partPrice: number;
  /** Middle life of the part, days, above 0. */
  readonly lifeDays: number;
  readonly openingCost: number;
  /** Its own openings set the machine's rhythm (a bag): an earlier opening makes the next one earlier too. */
  readonly setsTheRhythm: boolean;
  /** Price of a day past the limit, in times of a wasted day of life; above 0. */
  readonly lateFactor: number;
}

/** A part without a price is worth this all the same, in money: what costs nothing would be planned for any day. A modelling choice. */
const LEAST_WORTH = 8;

/**
 * The price of a wasted day of life, and of a day past the limit: the part by its life, with its share of an opening
 * where it sets the rhythm; a late day costs that many times more. Choice: a modelling choice; all of it is an input.
 */
export const priceLife = ({
  partPrice,
  lifeDays,
  openingCost,
  setsTheRhythm,
  lateFactor,
}: LifePriced): { readonly lifeValuePerDay: number; readonly overrunCostPerDay: number } => {
  const lifeValuePerDay = Math.max(LEAST_WORTH, partPrice + (setsTheRhythm ? openingCost : 0)) / Math.max(1, lifeDays);
  return { lifeValuePerDay, overrunCostPerDay: lateFactor * lifeValuePerDay };
};
