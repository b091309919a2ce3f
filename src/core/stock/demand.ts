import { type Demand, packsToOrder, reorderPoint, type ReorderPoint } from './reorder';

/** Past uses of a part, and its planned ones. */
export interface PartUse {
  readonly partId: number;
  readonly packSize: number;
  readonly onHand: number;
  readonly onOrder: number;
  readonly reserved: number;
  readonly leadDays: number;
  /** Days the part keeps on the shelf; null for ever. */
  readonly shelfDays: number | null;
  /** Net pieces taken over a number of days. */
  readonly taken: number;
  readonly overDays: number;
  /** Pieces the plan takes within the lead time. */
  readonly planned: number;
  /** It is reordered below this many pieces, for any demand; null leaves it to the demand. */
  readonly minimum: number | null;
}

export interface Reorder {
  readonly partId: number;
  readonly point: ReorderPoint;
  readonly perDay: number;
  readonly packs: number;
  /** Pieces, on hand, that will not be used before their shelf life ends. */
  readonly spoils: number;
}

export const SERVICE = 0.95;
/** Spread of a lead time, as a share of it. A Moorwind default. */
const LEAD_SPREAD = 0.25;
const MONTH_DAYS = 30;

/**
 * What to order of a part: single pieces taken at random days at the rate of the ledger, and at the least what the plan
 * takes within the lead time. Source: as `reorderPoint`; the spread of the lead time is a modelling choice.
 */
export const reorderOf = (use: PartUse, service: number = SERVICE): Reorder => {
  const perDay = Math.max(0, use.taken) / Math.max(1, use.overDays);
  const demand: Demand = {
    perDay,
    perDayDeviation: Math.sqrt(perDay),
    leadDays: use.leadDays,
    leadDeviation: LEAD_SPREAD * use.leadDays,
    service,
  };
  const usual = reorderPoint(demand);
  // The planned use before an order can arrive must be in stock, in addition to the usual use.
  const least = use.minimum ?? 0;
  const point = { ...usual, point: Math.max(usual.point, use.planned, least - 1) };
  const packs = packsToOrder({
    onHand: use.onHand,
    onOrder: use.onOrder,
    reserved: use.reserved,
    point: point.point,
    packSize: use.packSize,
    cover: Math.max(perDay * MONTH_DAYS, least > 0 ? 1 : 0),
  });
  const kept = use.shelfDays === null ? Infinity : perDay * use.shelfDays;
  return {
    partId: use.partId,
    point,
    perDay,
    packs: perDay === 0 && use.planned === 0 && least === 0 && use.reserved <= use.onHand + use.onOrder ? 0 : packs,
    spoils: Math.max(0, Math.floor(use.onHand - kept)),
  };
};
