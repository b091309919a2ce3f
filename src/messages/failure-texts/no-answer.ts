import type { FailureCode } from '@/core/failure/failure';
import type { Problem } from '../problem';
import type { Facts, Text } from './facts';

/** Refusals that a page says by itself, with no connection to load their sentences over. */
export const NO_ANSWER_TEXTS = {
  'action.busy': () => [
    'Not reached',
    'The server did not answer. What you typed is still here.',
    'Try again: the same entry is never recorded twice.',
  ],
  'action.not-reloaded': () => [
    'This page is out of date',
    'The page could not be updated after the last entry.',
    'Reload the page before you go on: it shows what is on record.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;

const said = (code: keyof typeof NO_ANSWER_TEXTS): Problem => {
  const [title, sentence, hint] = NO_ANSWER_TEXTS[code]();
  return { code, path: '', title, sentence, hint };
};

/** The server did not answer an action. */
export const noAnswer = (): Problem => said('action.busy');

/** An action is on record and the page could not be brought up to date after it. */
export const shownIsOld = (): Problem => said('action.not-reloaded');
