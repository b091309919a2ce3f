import { assessDust, stated } from '@/core/dust/assess';
import { fail, failure } from '@/core/failure/failure';
import { MACHINE_KIND_NAMES, MACHINE_KINDS } from '@/core/machine/kinds';
import { MACHINE_CLASSES } from '@/core/filter/machine-class';
import { newPath } from '@/core/machine/new-path';
import { ROLES } from '@/core/people/person';
import type { SheetRow } from '@/core/sheet/read';
import type { SheetKind } from '@/core/sheet/fields';
import { findPerson, savePerson } from '../../repositories/people';
import { insertMovement, savePart } from '../../repositories/stock';
import { enterMachine } from '../yard/edit-path';
import { changeRow, hoursRow, testRow } from './sheet-work';
import { type Done, done, numberOf, oneOf, type SheetWorld, textOf, twice } from './sheet-world';

// One row of a spreadsheet, written as the same record by hand would be.

/** A word that resembles one of the register counts as it: too careful is better than not enough. */
const dustOf = ({ dusts }: SheetWorld, words: string) => {
  const likely = assessDust(dusts, stated(words)).toConfirm.map((m) => m.key);
  return { ...stated(words), confirmed: [...new Set(likely)].slice(0, 12), denied: [] };
};

const machineRow = async (w: SheetWorld, row: SheetRow): Promise<Done> => {
  const tag = textOf(row, 'tag');
  const again = twice(w, tag, 'tag');
  if (!again.ok) return again;
  if (!/^[A-Za-z0-9][A-Za-z0-9.-]*$/.test(tag)) return fail(failure('field.invalid', 'tag'));
  const kind = oneOf(MACHINE_KIND_NAMES, textOf(row, 'kind'), 'shopVacuum');
  const machine = {
    name: textOf(row, 'name'),
    maker: textOf(row, 'maker'),
    place: textOf(row, 'place'),
    machineClass: MACHINE_CLASSES.find((c) => c === row['machineClass']) ?? null,
    hasBrush: row['hasBrush'] === true,
    wetSet: false,
    hoseBoreM: numberOf(row, 'hoseBore') ?? MACHINE_KINDS[kind].hoseM,
    hoseLengthM: numberOf(row, 'hoseLength') ?? 3,
    hoseSelectorM: null,
    nominalVolts: numberOf(row, 'volts') ?? 230,
  };
  const firstUsedOn = textOf(row, 'firstUsedOn') || null;
  const path = { machine, stages: [...newPath(kind)] };
  const body = { by: w.by, note: '', tag, kind, firstUsedOn, dust: dustOf(w, textOf(row, 'dust')), path };
  const made = await enterMachine(w.tx, { body, at: w.at });
  return made.ok
    ? done
    : fail(...made.failures.map((f) => ({ ...f, path: f.path.startsWith('dust') ? 'dust' : f.path })));
};

const partRow = async (w: SheetWorld, row: SheetRow): Promise<Done> => {
  const code = textOf(row, 'code').toUpperCase();
  const again = twice(w, code, 'code');
  if (!again.ok) return again;
  if (w.parts.has(code)) return fail(failure('sheet.known', 'code', { what: code }));
  const id = await savePart(w.tx, null, {
    code,
    name: textOf(row, 'name'),
    packSize: numberOf(row, 'packSize') ?? 1,
    bin: textOf(row, 'bin'),
    supplier: textOf(row, 'supplier'),
    price: numberOf(row, 'price') ?? 0,
    leadDays: numberOf(row, 'leadDays') ?? 14,
    shelfDays: numberOf(row, 'shelfDays'),
    minimum: numberOf(row, 'minimum'),
    retiredOn: null,
    medium: textOf(row, 'medium'),
    areaM2: numberOf(row, 'areaM2'),
    rating: textOf(row, 'rating'),
  });
  const quantity = numberOf(row, 'onHand') ?? 0;
  if (quantity > 0)
    await insertMovement(w.tx, {
      partId: id,
      quantity,
      reason: 'opening',
      at: w.at,
      by: w.by,
      of: { kind: 'none' },
      note: 'on the shelf when it was entered',
    });
  return done;
};

const personRow = async (w: SheetWorld, row: SheetRow): Promise<Done> => {
  const initials = textOf(row, 'initials').toUpperCase();
  const again = twice(w, initials, 'initials');
  if (!again.ok) return again;
  if (await findPerson(w.tx, initials)) return fail(failure('sheet.known', 'initials', { what: initials }));
  const person = {
    initials,
    name: textOf(row, 'name'),
    role: oneOf(ROLES, textOf(row, 'role'), 'technician'),
    mayContain: row['mayContain'] === true,
    maskFitOn: textOf(row, 'maskFitOn') || null,
    trainedOn: textOf(row, 'trainedOn') || null,
    active: true,
  };
  await savePerson(w.tx, person, w.at);
  return done;
};

/** Writes one row, or returns its problems, by the name of the field. */
export const WRITE_ROW: Readonly<Record<SheetKind, (w: SheetWorld, row: SheetRow) => Promise<Done>>> = {
  machines: machineRow,
  parts: partRow,
  people: personRow,
  changes: changeRow,
  tests: testRow,
  hours: hoursRow,
};
