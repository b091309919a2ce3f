import { daysBetween } from '@/core/calendar/calendar-date';
import { usualDays } from '@/core/forecast/kind-days';
import { isChangeable, type Machine, type Stage } from '@/core/machine/machine';
import { mean, sampleDeviation } from '@/core/numeric/moments';
import { type ChangeRecord, inForce } from '@/core/record/records';
import { type Payback, payback, type StageSpend } from '@/core/upgrade/payback';
import type { Bench } from '../measuring/bench';
import type { UpgradePlan } from './upgrade-plan';

/** Typed prices: of the upgrade, its yearly cost, and a new part that replaces the old one. */
export interface UpgradePrices {
  readonly price: number;
  readonly addedPerYear: number;
  readonly newPart: number | null;
}

export interface UpgradeMoney {
  readonly payback: Payback;
  readonly currency: string;
  /** Openings a year and the minutes they take, before and after, middle figures. */
  readonly openings: { readonly before: number; readonly after: number; readonly minutesEach: number };
  /** Stages by name whose life is a stated figure: fewer than two finished intervals are in the ledger. */
  readonly stated: readonly string[];
  /** Stages by name whose part has no price on file. */
  readonly unpriced: readonly string[];
}

const SEED = 41_707;
/** Spread of a life known from its kind alone, and of future lives about past ones. Moorwind defaults. */
const STATED_SPREAD = 0.5;
const DRIFT = 0.2;
/** How surely the gain in life is known. A Moorwind default. */
const GAIN_SPREAD = 0.35;
const LEAST_INTERVALS = 2;
const YEAR_DAYS = 365.25;

interface Life {
  readonly days: number;
  readonly spread: number;
  readonly stated: boolean;
}

/** Days between the changes of a stage by the ledger; of its kind where there are too few. */
const lifeOf = (stage: Stage, changes: readonly ChangeRecord[]): Life => {
  const days = [
    ...new Set([stage.firstUsedOn, ...changes.filter((c) => c.stageId === stage.id).map((c) => c.performedOn)]),
  ].sort();
  const gaps = days.slice(1).map((d, i) => daysBetween({ from: days[i] ?? d, to: d }));
  const logs = gaps.filter((g) => g > 0).map(Math.log);
  if (logs.length < LEAST_INTERVALS) return { days: usualDays(stage.kind), spread: STATED_SPREAD, stated: true };
  const deviation = sampleDeviation(logs);
  return { days: Math.exp(mean(logs)), spread: Math.hypot(deviation / Math.sqrt(logs.length), DRIFT), stated: false };
};

/** The stage that the dust falls into: the bag or bin of a collector, the bag of a vacuum, a drop chamber. */
const FALLS_INTO = ['bag', 'dropChamber', 'cyclone'] as const;

/** Days in which what the dust falls into is full today, by the ledger; null where there are too few changes on record. */
export const daysToFull = (bench: Bench): number | null => {
  const { machine } = bench.status;
  const stage = FALLS_INTO.flatMap((kind) => machine.stages.find((s) => s.kind === kind && !s.missing) ?? [])[0];
  const life = stage ? lifeOf(stage, inForce(bench.changes)) : null;
  return life && !life.stated ? life.days : null;
};

/** Stages changed on one day are one opening: each bears its part of it. */
const partOfOpening = (stage: Stage, changes: readonly ChangeRecord[]): number => {
  const own = changes.filter((c) => c.stageId === stage.id);
  const shares = own.map(
    (c) => 1 / new Set(changes.filter((o) => o.performedOn === c.performedOn).map((o) => o.stageId)).size,
  );
  return shares.length === 0 ? 1 : mean(shares);
};

const priceOf = (bench: Bench, stage: Stage): number | null =>
  bench.parts.find((p) => p.id === stage.part?.id)?.price ?? null;

const changedBy = ({ changes }: UpgradePlan, { id }: Stage): boolean =>
  changes.some((c) => c.kind === 'medium' && c.stageId === id);

/** Yearly cost of a machine's stages by the ledger, their cost after the upgrade, and its payback. */
export const moneyOf = (bench: Bench, plan: UpgradePlan, prices: UpgradePrices): UpgradeMoney => {
  const { machine }: { readonly machine: Machine } = bench.status;
  const changes = inForce(bench.changes);
  const opening = bench.yard.site.prices.openingCost[machine.hazard];
  // Changed or cleaned stages only: an examination is not a change of a stage.
  const ruled = machine.stages.filter(
    (s) =>
      !s.missing &&
      isChangeable(s) &&
      (s.rules.some((r) => r.rule.kind !== 'examination') || changes.some((c) => c.stageId === s.id)),
  );
  const lives = new Map(ruled.map((s) => [s.id, lifeOf(s, changes)]));
  const stages = ruled.map((s): StageSpend => {
    const { days, spread } = lives.get(s.id) ?? { days: usualDays(s.kind), spread: STATED_SPREAD };
    const life = plan.life.find((l) => l.stageId === s.id);
    const factor = life?.factor ?? 1;
    const piece = priceOf(bench, s) ?? 0;
    const work = opening * partOfOpening(s, changes);
    const newPiece = changedBy(plan, s) ? (prices.newPart ?? piece) : piece;
    return {
      name: s.name,
      perChange: piece + work,
      perChangeAfter: life?.because === 'gone' ? 0 : newPiece + work,
      days,
      spread,
      factor,
      factorSpread: factor === 1 ? 0 : GAIN_SPREAD,
    };
  });
  const openingsOf = (of: (s: Stage) => number): number =>
    ruled.reduce(
      (sum, s) => sum + (YEAR_DAYS / (lives.get(s.id)?.days ?? YEAR_DAYS)) * partOfOpening(s, changes) * of(s),
      0,
    );
  const afterOf = (s: Stage): number => {
    const life = plan.life.find((l) => l.stageId === s.id);
    return life?.because === 'gone' ? 0 : 1 / (life?.factor ?? 1);
  };
  return {
    openings: {
      before: openingsOf(() => 1),
      after: openingsOf(afterOf),
      minutesEach: bench.yard.site.prices.openingMinutes[machine.hazard],
    },
    payback: payback({ price: prices.price, stages, addedPerYear: prices.addedPerYear, seed: SEED }),
    currency: bench.yard.site.prices.currency,
    stated: ruled.filter((s) => lives.get(s.id)?.stated).map((s) => s.name),
    unpriced: ruled.filter((s) => priceOf(bench, s) === null).map((s) => s.name),
  };
};
