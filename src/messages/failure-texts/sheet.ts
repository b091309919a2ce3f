import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, text } from './facts';

/** Refusals of a cell, a row or a whole spreadsheet. */
export const SHEET_TEXTS = {
  'sheet.day': (f) => ['Not a date', `"${text(f['typed'])}" is not a date.`, 'Write it like 2026-01-31.'],
  'sheet.choice': (f) => [
    'Not one of these',
    `"${text(f['typed'])}" is none of: ${text(f['allowed'])}.`,
    'Write one of them, or leave the column out.',
  ],
  'sheet.number': (f) => ['Not a number', `"${text(f['typed'])}" is not a number.`, 'Write figures only.'],
  'sheet.whole': (f) => [
    'Whole pieces',
    `"${text(f['typed'])}" is not a whole number.`,
    'Write it without a fraction.',
  ],
  'sheet.range': (f) => [
    'Out of range',
    `${text(f['typed'])} is not between ${text(f['least'])} and ${text(f['most'])}.`,
    'Check the column and its unit.',
  ],
  'sheet.size': (f) => [
    'Out of range',
    `${text(f['typed'])} is too small or too large for this.`,
    'Check the unit: write it behind the number, or in the heading.',
  ],
  'sheet.yes-no': (f) => ['Yes or no', `"${text(f['typed'])}" is neither yes nor no.`, 'Write yes or no.'],
  'sheet.needed': (f) => ['Empty', `${text(f['label'])} is empty.`, 'Fill it in, or leave the row out.'],
  'sheet.stage': (f) => [
    'No such stage',
    `${text(f['tag'])} has no stage "${text(f['stage'])}" that is changed. It has: ${text(f['has'])}.`,
    'Write the name of one of them.',
  ],
  'sheet.part': (f) => [
    'No such part',
    `No part has the code ${text(f['code'])}, or it does not belong there.`,
    'Bring the parts first, or leave the cell empty.',
  ],
  'sheet.meter': (f) => [
    'No such meter',
    `No meter is called "${text(f['name'])}".`,
    'Enter it first, or leave the cell empty: the result is then only as good as its display.',
  ],
  'sheet.twice': (f) => ['Twice', `${text(f['what'])} is also in an earlier row.`, 'Leave one of the two rows out.'],
  'sheet.known': (f) => [
    'Here already',
    `${text(f['what'])} is on file already.`,
    'Leave the row out, or change it on its page.',
  ],
  'sheet.tag': (f) => [
    'No such machine',
    `No machine has the tag ${text(f['tag'])}.`,
    'Bring the machines first, or correct the tag in the sheet.',
  ],
  'sheet.empty': () => ['Nothing in it', 'That sheet has no rows.', 'Check that it has a heading and rows below it.'],
  'import.built-on': (f) => [
    'In use',
    `Later records use rows from this sheet (${text(f['what'])}), so it cannot be undone.`,
    'Correct or withdraw single records on their own pages.',
  ],
  'import.unknown': () => ['Unknown import', 'That import was undone already, or never happened.', 'Reload the page.'],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
