import type { Random } from '../../../demo/random';
import { between, chanceOf } from './work';

// A machine as it is made: what its bag holds, what its fan can do, and how its filter clogs. Flow is in m3/s, Pa in Pa.

export type TrueRule =
  | { readonly kind: 'fill'; readonly share: number }
  | { readonly kind: 'flowLost'; readonly share: number }
  | { readonly kind: 'hoseVelocity' }
  | { readonly kind: 'gaugeZone'; readonly zone: 'amber' | 'red' }
  | { readonly kind: 'runHours'; readonly hours: number }
  | { readonly kind: 'countOfChanges'; readonly count: number }
  | { readonly kind: 'calendarDays'; readonly days: number };

export interface Made {
  readonly boreM: number;
  /** Grams a bag holds to its brim, and how its height grows with them. */
  readonly brimGrams: number;
  readonly heap: number;
  /** Flow at a filter load and a bag load, both as Pa per (m3/s). */
  readonly flow: (filter: number, bag: number) => number;
  readonly cleanFilter: number;
  /** Load of the filter with so many grams in it. */
  readonly cake: (grams: number) => number;
  /** Load of a bag by its share of the brim. */
  readonly bagLoad: (share: number) => number;
  readonly gauge: { readonly amberPa: number; readonly redPa: number } | null;
  readonly bagRules: readonly TrueRule[];
  readonly filterRules: readonly TrueRule[];
}

interface Fan {
  readonly shutOff: number;
  readonly free: number;
  readonly bend: number;
}

const lift = ({ shutOff, free, bend }: Fan, q: number): number => shutOff * (1 - (q / free) ** bend);

/** The flow at which the fan lifts what the path takes. */
const balance = (fan: Fan, takes: (q: number) => number): number => {
  let [low, high] = [0, fan.free];
  for (let i = 0; i < 30; i += 1) {
    const q = (low + high) / 2;
    if (lift(fan, q) > takes(q)) low = q;
    else high = q;
  }
  return low;
};

const BORES = [0.027, 0.032, 0.036] as const;
/** Speed in the hose that an M machine must not fall below, m/s. */
export const LEAST_SPEED = 20;
export const hoseArea = (boreM: number): number => (Math.PI / 4) * boreM ** 2;

const bagRulesOf = (r: Random): readonly TrueRule[] => {
  const dice = r.uniform();
  const wear: TrueRule =
    dice < 0.8
      ? { kind: 'fill', share: [0.5, 0.75, 1][Math.floor(r.uniform() * 3)] ?? 1 }
      : { kind: 'runHours', hours: Math.round(between(r, 12, 45)) };
  return [wear, ...(chanceOf(r, 0.15) ? [{ kind: 'calendarDays', days: 60 } as const] : [])];
};

const filterRulesOf = (r: Random): readonly TrueRule[] => {
  const dice = r.uniform();
  const wear: TrueRule =
    dice < 0.32
      ? { kind: 'flowLost', share: chanceOf(r, 0.5) ? 0.25 : 0.2 }
      : dice < 0.54
        ? { kind: 'gaugeZone', zone: chanceOf(r, 0.7) ? 'red' : 'amber' }
        : dice < 0.7
          ? { kind: 'hoseVelocity' }
          : dice < 0.86
            ? { kind: 'countOfChanges', count: Math.round(between(r, 4, 12)) }
            : { kind: 'runHours', hours: Math.round(between(r, 120, 500)) };
  return [
    wear,
    ...(chanceOf(r, 0.2) ? [{ kind: 'calendarDays', days: 365 } as const] : []),
    ...(wear.kind === 'gaugeZone' && chanceOf(r, 0.3) ? [{ kind: 'flowLost', share: 0.25 } as const] : []),
  ];
};

/** Where a rule of the filter is reached, as its load; null for rules that the load does not reach. */
export const loadOfRule = (made: Made, rule: TrueRule, baselineFlow: number): number | null => {
  const past: ((load: number) => boolean) | null =
    rule.kind === 'flowLost'
      ? (load) => made.flow(load, 0) <= (1 - rule.share) * baselineFlow
      : rule.kind === 'hoseVelocity'
        ? (load) => made.flow(load, 0) / hoseArea(made.boreM) <= LEAST_SPEED
        : rule.kind === 'gaugeZone' && made.gauge
          ? (load) =>
              load * made.flow(load, 0) >= ((rule.zone === 'red' ? made.gauge?.redPa : made.gauge?.amberPa) ?? 0)
          : null;
  if (!past) return null;
  let [low, high] = [made.cleanFilter, 1e8];
  for (let i = 0; i < 50; i += 1) {
    const middle = Math.sqrt(low * high);
    if (past(middle)) high = middle;
    else low = middle;
  }
  return high;
};

/** A machine whose filter lasts so many days at so many grams of fines a day. */
export const makeMachine = (r: Random, finesADay: number, gramsADay: number): Made => {
  const boreM = BORES[Math.floor(r.uniform() * BORES.length)] ?? BORES[0];
  const fan: Fan = { shutOff: between(r, 18_000, 24_000), free: between(r, 0.05, 0.07), bend: between(r, 1.2, 2) };
  // Clean it has a good deal more than it must have.
  const wanted = hoseArea(boreM) * LEAST_SPEED * between(r, 1.35, 2.1);
  const cleanFilter = between(r, 15_000, 60_000);
  const hose = Math.max(1e5, (lift(fan, wanted) - cleanFilter * wanted) / wanted ** 1.9);
  const flow: Made['flow'] = (filter, bag) => balance(fan, (q) => hose * q ** 1.9 + (filter + bag) * q);
  const redPa = between(r, 2500, 5500);
  const filterRules = filterRulesOf(r);
  const gauge = filterRules.some((x) => x.kind === 'gaugeZone')
    ? { amberPa: redPa * between(r, 0.5, 0.75), redPa }
    : null;
  const growth = between(r, 0.8, 1.5);
  const bagWeight = between(r, 0.3, 2.5);
  const bare: Made = {
    boreM,
    brimGrams: gramsADay * between(r, 14, 55),
    heap: between(r, 0.8, 1.1),
    flow,
    cleanFilter,
    cake: () => cleanFilter,
    bagLoad: (share) => cleanFilter * bagWeight * Math.min(1.3, share) ** 1.5,
    gauge,
    bagRules: bagRulesOf(r),
    filterRules,
  };
  const limits = filterRules.flatMap((rule) => loadOfRule(bare, rule, flow(cleanFilter, 0)) ?? []);
  const limit = limits.length > 0 ? Math.min(...limits) : 8 * cleanFilter;
  const gramsToLimit = finesADay * between(r, 90, 420);
  return { ...bare, cake: (grams) => cleanFilter + (limit - cleanFilter) * (grams / gramsToLimit) ** growth };
};
