import type { CrewPageJson } from '@/contracts/crew';

type Shown = CrewPageJson['people'][number];

/** Weekdays in the order of `CrewEntry.minutes`. */
export const WEEKDAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const;

const NOT_CONTAINED: Readonly<Record<NonNullable<Shown['notContained']>, string>> = {
  notSaid: 'No contained work: not named for it on the page People.',
  noFit: 'No contained work: no fit test of the mask on file.',
  fitOld: 'No contained work: the fit test is older than a year.',
  noTraining: 'No contained work: no training on file.',
};

/** Whether a person may do contained work today, and why not. */
export const sayContained = ({ notContained }: Shown): string =>
  notContained === null ? 'May do contained work.' : NOT_CONTAINED[notContained];

/** Everybody's minutes of today; without any said, that one figure counts for the yard. */
export const sayToday = ({ people }: CrewPageJson): string => {
  const working = people.filter((p) => p.usual !== null);
  return working.length === 0
    ? 'The plan uses one figure for the yard.'
    : `today: ${working.map((p) => `${p.initials} ${p.ahead[0] ?? 0} minutes`).join(', ')}.`;
};

/** A person's minutes of the coming two weeks. */
export const sayMinutes = ({ usual, ahead }: Shown): string =>
  usual === null
    ? 'No minutes said: this person is not planned with.'
    : `${ahead.reduce((sum, minutes) => sum + minutes, 0)} minutes in the next ${ahead.length} days.`;
