import { mean } from '../numeric/moments';
import { addDays, type CalendarDate, daysBetween } from './calendar-date';
import type { Rule, RuleRecord } from './rules';

/** What one rule says today. */
export interface RuleState {
  readonly ruleId: number;
  readonly rule: Rule;
  readonly school: string;
  /** Share of the interval still to go, 0 when reached, below 0 when past. */
  readonly remaining: number;
  /** The day it is, or is expected to be, reached; null where the record gives no date. */
  readonly dueOn: CalendarDate | null;
  /** A calendar day is certain, a count's day is an expectation. */
  readonly dateIs: 'fixed' | 'expected' | 'unknown';
  /** For a count: changes so far. */
  readonly counted: number | null;
}

export interface StageDue {
  readonly stageId: number;
  readonly changedOn: CalendarDate;
  readonly dueOn: CalendarDate | null;
  /** Days to the due day, negative when past; null without a date. */
  readonly daysLeft: number | null;
  readonly remaining: number;
  /** The rule that comes first. */
  readonly binding: RuleState;
  readonly others: readonly RuleState[];
}

export interface DueInput {
  readonly stageId: number;
  readonly rules: readonly RuleRecord[];
  /** The last day the stage was changed, or first used. */
  readonly changedOn: CalendarDate;
  /** Days of the changes of another stage of this machine, ascending. */
  readonly changesOf: (stageId: number) => readonly CalendarDate[];
  readonly today: CalendarDate;
}

/** Mean days between changes, from two changes on; null before, when the record shows no rate yet. */
const observedDays = (changes: readonly CalendarDate[]): number | null => {
  const gaps = changes.slice(1).map((to, i) => daysBetween({ from: changes[i] ?? to, to }));
  return gaps.length === 0 ? null : mean(gaps);
};

const countState = (input: DueInput, record: RuleRecord & { rule: Extract<Rule, { kind: 'countOfChanges' }> }): RuleState => {
  const { rule } = record;
  const changes = input.changesOf(rule.countedStageId);
  // A change of the counted stage on the very day this stage was renewed went with it and wears nothing.
  const since = changes.filter((day) => day > input.changedOn);
  const base = { ruleId: record.id, rule, school: record.school, counted: since.length, remaining: 1 - since.length / rule.count };
  const reachedOn = since[rule.count - 1];
  if (reachedOn !== undefined) return { ...base, dueOn: reachedOn, dateIs: 'fixed' };
  const rate = observedDays(changes);
  if (rate === null) return { ...base, dueOn: null, dateIs: 'unknown' };
  const last = since.at(-1) ?? input.changedOn;
  const expected = addDays(last, Math.round((rule.count - since.length) * rate));
  // An expected day that has gone by without the change is not "overdue": the next change is what is awaited.
  return { ...base, dueOn: expected > input.today ? expected : addDays(input.today, 1), dateIs: 'expected' };
};

const ruleState = (input: DueInput, record: RuleRecord): RuleState => {
  const { rule } = record;
  if (rule.kind === 'countOfChanges') return countState(input, { ...record, rule });
  const dueOn = addDays(input.changedOn, rule.days);
  const remaining = daysBetween({ from: input.today, to: dueOn }) / rule.days;
  return { ruleId: record.id, rule, school: record.school, remaining, dueOn, dateIs: 'fixed', counted: null };
};

const byDue = (a: RuleState, b: RuleState): number => {
  if (a.dueOn !== b.dueOn) return a.dueOn === null ? 1 : b.dueOn === null ? -1 : a.dueOn < b.dueOn ? -1 : 1;
  return a.remaining - b.remaining;
};

/**
 * When a stage is due: the first of its rules, named, with what the others say. Counting runs inside one machine.
 * A count without a date yet keeps its count; as soon as two changes are on record the observed rate dates it.
 * Source: common practice, no published source (first of several rules; the observed rate replaces the pack's).
 * Valid: positive intervals. Returns null for a stage without a rule.
 */
export const stageDue = (input: DueInput): StageDue | null => {
  const states = input.rules.map((record) => ruleState(input, record)).sort(byDue);
  const [binding, ...others] = states;
  if (!binding) return null;
  const { dueOn } = binding;
  return {
    stageId: input.stageId,
    changedOn: input.changedOn,
    dueOn,
    daysLeft: dueOn === null ? null : daysBetween({ from: input.today, to: dueOn }),
    remaining: Math.min(...states.map((s) => s.remaining)),
    binding,
    others,
  };
};
