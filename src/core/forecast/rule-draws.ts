import { addDays, addMonths, daysBetween } from '../calendar/calendar-date';
import type { Rule, RuleRecord } from '../interval/rules';
import type { Stage } from '../machine/machine';
import { seeded } from '../numeric/seeded';
import { PATHS } from './ahead';
import type { StageHistory } from './history';
import { OTHER_DAYS, USUAL_HOURS, usualDays, WORKED } from './kind-days';
import { LIFE_TUNING, type LifeTuning } from './life-tuning';
import type { MachineFacts } from './machine-facts';
import { drawCount, drawWear, type Reach, type RuleDraws } from './reach';
import { historyOfStage } from './stage-history';

const fixed = (day: number, whole: number): Reach => ({
  draws: new Float64Array(PATHS).fill(day),
  whole: new Float64Array(PATHS).fill(whole),
  seenPast: null,
});

/** Days of a month, where it is counted on without a date. */
const MONTH_DAYS = 30.44;

const countDraws = (
  facts: MachineFacts,
  stage: Stage,
  { id, rule }: RuleRecord & { readonly rule: Extract<Rule, { kind: 'countOfChanges' }> },
): RuleDraws => {
  const since = facts.startsOf(stage.id).at(-1) ?? facts.today;
  const counted = facts.startsOf(rule.countedStageId);
  const done = counted.filter((d) => d > since);
  const { clock } = facts;
  const kind = facts.record.machine.stages.find((s) => s.id === rule.countedStageId)?.kind;
  const days = kind ? usualDays(kind) : OTHER_DAYS;
  const gaps = counted.slice(1).map((d, i) => clock.at(d) - clock.at(counted[i] ?? d));
  const habit = {
    gaps,
    since: Math.max(0, clock.now - clock.at(counted.at(-1) ?? since)),
    template: days * (facts.used.counts === 'hours' ? USUAL_HOURS : WORKED),
  };
  const by = { ahead: facts.ahead(), chance: seeded(facts.record.seed + 1009 * id) };
  const drawn = drawCount({ count: rule.count, done: done.length }, habit, by);
  // A count that is full was reached on a day that is known.
  const reachedOn = done[rule.count - 1];
  return { rule: id, ...drawn, ...(reachedOn === undefined ? {} : { draws: fixed(reachedOn - facts.today, 0).draws }) };
};

/** Recorded hours miss about this share of the real ones, with this spread between intervals. */
const BY_HOURS: LifeTuning = {
  ...LIFE_TUNING,
  spreads: [
    [0.07, 0.6],
    [0.14, 0.4],
  ],
  lateSpread: 0.12,
  odd: 0.15,
};
const HOURS_SPREAD = 0.04;

/**
 * A limit in run hours is known; the recorded hours differ from the real ones, and the difference is learned from the
 * changes.
 */
const hoursHistory = (facts: MachineFacts, stage: Stage, rule: Extract<Rule, { kind: 'runHours' }>): StageHistory => {
  const history = historyOfStage({ ...facts, clock: facts.plain }, stage, rule);
  // By whom the hours were counted is not on record; that it was changed by them is.
  const past = history.past.map((i) => (i.end === 'bound' ? { ...i, end: 'limit' as const } : i));
  return history.counts === 'hours'
    ? { ...history, past, template: { load: rule.hours, spread: HOURS_SPREAD } }
    : { ...history, past };
};

/** Finished intervals from which missing run hours may be estimated by their days. */
const TOLD_BY_DAYS = 2;

/** Draws of when one rule of a stage is reached; null where the record cannot tell. */
export const drawsOf = (facts: MachineFacts, stage: Stage, { id, rule, ...rest }: RuleRecord): RuleDraws | null => {
  const { record, today } = facts;
  const since = facts.startsOf(stage.id).at(-1) ?? today;
  const chance = seeded(record.seed + 1009 * id);
  switch (rule.kind) {
    case 'calendarDays':
      return { rule: id, ...fixed(since + rule.days - today, rule.days) };
    case 'examination': {
      const from = record.machine.examinations.at(-1)?.on ?? addDays(record.today, since - today);
      const day = daysBetween({ from: record.today, to: addMonths(from, rule.months) });
      return { rule: id, ...fixed(day, rule.months * MONTH_DAYS) };
    }
    case 'countOfChanges':
      return countDraws(facts, stage, { id, rule, ...rest });
    case 'runHours': {
      const history = hoursHistory(facts, stage, rule);
      if (history.counts === 'hours')
        return { rule: id, ...drawWear(history, { ahead: facts.aheadPlain(), chance, tuning: BY_HOURS }) };
      return history.past.length < TOLD_BY_DAYS
        ? null
        : { rule: id, ...drawWear(history, { ahead: facts.ahead(), chance }) };
    }
    case 'fill':
    case 'flowLost':
    case 'gaugeZone':
    case 'hoseVelocity':
    case 'indicator':
      return { rule: id, ...drawWear(historyOfStage(facts, stage, rule), { ahead: facts.ahead(), chance }) };
    case 'sight':
    case 'occurrence':
    case 'together':
      return null;
  }
};
