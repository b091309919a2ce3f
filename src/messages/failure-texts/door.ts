import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, text, fieldOf } from './facts';

/** Refusals of a request. */
export const DOOR_TEXTS = {
  'text.missing': (f) => [
    'Missing',
    f['field'] === 'by' ? 'Your initials are missing.' : `${fieldOf(f)} is missing.`,
    'Fill it in.',
  ],
  'text.too-long': (f) => ['Too long', `${fieldOf(f)} is too long or too large.`, `At most ${text(f['most'])}.`],
  'field.invalid': (f) => [
    'Not understood',
    `${fieldOf(f)} is not something Moorwind can read.`,
    'Check it and send again.',
  ],
  'request.not-json': () => ['JSON needed', 'This address takes application/json.', 'Send the right content type.'],
  'request.malformed': () => ['Malformed JSON', 'The request is not readable as JSON.', 'Check it and send again.'],
  'request.too-large': (f) => ['Too large', 'The request is too large.', `At most ${text(f['most'])} bytes.`],
  'request.method': () => [
    'Wrong method',
    'This address does not take that method.',
    'See the documentation of the address.',
  ],
  'request.host': () => [
    'Unknown host',
    'This server does not answer to that name.',
    'Use the address it printed when it started.',
  ],
  'request.elsewhere': () => [
    'From another site',
    'A page of another site may not read or write the records.',
    'Open Moorwind at its own address.',
  ],
  'stream.too-many': () => [
    'Too many listening',
    'Too many pages listen to a meter at once.',
    'Close those that are not needed, and try again.',
  ],
  'server.busy': () => [
    'Busy',
    'The records are held by another program. Nothing was saved.',
    'Try again in a moment.',
  ],
  'server.disk-full': () => [
    'Disk full',
    'The disk of the records is full. This was not saved; what was saved before is safe and can be read.',
    'Make room on the disk, then send it again.',
  ],
  'server.disk': () => [
    'Disk fault',
    'The records cannot be written or read where they lie. This was not saved.',
    'Have the disk looked at, and your newest backup at hand.',
  ],
  'page.unknown': () => ['Nothing here', 'This page does not exist.', 'Go to the round, or press / and type a tag.'],
  'calc.unknown': (f) => ['Unknown calculation', `No calculation is called "${text(f['name'])}".`, 'See calc --list.'],
  'calc.outside': (f) => [
    'Outside the formula',
    `A formula was asked beyond what it holds for: ${text(f['why'])}.`,
    'Check the figures and their units.',
  ],
  'calc.no-figure': () => [
    'No answer',
    'These figures lead to no number that means anything.',
    'Check the figures and their units.',
  ],
  'server.bug': () => [
    'Something broke',
    'Moorwind made a mistake. Nothing was half saved.',
    'Try again. If it happens again, note what you did and report it.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
