import { mean } from '../numeric/moments';
import { addDays, addMonths, type CalendarDate, daysBetween } from '../calendar/calendar-date';
import type { Rule, RuleRecord } from './rules';

/** The state of one rule today. */
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
  /** The missing fact for a date; null where there is one, or where a count waits for a second change. */
  readonly because: UnknownBecause | null;
  /** For a count: changes so far. */
  readonly counted: number | null;
}

/** Facts a rule needs. */
export type UnknownBecause = 'noHours' | 'noLook' | 'byTest' | 'bySight' | 'withAnother';

/** Recorded wear of a stage. */
export interface WearFacts {
  /** Run hours by day, oldest first. */
  readonly hours: readonly { readonly day: CalendarDate; readonly hours: number }[];
  /** Looks at its fill, oldest first, share of the container. */
  readonly looks: readonly { readonly day: CalendarDate; readonly share: number }[];
}

export const NO_WEAR: WearFacts = { hours: [], looks: [] };

export interface StageDue {
  readonly stageId: number;
  /** The last change, or the first use. */
  readonly changedOn: CalendarDate;
  /** False where the record has no change and the stage may have been changed before the record began. */
  readonly changeRecorded: boolean;
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
  /** See `StageDue`. */
  readonly changeRecorded: boolean;
  /** Days of the changes of another stage of this machine, ascending. */
  readonly changesOf: (stageId: number) => readonly CalendarDate[];
  readonly today: CalendarDate;
  readonly wear: WearFacts;
  /** The last examination of the machine; null when the record has none. */
  readonly examinedOn?: CalendarDate | null;
}

/** Mean days between changes, from two changes on; null before, when the record shows no rate yet. */
const observedDays = (changes: readonly CalendarDate[]): number | null => {
  const gaps = changes.slice(1).map((to, i) => daysBetween({ from: changes[i] ?? to, to }));
  return gaps.length === 0 ? null : mean(gaps);
};

const countState = (
  input: DueInput,
  record: RuleRecord & { rule: Extract<Rule, { kind: 'countOfChanges' }> },
): RuleState => {
  const { rule } = record;
  const changes = input.changesOf(rule.countedStageId);
  // A change of the counted stage on the very day this stage was renewed went with it and wears nothing.
  const since = changes.filter((day) => day > input.changedOn);
  const base = {
    ruleId: record.id,
    rule,
    school: record.school,
    counted: since.length,
    remaining: 1 - since.length / rule.count,
    because: null,
  };
  const reachedOn = since[rule.count - 1];
  if (reachedOn !== undefined) return { ...base, dueOn: reachedOn, dateIs: 'fixed' };
  const rate = observedDays(changes);
  if (rate === null) return { ...base, dueOn: null, dateIs: 'unknown' };
  const last = since.at(-1) ?? input.changedOn;
  const expected = addDays(last, Math.round((rule.count - since.length) * rate));
  // A past expected day is not "overdue": the next change is expected from tomorrow.
  return { ...base, dueOn: expected > input.today ? expected : addDays(input.today, 1), dateIs: 'expected' };
};

/** Days of which the usual use is taken. */
const USUAL_DAYS = 28;

interface Stateless {
  readonly ruleId: number;
  readonly rule: Rule;
  readonly school: string;
  readonly counted: null;
}

const unknown = (base: Stateless, because: UnknownBecause): RuleState => ({
  ...base,
  remaining: 1,
  dueOn: null,
  dateIs: 'unknown',
  because,
});

/** A past expected day is not "overdue": a look or a change is expected. */
const expected = (
  base: Stateless,
  {
    remaining,
    dueOn,
    today,
  }: { readonly remaining: number; readonly dueOn: CalendarDate; readonly today: CalendarDate },
): RuleState => ({
  ...base,
  remaining,
  dueOn: dueOn > today ? dueOn : addDays(today, 1),
  dateIs: 'expected',
  because: null,
});

const runHoursState = (input: DueInput, base: Stateless, limit: number): RuleState => {
  const { hours } = input.wear;
  const since = hours.filter((h) => h.day >= input.changedOn).reduce((sum, h) => sum + h.hours, 0);
  const recent =
    hours
      .filter((h) => daysBetween({ from: h.day, to: input.today }) < USUAL_DAYS)
      .reduce((sum, h) => sum + h.hours, 0) / USUAL_DAYS;
  if (recent <= 0) return unknown(base, 'noHours');
  return expected(base, {
    remaining: 1 - since / limit,
    dueOn: addDays(input.today, Math.floor((limit - since) / recent)),
    today: input.today,
  });
};

const fillState = (input: DueInput, base: Stateless, limit: number): RuleState => {
  const look = input.wear.looks.filter((l) => l.day >= input.changedOn && l.share > 0).at(-1);
  const age = look ? daysBetween({ from: input.changedOn, to: look.day }) : 0;
  const whole = look && age > 0 ? (age * limit) / look.share : observedDays(input.changesOf(input.stageId));
  if (whole === null) return unknown(base, 'noLook');
  const now = daysBetween({ from: input.changedOn, to: input.today });
  return expected(base, {
    remaining: 1 - now / whole,
    dueOn: addDays(input.changedOn, Math.round(whole)),
    today: input.today,
  });
};

const ruleState = (input: DueInput, record: RuleRecord): RuleState => {
  const { rule } = record;
  if (rule.kind === 'countOfChanges') return countState(input, { ...record, rule });
  const base: Stateless = { ruleId: record.id, rule, school: record.school, counted: null };
  switch (rule.kind) {
    case 'calendarDays': {
      const dueOn = addDays(input.changedOn, rule.days);
      return {
        ...base,
        remaining: daysBetween({ from: input.today, to: dueOn }) / rule.days,
        dueOn,
        dateIs: 'fixed',
        because: null,
      };
    }
    case 'examination': {
      const from = input.examinedOn ?? input.changedOn;
      const dueOn = addMonths(from, rule.months);
      return {
        ...base,
        remaining: daysBetween({ from: input.today, to: dueOn }) / daysBetween({ from, to: dueOn }),
        dueOn,
        dateIs: 'fixed',
        because: null,
      };
    }
    case 'runHours':
      return runHoursState(input, base, rule.hours);
    case 'fill':
      return fillState(input, base, rule.share);
    case 'flowLost':
    case 'gaugeZone':
    case 'hoseVelocity':
    case 'indicator':
      return unknown(base, 'byTest');
    case 'sight':
    case 'occurrence':
      return unknown(base, 'bySight');
    case 'together':
      return unknown(base, 'withAnother');
  }
};

/** The name of an examination in lists of due stages: it covers the whole machine. */
export const EXAMINATION = 'examination';

/** The name of the due thing: the stage, or the examination of the whole machine. */
export const dueName = ({ binding }: Pick<StageDue, 'binding'>, stageName: string): string =>
  binding.rule.kind === 'examination' ? EXAMINATION : stageName;

const byDue = (a: RuleState, b: RuleState): number => {
  if (a.dueOn !== b.dueOn) return a.dueOn === null ? 1 : b.dueOn === null ? -1 : a.dueOn < b.dueOn ? -1 : 1;
  return a.remaining - b.remaining;
};

/**
 * When a stage is due: the first of its rules, named, with what the others say. Counting runs inside one machine.
 * A count without a date yet keeps its count; as soon as two changes are on record the observed rate dates it. A rule
 * that cannot be dated says what it lacks; one that only ties a stage to another never binds.
 * Source: common practice, no published source (first of several rules; the observed rate replaces the pack's).
 * Valid: positive intervals. Returns null for a stage without a rule.
 */
export const stageDue = (input: DueInput): StageDue | null => {
  const states = input.rules.map((record) => ruleState(input, record)).sort(byDue);
  const [binding, ...others] = [
    ...states.filter((x) => x.rule.kind !== 'together'),
    ...states.filter((x) => x.rule.kind === 'together'),
  ];
  if (!binding) return null;
  const { dueOn } = binding;
  return {
    stageId: input.stageId,
    changedOn: input.changedOn,
    changeRecorded: input.changeRecorded,
    dueOn,
    daysLeft: dueOn === null ? null : daysBetween({ from: input.today, to: dueOn }),
    remaining: Math.min(...states.map((s) => s.remaining)),
    binding,
    others,
  };
};
