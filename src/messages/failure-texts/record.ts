import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, text, fieldOf } from './facts';
import { NO_ANSWER_TEXTS } from './no-answer';

/** Refusals of a record. */
export const RECORD_TEXTS = {
  'path.empty': () => ['Empty path', 'This machine has no stages yet.', 'Add its stages from tool to room.'],
  'path.no-fan': () => ['No fan', 'This air path has no fan.', 'Put the fan where the motor is.'],
  'path.two-fans': () => ['Two fans', 'This air path has two fans.', 'Keep the one that moves the air.'],
  'date.future': (f) => ['In the future', `${text(f['day'])} is in the future.`, 'Type the day the work was done.'],
  'date.invalid': (f) => [
    'No such day',
    `${fieldOf(f)} is not a day and time that Moorwind can read.`,
    'Write it like 2026-01-31 14:05, pick it from the calendar, or leave it empty for now.',
  ],
  'date.before-service': (f) => [
    'Before it came into service',
    `${text(f['day'])} is before this machine came into service on ${text(f['inServiceOn'])}.`,
    'Check the day and the machine.',
  ],
  'machine.unknown': (f) => [
    'Unknown machine',
    `No machine has the tag "${text(f['tag'])}".`,
    'Press / and type the tag on its label.',
  ],
  'machine.tag-taken': (f) => [
    'Tag taken',
    `There is a machine ${text(f['tag'])} already.`,
    'Give this one a tag of its own.',
  ],
  'stage.unknown': (f) => [
    'Not on this machine',
    `${text(f['tag'])} has no such stage.`,
    'Choose a stage on the strip.',
  ],
  'stage.not-changeable': (f) => [
    'Not a part to change',
    `The ${text(f['stage'])} is not a part to change.`,
    'Choose a bag or a filter on the strip.',
  ],
  'part.unknown': () => ['Unknown part', 'That part is not in the catalogue.', 'Choose one from the list.'],
  'part.wrong-for-stage': (f) => [
    'Does not fit',
    `That part does not belong in the ${text(f['stage'])}.`,
    `${text(f['fits'])} fits.`,
  ],
  'test.unknown': () => [
    'Unknown test',
    'That test is not on this machine.',
    "Open the machine's file and choose it there.",
  ],
  'test.wrong-machine': () => [
    "Another machine's test",
    'The test before the change is not one of this machine.',
    "Choose one of this machine's tests, or none.",
  ],
  'change.unknown': () => [
    'Unknown change',
    'That change is not on this machine.',
    "Open the machine's file and choose it there.",
  ],
  'record.superseded': () => [
    'Already corrected',
    'Somebody has corrected this record since you opened it.',
    'Open the file again and correct the newest one.',
  ],
  'count.range': () => [
    'Count',
    'A count is a whole number, zero or more.',
    'Count single pieces on the shelf; do not count packs.',
  ],
  'action.reused': () => [
    'Already recorded',
    'An entry with this number was recorded already, with different contents.',
    "Open the machine's file to see what was recorded.",
  ],
  ...NO_ANSWER_TEXTS,
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
