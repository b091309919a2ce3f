/** The one scale of due dates, the most pressing first. */
export const DUE_WORDS = ['overdue', 'today', 'thisWeek', 'later', 'undated'] as const;
export type DueWord = (typeof DUE_WORDS)[number];

/** Days ahead that count as this week. Choice: a week, so that each weekly round meets every due date once. */
export const THIS_WEEK_DAYS = 7;

/**
 * Returns the word for days left, whole days, negative when past; null without a date. Seven days left are this week,
 * eight are later. Definition: whole days of the site's calendar.
 */
export const dueWord = (daysLeft: number | null): DueWord => {
  if (daysLeft === null) return 'undated';
  if (daysLeft < 0) return 'overdue';
  if (daysLeft === 0) return 'today';
  return daysLeft <= THIS_WEEK_DAYS ? 'thisWeek' : 'later';
};

/** Whether a part needs hands today: overdue, or due today. Valid as `dueWord`. */
export const isDueNow = (daysLeft: number | null): boolean => {
  const word = dueWord(daysLeft);
  return word === 'overdue' || word === 'today';
};
