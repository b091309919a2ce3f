import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, text } from './facts';
import { waitText } from '../format';

/** Refusals of signing in and of roles. */
export const PEOPLE_TEXTS = {
  'sign-in.wrong': () => [
    'Not let in',
    'Initials and passphrase do not belong together.',
    'Try again. A lead can give you a code for a new passphrase.',
  ],
  'sign-in.wait': (f) => [
    'Wait',
    'Too many wrong tries for these initials.',
    `Try again in ${waitText(Number(f['seconds'] ?? 0))}.`,
  ],
  'sign-in.code': () => [
    'Code not right',
    'This code does not belong to these initials, or it has been used or run out.',
    'Ask a lead for a new one.',
  ],
  'sign-in.ended': () => [
    'Signed out',
    'You are signed out. Nothing was saved, and nothing you typed is lost.',
    'Sign in in another tab, come back here and send it again.',
  ],
  'sign-in.other': (f) => [
    'Not your initials',
    `You are signed in as ${text(f['initials'])}; this would be signed ${text(f['by'])}. Nothing was saved.`,
    'Sign with your own initials, or let them sign in.',
  ],
  'role.not-yours': (f) => [
    'Not yours to do',
    `This needs the role ${text(f['needed'])}; your role is ${text(f['role'])}. Nothing was saved.`,
    'Ask a lead to do it, or to change your role.',
  ],
  'person.unknown': (f) => [
    'Nobody by that name',
    `Nobody active has the initials ${text(f['initials'])}.`,
    'See the list of people.',
  ],
  'person.last-lead': () => [
    'The last lead',
    'This is the last lead who can sign in. Without one nobody could manage sign-ins.',
    'Make another person a lead first, and have them choose a passphrase.',
  ],
  'person.no-lead': () => [
    'No lead yet',
    'No lead has a passphrase yet: you would be shut out.',
    'Give a lead a code, and have them choose a passphrase first.',
  ],
  'person.not-contained': (f) => [
    'Not for contained work',
    `${text(f['initials'])} is not on file for contained work.`,
    'Leave it shut. A trained and fitted person must do it, or a lead enters the proof first.',
  ],
  'writes.too-many': () => [
    'Too much at once',
    'More was sent in a minute than a person can do. This was not saved.',
    'Wait a minute and send it again.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
