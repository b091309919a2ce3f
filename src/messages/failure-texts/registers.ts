import type { FailureCode } from '@/core/failure/failure';
import { sayNoMerge } from '../stock';
import { SHEET_TEXTS } from './sheet';
import { type Facts, type Text, text } from './facts';

/** The figures of the work desk, and how each is shown. */
const WORK_FIELDS: Readonly<Record<string, string>> = {
  size: 'The size of the tool',
  size2: 'The size of the second tool',
  away: 'The distance from the dust',
  air: 'The air its maker asks for',
  hours: 'The hours',
  supply: 'The voltage at the socket',
  breaker: 'The breaker',
  machineA: 'Current of the machine',
  toolA: 'Current of the tool',
  socket: 'Rating of the socket on the machine',
  lead: 'The length of the lead',
  section: 'The section of the lead',
  generator: 'Rating of the generator',
};

/** The limits are kept in SI; a size is typed in millimetres, air in litres. */
const SHOWN_TIMES: Readonly<Record<string, number>> = { mm: 1000, 'L/s': 1000 };
const inShown = (f: Facts, key: string): string => {
  const unit = text(f['unit']);
  return `${Number((Number(f[key]) * (SHOWN_TIMES[unit] ?? 1)).toPrecision(4))} ${unit}`;
};

/** Refusals of a site, a part or a meter. */
export const REGISTER_TEXTS = {
  ...SHEET_TEXTS,
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
  'restore.damaged': () => [
    'Copy damaged',
    'That file is damaged, or no copy of these records. Nothing was changed.',
    'Take another copy from the list.',
  ],
  'restore.newer': (f) => [
    'Copy of a newer Moorwind',
    `That copy is of a newer Moorwind (${text(f['schema'])}). Nothing was changed.`,
    'Bring this Moorwind up to date first.',
  ],
  'restore.in-use': () => [
    'Records in use',
    'Moorwind, or another program, has the records open and is at work on them. Nothing was changed.',
    'Stop it first, or wait until it is done and try again.',
  ],
  'restore.unknown': () => [
    'No such copy',
    'There is no copy of that name on the list. Nothing was changed.',
    'Choose one from the list.',
  ],
  'bundle.damaged': (f) => [
    'Bundle damaged',
    `This is not a complete Moorwind bundle: ${text(f['where'])} is missing or damaged. Nothing was imported.`,
    'Fetch the bundle again from where it was made.',
  ],
  'bundle.newer': (f) => [
    'Bundle of a newer Moorwind',
    `That bundle was made by a newer Moorwind (${text(f['version'])}). Nothing was taken in.`,
    'Bring this Moorwind up to date first.',
  ],
  'bundle.stranger': (f) => [
    'A file that does not belong',
    `The bundle holds ${text(f['name'])}, which no bundle of Moorwind does. Nothing was taken in.`,
    'Fetch the bundle again from where it was made.',
  ],
  'bundle.too-large': () => [
    'Bundle too large',
    'Unpacked, that bundle is larger than any yard. Nothing was taken in.',
    'Fetch the bundle again from where it was made.',
  ],
  'bundle.tag-taken': (f) => [
    'Tag taken',
    `Another machine here has, or had, the tag ${text(f['tags'])}. Nothing was taken in.`,
    'Correct the tag of one of the two first, on its own yard.',
  ],
  'bundle.both-edited': (f) => [
    'Changed on both sides',
    `The air path of ${text(f['tags'])} was changed here and there since they parted. Nothing was taken in.`,
    'Somebody has to look at the machine: which of the two is it now?',
  ],
  'bundle.unreadable': (f) => [
    'Records do not fit together',
    `The records of ${text(f['tags'])} in that bundle do not fit together. Nothing was taken in.`,
    'Make the bundle again where it came from.',
  ],
  'machine.retired': (f) => [
    'No longer kept',
    `${text(f['tag'])} is no longer kept: nothing is recorded on it.`,
    'Bring it back first, on its page.',
  ],
  'retire.state': (f) => [
    'In what state?',
    `It holds ${text(f['level'])} dust. Nothing was recorded.`,
    'Say how it was decontaminated, or how it is sealed and marked.',
  ],
  'site.limits': () => [
    'Limits the wrong way round',
    'A machine would be stopped before anybody is warned.',
    'Make the loss that warns the smaller one.',
  ],
  'work.figure': (f) => [
    'Not believed',
    `${WORK_FIELDS[text(f['field'])] ?? 'That'} lies between ${inShown(f, 'low')} and ${inShown(f, 'high')}.`,
    'It is taken as not known.',
  ],
  'tool.name-taken': (f) => [
    'Name taken',
    `There is a tool "${text(f['name'])}" already. Nothing was saved.`,
    'Change that one, or give this one a name that tells them apart.',
  ],
  'tool.unknown': () => ['No such tool', 'That tool is not on file.', 'Open the list of tools and choose it there.'],
  'bonding.future': () => ['Not yet', 'That day has not come.', 'Type the day it was measured.'],
  'list.unknown': (f) => [
    'No such list',
    `No list is called "${text(f['name'])}".`,
    'There are machines, rules, parts, meters, people, waste and settings.',
  ],
  'part.code-taken': (f) => [
    'Code taken',
    `There is a part ${text(f['code'])} already. Nothing was saved.`,
    'Change that one, or give this one a code of its own.',
  ],
  'part.merge': (f) => [
    'Not made one',
    `${sayNoMerge(text(f['why']), text(f['gone']), text(f['kept']))} Nothing was changed.`,
    'A part that is taken for another one ends up as a wrong filter.',
  ],
  'instrument.name-taken': (f) => [
    'Name taken',
    `There is a meter "${text(f['name'])}" already. Nothing was saved.`,
    'Give this one a name that tells them apart: a serial number will do.',
  ],
  'instrument.used': (f) => [
    'Used by tests',
    `Recorded tests used ${text(f['name'])}, so the quantity it reads cannot be changed.`,
    'Enter the other quantity as a meter of its own, and retire this one if it is gone.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
