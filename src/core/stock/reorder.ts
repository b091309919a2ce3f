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
  /** Order when what is on the shelf and on order falls to this, pieces. */
  readonly point: number;
  readonly leadDemand: number;
  readonly safety: number;
  readonly by: 'poisson' | 'normal';
}

/** Below this mean the demand of a lead time is counted in pieces, not taken as normal. */
const FEW = 10;

/**
 * The reorder point of a part: mean demand over the lead time with a safety stock for a service level. Source: normal
 * form d L + z sqrt(L s_d^2 + d^2 s_L^2), Heizer and Render, Operations Management, ch. on inventory; for few pieces the
 * Poisson quantile, Silver, Pyke and Peterson, Inventory Management. Valid: as the fields say; throws RangeError outside.
 */
export const reorderPoint = ({ perDay, perDayDeviation, leadDays, leadDeviation, service }: Demand): ReorderPoint => {
  if (!(perDay >= 0 && perDayDeviation >= 0 && leadDays >= 0 && leadDeviation >= 0))
    throw new RangeError('demand, lead time and their spreads must be 0 or more');
  if (!(service > 0 && service < 1)) throw new RangeError(`service ${service} must lie between 0 and 1`);
  const leadDemand = perDay * leadDays;
  const deviation = Math.sqrt(leadDays * perDayDeviation ** 2 + perDay ** 2 * leadDeviation ** 2);
  if (leadDemand < FEW) {
    // A spread wider than that of single pieces is met by a larger mean.
    const point =
      leadDemand === 0
        ? 0
        : poissonQuantile(service, Math.max(leadDemand, leadDemand + (deviation ** 2 - leadDemand) / 2));
    return { point, leadDemand, safety: point - leadDemand, by: 'poisson' };
  }
  const safety = normalQuantile(service, 0, 1) * deviation;
  return { point: leadDemand + safety, leadDemand, safety, by: 'normal' };
};

export interface OrderFor {
  readonly onHand: number;
  readonly onOrder: number;
  readonly reserved: number;
  readonly point: number;
  /** Pieces in a pack, 1 or more. */
  readonly packSize: number;
  /** Pieces that are used while a fresh order lasts, at the least one pack. */
  readonly cover: number;
}

/** Packs to order now: none above the point, otherwise enough to be above it by what is to be covered. Source: order-up-to rule. Valid: a pack of one piece or more. */
export const packsToOrder = ({ onHand, onOrder, reserved, point, packSize, cover }: OrderFor): number => {
  const position = onHand + onOrder - reserved;
  return position > point ? 0 : Math.max(1, Math.ceil((point + Math.max(cover, 1) - position) / packSize));
};
