import { isOverdue, lookToday } from '@/core/forecast/overdue';
import type { Told } from './forecast-yard';

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

/** Pinball loss of a quantile. Source: Koenker and Bassett 1978. */
const pinball = (q: number, { p, truth }: { readonly p: number; readonly truth: number }): number =>
  truth >= q ? p * (truth - q) : (1 - p) * (q - truth);

/** What an instant forecast is worth: the mean over the three quantiles that are told. */
const meanPinball = (truth: number, [low, middle, high]: readonly [number, number, number]): number =>
  mean([pinball(low, { p: 0.1, truth }), pinball(middle, { p: 0.5, truth }), pinball(high, { p: 0.9, truth })]);

export interface Scores {
  readonly stages: number;
  readonly answered: number;
  readonly coverage80: number;
  readonly maeDays: number;
  readonly maeVsLast: number;
  readonly maeVsRule: number;
  readonly pinballVsLast: number;
  readonly biasDays: number;
  readonly medianBiasDays: number;
  /** Stages whose limit is reached by the end of today. */
  readonly past: number;
  /** Share of these for which a look today is asked, and share of all others. */
  readonly lookFound: number;
  readonly lookFalse: number;
  /** How many are called overdue because somebody saw the limit reached, how often that is right, and the share of the past ones so called. */
  readonly overdueSaid: number;
  readonly overdueRight: number;
  readonly overdueFound: number;
}

/** How forecasts came out. Errors are means of absolute days, the bias the mean of forecast less truth. */
export const scoresOf = (told: readonly Told[]): Scores => {
  const answered = told.flatMap((t) => (t.outlook?.forecast ? [{ ...t, forecast: t.outlook.forecast }] : []));
  const middle = (t: (typeof answered)[number]) => t.forecast.reached[2];
  const error = (f: (t: (typeof answered)[number]) => number) => mean(answered.map((t) => Math.abs(f(t) - t.truth)));
  const isPast = (t: (typeof answered)[number]): boolean => t.truth <= 0;
  const share = (of: typeof answered, that: (t: (typeof answered)[number]) => boolean): number =>
    mean(of.map((t) => (that(t) ? 1 : 0)));
  const looked = (late: boolean) =>
    share(
      answered.filter((t) => isPast(t) === late),
      (t) => lookToday(t.forecast),
    );
  const said = answered.filter((t) => isOverdue(t.forecast));
  const off = answered.map((t) => middle(t) - t.truth).sort((a, b) => a - b);
  return {
    stages: told.length,
    answered: answered.length,
    coverage80: mean(
      answered.map((t) => (t.truth >= t.forecast.reached[1] && t.truth <= t.forecast.reached[3] ? 1 : 0)),
    ),
    maeDays: error(middle),
    maeVsLast: error(middle) / error((t) => t.last),
    maeVsRule: error(middle) / error((t) => t.trade),
    pinballVsLast:
      mean(answered.map((t) => meanPinball(t.truth, [t.forecast.reached[1], middle(t), t.forecast.reached[3]]))) /
      mean(answered.map((t) => meanPinball(t.truth, [t.last, t.last, t.last]))),
    biasDays: mean(off),
    medianBiasDays: off[Math.floor(off.length / 2)] ?? Number.NaN,
    past: answered.filter(isPast).length,
    lookFound: looked(true),
    lookFalse: looked(false),
    overdueSaid: said.length,
    overdueRight: share(said, isPast),
    overdueFound: share(answered.filter(isPast), (t) => isOverdue(t.forecast)),
  };
};
