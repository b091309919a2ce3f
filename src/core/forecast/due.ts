import { addDays, type CalendarDate, daysBetween } from '../calendar/calendar-date';
import { type RuleState, type StageDue, stageDue } from '../interval/due';
import { isWear } from '../interval/rules';
import type { Machine, Stage, MachineAirPath } from '../machine/machine';
import type { ChangeRecord } from '../record/records';
import type { StageOutlook } from './from-record';
import { isOverdue, lookToday } from './overdue';
import type { StageForecast } from './reach';

/** The time of a valid change. */
export type ChangeDay = Pick<ChangeRecord, 'stageId' | 'performedOn' | 'performedAt'>;

/** Days of the standing changes of a stage, ascending, first use first. */
export const changeDays =
  (machine: MachineAirPath, changes: readonly ChangeDay[]) =>
  (stageId: number): readonly CalendarDate[] => {
    const first = machine.stages.find((s) => s.id === stageId)?.firstUsedOn;
    const days = changes.filter((c) => c.stageId === stageId).map((c) => c.performedOn);
    return [...(first === undefined ? [] : [first]), ...days].sort();
  };

/** The day of a forecast: its middle; today where a look is due, and a past day only where the limit was seen to be reached on it. */
const dayOf = (forecast: StageForecast): number => {
  if (isOverdue(forecast)) return -(forecast.seenPast?.daysAgo ?? 0);
  return lookToday(forecast) ? 0 : Math.max(0, Math.round(forecast.reached[2]));
};

interface On {
  readonly today: CalendarDate;
  readonly changedOn: CalendarDate;
}

/** A rule that wear or a count reaches, with the day its forecast names. */
const asForecast = (state: RuleState, days: number, { today, changedOn }: On): RuleState => {
  const age = Math.max(0, daysBetween({ from: changedOn, to: today }));
  const whole = age + Math.max(0, days);
  return {
    ...state,
    remaining: state.rule.kind === 'countOfChanges' ? state.remaining : whole > 0 ? Math.max(0, days) / whole : 1,
    dueOn: addDays(today, days),
    dateIs: 'expected',
    because: null,
  };
};

const isForecast = (state: RuleState): boolean =>
  isWear(state.rule) || (state.rule.kind === 'countOfChanges' && state.dateIs !== 'fixed');

/** From this chance on a fixed day is the one that is named. */
const MOSTLY = 0.5;

/**
 * The rule that decides: a fixed day where it mostly comes first, unless it is in the future and another rule needs a
 * look today; then the rule whose limit was seen to be reached; otherwise the likeliest.
 */
const bindingOf = (
  states: readonly RuleState[],
  forecast: StageForecast,
  today: CalendarDate,
): RuleState | undefined => {
  const { binding } = forecast;
  const look = lookToday(forecast);
  const seen = isOverdue(forecast) ? forecast.seenPast?.rule : undefined;
  const stateOf = (rule: number) => states.find((s) => s.ruleId === rule);
  const fixed = binding.find((b) => {
    const state = stateOf(b.rule);
    return state?.dateIs === 'fixed' && b.chance >= MOSTLY && (!look || (state.dueOn ?? today) <= today);
  });
  const likeliest = binding.find((b) => stateOf(b.rule)?.dateIs !== 'fixed') ?? binding[0];
  const rule = fixed?.rule ?? seen ?? likeliest?.rule;
  return rule === undefined ? undefined : stateOf(rule);
};

const dueOfStage = (plain: StageDue, { forecast }: StageOutlook, today: CalendarDate): StageDue => {
  if (!forecast) return plain;
  const on = { today, changedOn: plain.changedOn };
  const states = [plain.binding, ...plain.others].map((state) => {
    const own = forecast.middles.find((m) => m.rule === state.ruleId);
    return own && isForecast(state) ? asForecast(state, Math.max(0, Math.round(own.middle)), on) : state;
  });
  const first = bindingOf(states, forecast, today);
  if (!first) return plain;
  const binding = isForecast(first) ? asForecast(first, dayOf(forecast), on) : first;
  return {
    ...plain,
    dueOn: binding.dueOn,
    daysLeft: binding.dueOn === null ? null : daysBetween({ from: today, to: binding.dueOn }),
    remaining: Math.min(binding.remaining, ...states.filter((s) => s !== first).map((s) => s.remaining)),
    binding,
    others: states.filter((s) => s !== first),
  };
};

/**
 * When each ruled stage of a machine is due, in path order, by the changes that stand: fixed days by their rules, everything
 * else by the forecast, so that every page names one day. Definition: the rules and the forecast. Valid: outlooks of the same day.
 */
export const dueOfMachine = ({
  machine,
  changes,
  today,
  outlooks,
}: {
  readonly machine: Machine;
  readonly changes: readonly ChangeDay[];
  readonly today: CalendarDate;
  readonly outlooks: readonly StageOutlook[];
}): readonly StageDue[] => {
  const daysOf = changeDays(machine, changes);
  return machine.stages.flatMap((stage: Stage) => {
    if (stage.missing) return [];
    const due = stageDue({
      stageId: stage.id,
      rules: stage.rules,
      changedOn: daysOf(stage.id).at(-1) ?? stage.firstUsedOn,
      // A stage added after the machine's first day is new on its own first day.
      changeRecorded: changes.some((c) => c.stageId === stage.id) || stage.firstUsedOn > machine.inServiceOn,
      changesOf: daysOf,
      today,
      wear: { hours: machine.hours, looks: stage.looks },
      examinedOn: machine.examinations.at(-1)?.on ?? null,
    });
    const outlook = outlooks.find((o) => o.stageId === stage.id);
    return due ? [outlook ? dueOfStage(due, outlook, today) : due] : [];
  });
};
