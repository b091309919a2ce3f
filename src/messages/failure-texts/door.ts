import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, text } from './facts';

/** What a request can be refused for. */
export const DOOR_TEXTS = {
  'text.missing': () => ['Missing', 'This is needed.', 'Fill it in.'],
  'text.too-long': (f) => ['Too long', 'That is longer than fits.', `At most ${text(f['most'])}.`],
  'field.invalid': () => [
    'Not understood',
    'This field holds something Moorwind cannot read.',
    'Check it and send again.',
  ],
  'request.not-json': () => ['JSON wanted', 'This address takes application/json.', 'Send the right content type.'],
  'request.malformed': () => ['Malformed JSON', 'The request is not readable as JSON.', 'Check it and send again.'],
  'request.too-large': (f) => [
    'Too large',
    'The request is larger than any honest entry.',
    `At most ${text(f['most'])} bytes.`,
  ],
  'request.method': () => [
    'Not that way',
    'This address does not take that method.',
    'See the documentation of the address.',
  ],
  'request.host': () => [
    'Unknown host',
    'This server does not answer to that name.',
    'Open it under the address it printed at the start.',
  ],
  'page.unknown': () => ['Nothing here', 'There is no such page.', 'Go to the round, or press / and type a tag.'],
  'calc.unknown': (f) => ['Unknown calculation', `There is no calculation "${text(f['name'])}".`, 'See calc --list.'],
  'server.bug': () => [
    'Something broke',
    'Moorwind made a mistake; nothing was half-written.',
    'Try again. If it stays, note what you did and report it.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
