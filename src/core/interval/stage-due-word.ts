import { daysBetween } from '../calendar/calendar-date';
import type { StageDue } from './due';
import { type DueWord, dueWord } from './due-word';

/**
 * Whether the last change of a due stage is not on record: it has run for more than two of its intervals since its first use,
 * so it was probably changed before the record began. An examination is due until one is on record.
 * Choice: two intervals, a modelling choice. Total.
 */
export const isChangeUnknown = ({ changeRecorded, changedOn, dueOn, daysLeft, binding }: StageDue): boolean =>
  !changeRecorded &&
  dueOn !== null &&
  daysLeft !== null &&
  binding.rule.kind !== 'examination' &&
  -daysLeft > Math.max(0, daysBetween({ from: changedOn, to: dueOn }));

/** The word for a due stage; `changeUnknown` where its last change is not on record. Definition: the scale of due dates. Total. */
export const stageDueWord = (due: StageDue): DueWord | 'changeUnknown' =>
  isChangeUnknown(due) ? 'changeUnknown' : dueWord(due.daysLeft);
