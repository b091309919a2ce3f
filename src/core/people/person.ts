import { addMonths, type CalendarDate } from '../calendar/calendar-date';

export const ROLES = ['look', 'technician', 'lead'] as const;

/** `look` reads; `technician` records work; `lead` also keeps settings and people. */
export type Role = (typeof ROLES)[number];

export interface Person {
  readonly id: number;
  readonly initials: string;
  readonly name: string;
  readonly role: Role;
  /** Trained and fitted for contained work. */
  readonly mayContain: boolean;
  readonly maskFitOn: CalendarDate | null;
  readonly trainedOn: CalendarDate | null;
  readonly active: boolean;
}

/** Whether a role may do what another one may. Valid: every pair. */
export const mayAs = (role: Role, needed: Role): boolean => ROLES.indexOf(role) >= ROLES.indexOf(needed);

/** A fit test is asked for again after so long, months: common practice of employers, no fixed legal interval; 29 CFR 1910.134(f)(2) asks for one every 12 months. */
const FIT_MONTHS = 12;

/** What of a person's papers has run out or is missing for contained work. */
export type PaperGap = 'noFit' | 'fitOld' | 'noTraining';

/**
 * Missing proofs of a person who may do contained work; none for others. Source: 29 CFR 1910.134(f)(2) for the year.
 *
 */
export const paperGaps = ({ mayContain, maskFitOn, trainedOn }: Person, today: CalendarDate): readonly PaperGap[] => {
  if (!mayContain) return [];
  const fit: readonly PaperGap[] =
    maskFitOn === null ? ['noFit'] : addMonths(maskFitOn, FIT_MONTHS) < today ? ['fitOld'] : [];
  return [...fit, ...(trainedOn === null ? (['noTraining'] as const) : [])];
};

/** What kinds of key a program may hold: each opens one thing, for reading or for a meter's lines. */
export const KEY_PURPOSES = ['calendar', 'label', 'meter'] as const;
export type KeyPurpose = (typeof KEY_PURPOSES)[number];

/** Wrong passphrases in a row that cost nothing; each one after them doubles the wait. A modelling choice. */
const FREE_GUESSES = 5;
const FIRST_WAIT_S = 10;
const LONGEST_WAIT_S = 900;

/** Wait before the next try after this many wrong ones in a row, s. Valid: 0 and more. Choice: a Moorwind default. */
export const waitAfterWrong = (wrong: number): number =>
  wrong < FREE_GUESSES ? 0 : Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** (wrong - FREE_GUESSES));
