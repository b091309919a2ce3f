import negativeBinomialQuantile from '@stdlib/stats-base-dists-negative-binomial-quantile';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import poissonQuantile from '@stdlib/stats-base-dists-poisson-quantile';

export interface Demand {
  /** Pieces a day, mean, 0 or more. */
  readonly perDay: number;
  /** Spread of a day's demand, pieces. */
  readonly perDayDeviation: number;
  /** Days from order to shelf, mean, 0 or more. */
  readonly leadDays: number;
  /** Spread of the lead time, days. */
  readonly leadDeviation: number;
  /** Chance wanted that nothing runs out while an order is under way, above 0 and below 1. */
  readonly service: number;
}

export interface ReorderPoint {
  /** Reorder when stock and open orders fall to this, pieces. */
  readonly point: number;
  readonly leadDemand: number;
  readonly safety: number;
  readonly by: 'poisson' | 'negativeBinomial' | 'normal';
}

/** Below this mean the demand of a lead time is counted in pieces, not taken as normal. */
const FEW = 10;
/** Above this deviation over mean the normal form would count on demand below nothing. Source: Silver, Pyke and Peterson, Inventory Management, ch. 7 (from memory). */
const WIDE = 0.5;

/** Largest number of pieces; a larger one would take too long to compute. Choice: more than any workshop keeps. */
export const MOST_PIECES = 1e5;

/** Pieces in a lead time that are none. */
const NOTHING = 1e-9;

interface Spread {
  readonly mean: number;
  readonly deviation: number;
  readonly service: number;
}

/** The negative binomial of a mean m and a variance v: r = m^2 / (v - m) successes at p = m / v each. */
const quantileOf: Record<ReorderPoint['by'], (spread: Spread) => number> = {
  poisson: ({ mean, service }) => poissonQuantile(service, mean),
  negativeBinomial: ({ mean, deviation, service }) =>
    negativeBinomialQuantile(service, mean ** 2 / (deviation ** 2 - mean), mean / deviation ** 2),
  normal: ({ mean, deviation, service }) => mean + normalQuantile(service, 0, 1) * deviation,
};

const leadOf = ({ perDay, perDayDeviation, leadDays, leadDeviation }: Demand): Omit<Spread, 'service'> => ({
  mean: perDay * leadDays,
  deviation: Math.sqrt(leadDays * perDayDeviation ** 2 + perDay ** 2 * leadDeviation ** 2),
});

/** Whether a demand is of a size that `reorderPoint` counts. */
export const isWorkshopDemand = (demand: Demand): boolean => {
  const { mean, deviation } = leadOf(demand);
  return mean <= MOST_PIECES && deviation <= MOST_PIECES;
};

/** How the demand of a lead time is taken to be spread. */
const formOf = (mean: number, deviation: number): ReorderPoint['by'] =>
  mean >= FEW && deviation <= WIDE * mean ? 'normal' : deviation ** 2 > mean ? 'negativeBinomial' : 'poisson';

/**
 * The reorder point of a part: mean demand over the lead time with a safety stock for a service level. Source: normal
 * form d L + z sqrt(L s_d^2 + d^2 s_L^2), Heizer and Render, Operations Management, ch. on inventory; for few pieces the
 * Poisson quantile, and where they are spread wider than that the negative binomial of the same mean and variance, Silver,
 * Pyke and Peterson, Inventory Management. Valid: as the fields say, lead demand and its deviation to 100 000 pieces; throws RangeError
 * outside.
 */
export const reorderPoint = (demand: Demand): ReorderPoint => {
  const { perDay, perDayDeviation, leadDays, leadDeviation, service } = demand;
  if (!(perDay >= 0 && perDayDeviation >= 0 && leadDays >= 0 && leadDeviation >= 0))
    throw new RangeError('demand, lead time and their spreads must be 0 or more');
  if (!(service > 0 && service < 1)) throw new RangeError(`service ${service} must lie between 0 and 1`);
  if (!isWorkshopDemand(demand)) throw new RangeError(`this demand is beyond ${MOST_PIECES} pieces in a lead time`);
  const { mean: leadDemand, deviation } = leadOf(demand);
  if (leadDemand < NOTHING) return { point: 0, leadDemand, safety: 0, by: 'poisson' };
  const by = formOf(leadDemand, deviation);
  const point = quantileOf[by]({ mean: leadDemand, deviation, service });
  return { point, leadDemand, safety: point - leadDemand, by };
};

export interface OrderFor {
  readonly onHand: number;
  readonly onOrder: number;
  readonly reserved: number;
  readonly point: number;
  /** Pieces in a pack, 1 or more. */
  readonly packSize: number;
  /** Pieces that are used while a fresh order lasts; with demand at the least one pack is ordered, without it none. */
  readonly cover: number;
}

/** Packs to order now: none above the point, otherwise enough to be above it by what is to be covered. Source: order-up-to rule. Valid: a pack of one piece or more. */
export const packsToOrder = ({ onHand, onOrder, reserved, point, packSize, cover }: OrderFor): number => {
  const position = onHand + onOrder - reserved;
  // Without use only promised and missing pieces are ordered.
  if (point <= 0 && cover <= 0) return Math.max(0, Math.ceil(-position / packSize));
  return position > point ? 0 : Math.max(1, Math.ceil((point + Math.max(cover, 1) - position) / packSize));
};
