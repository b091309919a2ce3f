import { seeded } from '../../../demo/random';
import { forecastMade, naive } from './forecast-made';
import type { MadeStage, MadeYard } from './made-yard';

/** One stage, forecast and as it came to be. */
export interface Estimate {
  readonly kind: MadeStage['kind'];
  readonly truth: number;
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  readonly overdue: number;
  readonly last: number;
  readonly rule: number;
}

/** Said to be past its limit from this chance on. */
const FLAG_FROM = 0.55;

export const estimatesOf = (yard: MadeYard, seed: number): readonly Estimate[] =>
  yard.machines.flatMap((machine) =>
    machine.stages.flatMap((stage): readonly Estimate[] => {
      const f = forecastMade(machine, stage, { today: yard.today, chance: seeded(seed) });
      if (!f) return [];
      const [, low, middle, high] = f.reached;
      return [
        { kind: stage.kind, truth: stage.truth, low, middle, high, overdue: f.overdue, ...naive(stage, yard.today) },
      ];
    }),
  );

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;

/** Pinball loss of a quantile. Source: Koenker and Bassett 1978. */
const pinball = (q: number, { p, truth }: { readonly p: number; readonly truth: number }): number =>
  truth >= q ? p * (truth - q) : (1 - p) * (q - truth);
const meanPinball = (t: Estimate, q: readonly [number, number, number]): number =>
  mean([0.1, 0.5, 0.9].map((p, i) => pinball(q[i] ?? 0, { p, truth: t.truth })));

export interface Scores {
  readonly stages: number;
  readonly coverage80: number;
  readonly maeVsLast: number;
  readonly maeVsRule: number;
  readonly pinballVsLast: number;
  readonly overdueFound: number;
  readonly overdueFalse: number;
  readonly medianErrorDays: number;
}

export const scoresOf = (estimates: readonly Estimate[]): Scores => {
  const error = (f: (t: Estimate) => number) => median(estimates.map((t) => Math.abs(f(t) - t.truth)));
  const flagged = (late: boolean) =>
    mean(estimates.filter((t) => t.truth < 0 === late).map((t) => (t.overdue > FLAG_FROM ? 1 : 0)));
  return {
    stages: estimates.length,
    coverage80: mean(estimates.map((t) => (t.truth >= t.low && t.truth <= t.high ? 1 : 0))),
    maeVsLast: error((t) => t.middle) / error((t) => t.last),
    maeVsRule: error((t) => t.middle) / error((t) => t.rule),
    pinballVsLast:
      mean(estimates.map((t) => meanPinball(t, [t.low, t.middle, t.high]))) /
      mean(estimates.map((t) => meanPinball(t, [t.last, t.last, t.last]))),
    overdueFound: flagged(true),
    overdueFalse: flagged(false),
    medianErrorDays: error((t) => t.middle),
  };
};
