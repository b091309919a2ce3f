import type { School } from '@/core/diagnose/next-test';
import { engineWalk } from './engine-walk';
import { schoolWalk } from './school-walk';
import { isWrong, WRONG_MINUTES } from './score';
import { firstWorldCase } from './true-walk';
import type { Ending, WalkCase } from './walk-case';
import { yardCase } from './yard/yard-case';

/** The first world breathes by the engine's own formulas; the other yard shares nothing with it. */
export const WORLDS = { first: firstWorldCase, yard: yardCase } as const satisfies Record<
  string,
  (seed: number) => WalkCase
>;
export type World = keyof typeof WORLDS;

export const FIXED_SCHOOLS = ['takeOut', 'swap', 'nozzleInward'] as const satisfies readonly School[];
export type FixedSchool = (typeof FIXED_SCHOOLS)[number];

/** How one made-up case went, in the engine's way and in the three schools. */
export interface CaseOutcome {
  readonly seed: number;
  readonly kind: string;
  /** How its dust is opened. */
  readonly level: string;
  readonly group: 'nothing' | 'single' | 'pair';
  readonly first: boolean;
  readonly stage: boolean;
  readonly topThree: boolean;
  readonly ending: Ending;
  readonly escalated: boolean;
  readonly tests: number;
  readonly price: number;
  /** Beyond what the case needed: tests, needless repairs, an hour for a wrong closing. */
  readonly over: number;
  /** The same with the repairs that were needed, where the world prices them. */
  readonly done: number;
  readonly schools: Readonly<
    Record<
      FixedSchool,
      { readonly price: number; readonly over: number; readonly done: number; readonly wrong: boolean }
    >
  >;
  readonly firstRepair: readonly [probability: number, right: boolean] | null;
  readonly sure: readonly (readonly [probability: number, right: boolean])[];
}

const overOf = (price: number, ending: Ending): number => price + (isWrong(ending) ? WRONG_MINUTES : 0);

const groupOf = (faults: number): CaseOutcome['group'] => (faults === 0 ? 'nothing' : faults === 1 ? 'single' : 'pair');

/** Walks one seed in all four ways, each on a fresh copy of the same machine. */
export const outcomeOf = (world: World, seed: number): CaseOutcome => {
  const c = WORLDS[world](seed);
  const walk = engineWalk(c);
  const ending = c.ending(walk.repairs);
  const withNeeded = (over: number, needed: number) => over + (c.countsNeeded ? needed : 0);
  const schools = Object.fromEntries(
    FIXED_SCHOOLS.map((school) => {
      const again = WORLDS[world](seed);
      const { price, needed, repairs } = schoolWalk(again, school);
      const end = again.ending(repairs);
      const over = overOf(price, end);
      return [school, { price, over, done: withNeeded(over, needed), wrong: isWrong(end) }];
    }),
  ) as CaseOutcome['schools'];
  return {
    seed,
    kind: c.kind,
    level: c.hazard,
    group: groupOf(c.faults.length),
    first: walk.first.exact,
    stage: walk.first.stage,
    topThree: walk.ranks.every((r) => r >= 0 && r < 3),
    ending,
    escalated: walk.escalated,
    tests: walk.tests,
    price: walk.price,
    over: overOf(walk.price, ending),
    done: withNeeded(overOf(walk.price, ending), walk.needed),
    schools,
    firstRepair: walk.firstRepair ? (walk.sure.at(-1) ?? null) : null,
    sure: walk.sure,
  };
};

const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length);
const share = (list: readonly CaseOutcome[], of: (o: CaseOutcome) => boolean): number =>
  mean(list.map((o) => (of(o) ? 1 : 0)));

const BINS = 10;

/** Expected calibration error: how far the top fault's probability is from how often it was right. Source: Naeini et al. 2015, equal bins. */
export const calibrationError = (sure: CaseOutcome['sure']): number => {
  const bins = Array.from({ length: BINS }, () => ({ stated: 0, right: 0 }));
  for (const [p, right] of sure) {
    const bin = bins[Math.min(BINS - 1, Math.floor(p * BINS))];
    if (!bin) continue;
    bin.stated += p;
    bin.right += right ? 1 : 0;
  }
  return bins.reduce((sum, b) => sum + Math.abs(b.stated - b.right), 0) / Math.max(1, sure.length);
};

export interface Summary {
  readonly cases: number;
  readonly first: number;
  readonly stage: number;
  readonly topThree: number;
  readonly pairsBoth: number;
  readonly wrongFelt: number;
  readonly wrongRoot: number;
  readonly wrongSilent: number;
  readonly escalated: number;
  readonly tests: number;
  readonly price: number;
  readonly done: number;
  readonly over: number;
  readonly overRatio: number;
  readonly doneRatio: number;
  readonly pricedRatio: number;
  readonly calibration: number;
  /** The same at the first repair: what the order to repair was told with. */
  readonly repairCalibration: number;
  readonly schools: Readonly<
    Record<
      FixedSchool,
      { readonly price: number; readonly over: number; readonly done: number; readonly wrong: number }
    >
  >;
}

/** The figures of a set of cases; a ratio is against the best of the schools on the same cases. */
export const summaryOf = (list: readonly CaseOutcome[]): Summary => {
  const schools = Object.fromEntries(
    FIXED_SCHOOLS.map((s) => [
      s,
      {
        price: mean(list.map((o) => o.schools[s].price)),
        over: mean(list.map((o) => o.schools[s].over)),
        done: mean(list.map((o) => o.schools[s].done)),
        wrong: share(list, (o) => o.schools[s].wrong),
      },
    ]),
  ) as Summary['schools'];
  const least = (of: (s: FixedSchool) => number) => Math.min(...FIXED_SCHOOLS.map(of));
  const [price, over, done] = [
    mean(list.map((o) => o.price)),
    mean(list.map((o) => o.over)),
    mean(list.map((o) => o.done)),
  ];
  return {
    cases: list.length,
    first: share(list, (o) => o.first),
    stage: share(list, (o) => o.stage),
    topThree: share(list, (o) => o.topThree),
    pairsBoth: share(
      list.filter((o) => o.group === 'pair'),
      (o) => !isWrong(o.ending),
    ),
    wrongFelt: share(list, (o) => o.ending.felt),
    wrongRoot: share(list, (o) => o.ending.root),
    wrongSilent: share(list, (o) => o.ending.silent),
    escalated: share(list, (o) => o.escalated),
    tests: mean(list.map((o) => o.tests)),
    price,
    over,
    overRatio: over / least((s) => schools[s].over),
    done,
    doneRatio: done / least((s) => schools[s].done),
    pricedRatio: price / least((s) => schools[s].price),
    calibration: calibrationError(list.flatMap((o) => o.sure)),
    repairCalibration: calibrationError(list.flatMap((o) => (o.firstRepair ? [o.firstRepair] : []))),
    schools,
  };
};
