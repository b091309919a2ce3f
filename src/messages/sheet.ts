import type { SheetKind } from '@/core/sheet/fields';

/** The content of a sheet kind, for a button and a heading. */
export const SHEET_WORDS: Readonly<Record<SheetKind, string>> = {
  machines: 'machines',
  parts: 'parts',
  people: 'people',
  changes: 'past changes',
  tests: 'past tests',
  hours: 'run hours',
};

/** What to know before one comes in. */
export const SHEET_HELP: Readonly<Record<SheetKind, string>> = {
  machines:
    'Tag, name, kind, place and what each has collected; class, hose and first day where you have them. Each gets the path and the usual rules of its kind: look them over afterwards. A dust that may be a worse one is taken for it.',
  parts: 'Code and name; what lies on the shelf, pack, bin, price, lead time and supplier where you have them.',
  people:
    'Initials and name; role and training where you have them. Each chooses a passphrase with a code you make on the page of people.',
  changes:
    'Machine, day and stage; part, reason and containment where you have them. The stock on the shelf does not change: it was counted now.',
  tests:
    'Machine, day, method and readings; separate several readings in one cell with ";". Write the unit behind the number or in the heading. Air of 20 °C is assumed.',
  hours: 'Machine, day and hours. The newest word for a day stands.',
};
