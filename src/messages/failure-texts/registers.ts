import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, text } from './facts';

/** What a site, a part or a meter can be refused for. */
export const REGISTER_TEXTS = {
  'site.time-zone': () => [
    'No such time zone',
    'That is not the name of a time zone.',
    'Choose one from the list, like Europe/London or America/New_York.',
  ],
  'backup.not-whole': () => [
    'Copy not whole',
    'The copy was read through and did not hold all it should: it was thrown away, and the records are untouched.',
    'Take another. If it fails again, the disk may be failing: copy the records to another one.',
  ],
  'site.limits': () => [
    'Limits the wrong way round',
    'A machine would be stopped before anybody is warned.',
    'Make the loss that warns the smaller one.',
  ],
  'part.code-taken': (f) => [
    'Code taken',
    `There is a part ${text(f['code'])} already. Nothing was saved.`,
    'Change that one, or give this one a code of its own.',
  ],
  'instrument.name-taken': (f) => [
    'Name taken',
    `There is a meter "${text(f['name'])}" already. Nothing was saved.`,
    'Give this one a name that tells them apart: a serial number will do.',
  ],
  'instrument.used': (f) => [
    'Tests hang on it',
    `Tests on record were taken with ${text(f['name'])}: what it reads cannot change any more.`,
    'Enter the other quantity as a meter of its own, and retire this one if it is gone.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
