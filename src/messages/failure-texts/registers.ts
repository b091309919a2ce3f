import { toDigits } from '@/core/units';
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
  return `${toDigits(Number(f[key]) * (SHOWN_TIMES[unit] ?? 1), 4)} ${unit}`;
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
    'Backup incomplete',
    'The backup failed its check and was deleted. The records did not change.',
    'Make another one. If it fails again, the disk may be failing: copy the records to another disk.',
  ],
  'restore.damaged': () => [
    'Backup damaged',
    'That file is damaged, or not a backup of these records. Nothing was changed.',
    'Choose another backup from the list.',
  ],
  'restore.newer': (f) => [
    'Backup of a newer Moorwind',
    `That backup is from a newer Moorwind (${text(f['schema'])}). Nothing was changed.`,
    'Update this Moorwind first.',
  ],
  'restore.in-use': () => [
    'Records in use',
    'Moorwind, or another program, has the records open. Nothing was changed.',
    'Stop it, or wait until it is done and try again.',
  ],
  'restore.unknown': () => [
    'Unknown backup',
    'No backup on the list has that name. Nothing was changed.',
    'Choose one from the list.',
  ],
  'bundle.damaged': (f) => [
    'Export file damaged',
    `This is not a complete Moorwind export file: ${text(f['where'])} is missing or damaged. Nothing was imported.`,
    'Export it again where it was made.',
  ],
  'bundle.newer': (f) => [
    'Export file of a newer Moorwind',
    `That export file was made by a newer Moorwind (${text(f['version'])}). Nothing was imported.`,
    'Update this Moorwind first.',
  ],
  'bundle.stranger': (f) => [
    'A file that does not belong',
    `The export file holds ${text(f['name'])}, which Moorwind never exports. Nothing was imported.`,
    'Export it again where it was made.',
  ],
  'bundle.too-large': () => [
    'Export file too large',
    'Unpacked, the export file is too large to be one yard. Nothing was imported.',
    'Export it again where it was made.',
  ],
  'bundle.tag-taken': (f) => [
    'Tag taken',
    `Another machine here has, or had, the tag ${text(f['tags'])}. Nothing was imported.`,
    'Correct the tag of one of the two first, on its own yard.',
  ],
  'bundle.both-edited': (f) => [
    'Changed on both sides',
    `The air path of ${text(f['tags'])} was edited both here and where the file comes from. Nothing was imported.`,
    'Look at the machine and decide which air path is right.',
  ],
  'bundle.unreadable': (f) => [
    'Records do not fit together',
    `The records of ${text(f['tags'])} in that export file do not fit together. Nothing was imported.`,
    'Export it again where it came from.',
  ],
  'machine.retired': (f) => [
    'Retired',
    `${text(f['tag'])} is retired: no new records can be added.`,
    'Bring it back first, on its page.',
  ],
  'retire.state': (f) => [
    'In what state?',
    `It holds ${text(f['level'])} dust. Nothing was recorded.`,
    'Say how it was decontaminated, or how it is sealed and marked.',
  ],
  'site.limits': () => [
    'Limits the wrong way round',
    'The loss to act at must be larger than the loss to warn at.',
    'Make the warning loss the smaller one.',
  ],
  'work.figure': (f) => [
    'Out of range',
    `${WORK_FIELDS[text(f['field'])] ?? 'That'} lies between ${inShown(f, 'low')} and ${inShown(f, 'high')}.`,
    'It is treated as unknown.',
  ],
  'tool.name-taken': (f) => [
    'Name taken',
    `Another tool is called "${text(f['name'])}". Nothing was saved.`,
    'Change that one, or give this one a different name.',
  ],
  'tool.unknown': () => ['No such tool', 'That tool is not on file.', 'Open the list of tools and choose it there.'],
  'bonding.future': () => ['In the future', 'That date is in the future.', 'Type the day it was measured.'],
  'list.unknown': (f) => [
    'No such list',
    `No list is called "${text(f['name'])}".`,
    'There are machines, rules, parts, meters, people, waste and settings.',
  ],
  'part.code-taken': (f) => [
    'Code taken',
    `Another part has the code ${text(f['code'])}. Nothing was saved.`,
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
    'Give this one a different name, such as its serial number.',
  ],
  'instrument.used': (f) => [
    'Used by tests',
    `Recorded tests used ${text(f['name'])}, so the quantity it reads cannot be changed.`,
    'Enter the other quantity as a meter of its own, and retire this one if it is gone.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
