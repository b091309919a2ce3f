import { addDays, type CalendarDate } from '../calendar/calendar-date';
import { isWear } from '../interval/rules';
import type { Stage } from '../machine/machine';
import { type UncountedGauge, uncountedGauge } from './gauge-readings';
import { chanceBefore, type ReachQuantiles } from './limit-distribution';
import { machineFacts, type MachineFacts, type MachineRecord } from './machine-facts';
import { END_OF_TODAY, firstOf, type StageForecast } from './reach';
import { drawsOf } from './rule-draws';
import { type FallenLooks, fallenSince, historyOfStage } from './stage-history';

/** The basis of a forecast. */
export interface ForecastBasis {
  readonly intervals: number;
  readonly inspections: number;
  readonly counts: 'hours' | 'days';
  /** What began before this day was of another path, and counts little; null where nothing did. */
  readonly regimeSince: CalendarDate | null;
  /** The fill fell between two looks without a change on record; null where it did not. */
  readonly fallen: FallenLooks | null;
  /** The newest gauge reading, where it may be of the filter before; null where it counts. */
  readonly uncounted: UncountedGauge | null;
  /** Rules that cannot be forecast, by their number. */
  readonly unknown: readonly number[];
}

export interface StageOutlook {
  readonly stageId: number;
  /** null where no rule can be forecast. */
  readonly forecast: StageForecast | null;
  readonly basis: ForecastBasis;
}

/** When the first rule of a stage is reached, with its chances, and what that rests on. */
export const outlookOf = (facts: MachineFacts, stage: Stage): StageOutlook => {
  const drawn = stage.rules.map((r) => ({ r, draws: stage.missing ? null : drawsOf(facts, stage, r) }));
  const wear = stage.rules.find((r) => isWear(r.rule));
  const history = wear ? historyOfStage(facts, stage, wear.rule) : null;
  return {
    stageId: stage.id,
    forecast: firstOf(drawn.flatMap(({ draws }) => draws ?? [])),
    basis: {
      intervals: history?.past.length ?? Math.max(0, facts.startsOf(stage.id).length - 1),
      inspections: history?.running.marks.length ?? 0,
      counts: history?.counts ?? 'days',
      regimeSince:
        history?.past.some((i) => i.beforeRegime) === true && facts.regime !== null
          ? addDays(facts.record.today, facts.regime - facts.today)
          : null,
      fallen: fallenSince(facts, stage),
      uncounted: uncountedGauge(facts, stage),
      unknown: drawn.flatMap(({ r, draws }) => (draws ? [] : [r.id])),
    },
  };
};

/** A forecast some days later, with nothing recorded since. Days; valid from 0. Source: the same chances, so much nearer. */
export const laterBy = (outlook: StageOutlook, days: number): StageOutlook => {
  const { forecast } = outlook;
  if (!forecast) return outlook;
  const [first, low, middle, high, last] = forecast.reached;
  const reached: ReachQuantiles = [first - days, low - days, middle - days, high - days, last - days];
  return {
    ...outlook,
    forecast: {
      ...forecast,
      reached,
      middles: forecast.middles.map((m) => ({ ...m, middle: m.middle - days })),
      overdue: chanceBefore(reached, END_OF_TODAY),
      seenPast: forecast.seenPast && { ...forecast.seenPast, daysAgo: forecast.seenPast.daysAgo + days },
    },
  };
};

/** Every ruled stage of a machine, in path order. */
export const outlooksOf = (record: MachineRecord): readonly StageOutlook[] => {
  const ruled = record.machine.stages.filter((s) => s.rules.length > 0);
  if (ruled.length === 0) return [];
  const facts = machineFacts(record);
  return ruled.map((s) => outlookOf(facts, s));
};
