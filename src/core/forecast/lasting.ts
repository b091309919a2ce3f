import { isWear, type RuleRecord } from '../interval/rules';
import type { Stage } from '../machine/machine';
import { historyOfStage } from './stage-history';
import { machineFacts, type MachineFacts, type MachineRecord } from './machine-facts';
import { USUAL_HOURS } from './kind-days';
import { believeLife } from './life';
import { leftOf, leftQuantile } from './left';

/** How many more run hours a bag or filter takes before its first limit of wear, at what the machine has taken so far. */
export interface StageLasting {
  readonly stageId: number;
  /** 10, 50 and 90 % of the hours left; below 0 where the limit is behind. */
  readonly hoursLeft: readonly [low: number, middle: number, high: number];
  /** Chance that it lasts the hours asked for; null where none were asked, or nothing but its kind is known. */
  readonly lasts: number | null;
  /** Run hours are on record; else a usual day's were taken. */
  readonly hoursKnown: boolean;
  /** Finished intervals it rests on, and looks at the one that runs; with neither, nothing is known but its kind. */
  readonly intervals: number;
  readonly looks: number;
}

/** Steps of the belief that are counted for a chance. A modelling choice. */
const STEPS = 200;

/** Where only days are counted they are days of work. */
const HOURS_OF_A_WORKING_DAY = (USUAL_HOURS * 7) / 5;

const lastingBy = (
  facts: MachineFacts,
  stage: Stage,
  { rule: { rule }, hours }: { readonly rule: RuleRecord; readonly hours: number | null },
): StageLasting | null => {
  if (!isWear(rule)) return null;
  const history = historyOfStage(facts, stage, rule);
  const hoursKnown = history.counts === 'hours';
  const told = { stageId: stage.id, hoursKnown, intervals: history.past.length, looks: history.running.marks.length };
  if (rule.kind === 'runHours') {
    if (!hoursKnown) return null;
    const since = facts.startsOf(stage.id).at(-1) ?? facts.today;
    const left = rule.hours - (facts.plain.now - facts.plain.at(since));
    return { ...told, hoursLeft: [left, left, left], lasts: hours === null ? null : left >= hours ? 1 : 0 };
  }
  const known = told.intervals + told.looks > 0;
  const belief = leftOf(believeLife(history));
  const perLoad = hoursKnown ? 1 : HOURS_OF_A_WORKING_DAY;
  const leftAt = (p: number): number => perLoad * leftQuantile(belief, p);
  const long = (asked: number): number =>
    Array.from({ length: STEPS }, (_, i) => leftAt((i + 0.5) / STEPS)).filter((left) => left >= asked).length / STEPS;
  return {
    ...told,
    hoursLeft: [leftAt(0.1), leftAt(0.5), leftAt(0.9)],
    lasts: hours === null || !known ? null : long(hours),
  };
};

/**
 * The hours each worn stage of a machine has left, and its chance to last so many run hours: by the rule that binds first.
 * Hours in use alone count here; rules of the calendar and of counts have their dates. Source: the belief of `believeLife`
 * less what is behind. Valid: hours of 0 and more. A dust that loads faster than what the machine took so far is not known.
 */
export const lastingOf = (record: MachineRecord, hours: number | null): readonly StageLasting[] => {
  const facts = machineFacts(record);
  return record.machine.stages.flatMap((stage) => {
    if (stage.missing) return [];
    const all = stage.rules.flatMap((rule) => lastingBy(facts, stage, { rule, hours }) ?? []);
    const [first] = all.sort((a, b) => a.hoursLeft[1] - b.hoursLeft[1]);
    return first ? [first] : [];
  });
};
