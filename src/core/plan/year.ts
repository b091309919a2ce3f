import { STAGE_KINDS } from '../path/stage-kinds';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { seeded } from '../numeric/seeded';
import type { ReachQuantiles } from '../forecast/limit-distribution';
import { lateWeight } from './last-day';
import { priceLife } from './prices';
import { KNOWN_TO } from './turns';
import { minutesOf, type PlanInput, type PlannedMachine, type PlannedStage, type PlanOptions } from './yard-problem';

/** A yearly figure as a range: 10, 50 and 90 % of the ways the year may go. */
export type Range = readonly [low: number, middle: number, high: number];

export interface YearAhead {
  readonly openings: Range;
  readonly minutes: Range;
  /** Parts and openings in money. */
  readonly cost: Range;
  /** Days run past a limit, over all stages. */
  readonly daysPast: Range;
  /** Share of all days of all stages that are past a limit. */
  readonly sharePast: Range;
  /** Parts by month, by their position: 12 ranges each; only parts that are used. */
  readonly parts: readonly { readonly part: number; readonly year: Range; readonly months: readonly Range[] }[];
  /** Minutes a week, the range of the fullest week, and what there is in one. */
  readonly fullestWeek: Range;
}

const DAYS = 365;
const MONTHS = 12;
const WEEK = 7;
/** Number of simulated years. */
const WAYS = 120;
/** Spread of a machine's use of a year about its record, as a logarithm. A modelling choice. */
const USE_SPREAD = 0.18;
/** No stage comes round more often, days. */
const LEAST_DAYS = 4;

const MASS = [0, 0.1, 0.5, 0.9, 1] as const;

/** A value of a piecewise linear distribution at a chance. */
const at = (q: ReachQuantiles, u: number): number => {
  const k = Math.max(
    0,
    MASS.findLastIndex((p, i) => p <= u && i < 4),
  );
  const [p0, p1, a, b] = [MASS[k] ?? 0, MASS[k + 1] ?? 1, q[k] ?? 0, q[k + 1] ?? 0];
  return a + ((u - p0) / (p1 - p0)) * (b - a);
};

/** An interval that only the calendar ends does not depend on use. */
const usedBy = (q: ReachQuantiles, use: number): number => (q[4] - q[0] < 1 ? 1 : use);

interface Clock {
  readonly stage: PlannedStage;
  /** The day its limit is really reached. */
  limit: number;
  /** The day it is to be changed as far as is known when it comes near. */
  wanted: number;
  /** When it was last changed. */
  since: number;
}

interface Tally {
  openings: number;
  minutes: number;
  cost: number;
  past: number;
  readonly parts: Map<number, Float64Array>;
  readonly weeks: Float64Array;
}

interface Around {
  readonly input: PlanInput;
  readonly options: PlanOptions;
  readonly random: ReturnType<typeof seeded>;
  readonly nextOpen: Int32Array;
}

/** The cheapest day for a change, with the limit known this well: the newsvendor's share of the price of a late day. */
const wantedDay = (
  limit: number,
  length: number,
  { lateFactor, normal }: { readonly lateFactor: number; readonly normal: number },
): number => {
  const share = 1 / (1 + Math.max(0.01, lateFactor));
  const spread = KNOWN_TO * Math.min(length, 120);
  return limit + spread * normal + spread * normalQuantile(share, 0, 1);
};

const goThrough = (machine: PlannedMachine, tally: Tally, around: Around): void => {
  const { input, options, random, nextOpen } = around;
  const use = Math.exp(USE_SPREAD * random.normal());
  const openingCost = options.openingCost[machine.hazard];
  const lateFactorOf = ({ kind }: PlannedStage): number =>
    options.lateFactor * lateWeight(kind, machine, options.openingCost);
  const wantedOf = (stage: PlannedStage, limit: number, length: number): number =>
    wantedDay(limit, length, { lateFactor: lateFactorOf(stage), normal: random.normal() });
  const begun = (stage: PlannedStage, since: number): Clock => {
    const length = Math.max(LEAST_DAYS, at(stage.whole, random.uniform()) / usedBy(stage.whole, use));
    return { stage, since, limit: since + length, wanted: wantedOf(stage, since + length, length) };
  };
  const clocks = machine.stages.map((stage): Clock => {
    const limit = at(stage.reached, random.uniform());
    const here = limit > 0 ? limit / usedBy(stage.reached, use) : limit;
    return {
      stage,
      since: Math.min(0, here - stage.lifeDays),
      limit: here,
      wanted: stage.lockedDay ?? wantedOf(stage, here, stage.lifeDays),
    };
  });
  for (;;) {
    const first = clocks.reduce<Clock | null>((a, c) => (a === null || c.wanted < a.wanted ? c : a), null);
    if (!first) return;
    const day = nextOpen[Math.max(0, Math.ceil(first.wanted))] ?? DAYS;
    if (day >= DAYS) break;
    // A task is taken along when its wasted life costs less than an opening of its own later; partners go together.
    const taken = clocks.filter((c) => {
      if (c === first || c.stage.withStage === first.stage.stageId || first.stage.withStage === c.stage.stageId)
        return true;
      const { lifeValuePerDay } = priceLife({
        partPrice: input.parts[c.stage.part ?? -1]?.price ?? 0,
        lifeDays: c.stage.lifeDays,
        openingCost,
        setsTheRhythm: STAGE_KINDS[c.stage.kind].setsRhythm,
        lateFactor: lateFactorOf(c.stage),
      });
      return lifeValuePerDay * Math.max(0, c.wanted - day) < openingCost;
    });
    const minutes = options.openingMinutes[machine.hazard] + taken.reduce((sum, c) => sum + minutesOf(c.stage.kind), 0);
    tally.openings += 1;
    tally.minutes += minutes;
    tally.cost += openingCost;
    tally.weeks[Math.floor(day / WEEK)] = (tally.weeks[Math.floor(day / WEEK)] ?? 0) + minutes;
    for (const c of taken) {
      tally.past += Math.max(0, day - Math.max(0, c.limit));
      if (c.stage.part !== null) {
        const months = tally.parts.get(c.stage.part) ?? new Float64Array(MONTHS);
        tally.parts.set(c.stage.part, months);
        const month = Math.min(MONTHS - 1, Math.floor((day * MONTHS) / DAYS));
        months[month] = (months[month] ?? 0) + 1;
        tally.cost += input.parts[c.stage.part]?.price ?? 0;
      }
      Object.assign(c, begun(c.stage, day));
    }
  }
  for (const c of clocks) tally.past += Math.max(0, DAYS - Math.max(0, c.limit));
};

const rangeOf = (values: readonly number[]): Range => {
  const sorted = [...values].sort((a, b) => a - b);
  const q = (p: number): number => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))] ?? 0;
  return [q(0.1), q(0.5), q(0.9)];
};

/**
 * A year of the yard, gone through many times: every stage as often as its limit comes, on its machine's own forecast, each
 * changed a little before it as the price of a late day asks for, others taken along where that costs less than opening
 * again. Days, minutes, money, pieces. It does not reckon with days that are too full, and says how full the fullest week
 * is. Source: renewal processes by Monte Carlo; the day of a change by the newsvendor rule. Valid: a year of working days.
 */
export const yearAhead = (input: PlanInput, options: PlanOptions, seed = 11): YearAhead => {
  const random = seeded(seed);
  const nextOpen = new Int32Array(DAYS + 1).fill(DAYS);
  for (let day = DAYS - 1; day >= 0; day -= 1)
    nextOpen[day] = input.works[day % Math.max(1, input.works.length)] === true ? day : (nextOpen[day + 1] ?? DAYS);
  const stages = input.machines.reduce((n, m) => n + m.stages.length, 0);
  const ways = Array.from({ length: WAYS }, (): Tally => {
    const tally: Tally = {
      openings: 0,
      minutes: 0,
      cost: 0,
      past: 0,
      parts: new Map(),
      weeks: new Float64Array(Math.ceil(DAYS / WEEK)),
    };
    for (const machine of input.machines) goThrough(machine, tally, { input, options, random, nextOpen });
    return tally;
  });
  const used = [...new Set(ways.flatMap((w) => [...w.parts.keys()]))].sort((a, b) => a - b);
  const monthOf = (w: Tally, part: number, month: number): number => w.parts.get(part)?.[month] ?? 0;
  return {
    openings: rangeOf(ways.map((w) => w.openings)),
    minutes: rangeOf(ways.map((w) => w.minutes)),
    cost: rangeOf(ways.map((w) => w.cost)),
    daysPast: rangeOf(ways.map((w) => w.past)),
    sharePast: rangeOf(ways.map((w) => w.past / Math.max(1, stages * DAYS))),
    parts: used.map((part) => ({
      part,
      year: rangeOf(ways.map((w) => (w.parts.get(part) ?? new Float64Array(0)).reduce((a, b) => a + b, 0))),
      months: Array.from({ length: MONTHS }, (_, month) => rangeOf(ways.map((w) => monthOf(w, part, month)))),
    })),
    fullestWeek: rangeOf(ways.map((w) => Math.max(...w.weeks))),
  };
};
