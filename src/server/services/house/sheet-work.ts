import { CENTRE_PROFILE_FACTOR } from '@/core/constants/limits';
import { dayAt } from '@/core/calendar/calendar-date';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { isChangeable, type Machine, type Stage, type MachineAirPath } from '@/core/machine/machine';
import { METHOD_NAMES, METHODS, preconditionsFor } from '@/core/measure/methods';
import { PLACES } from '@/core/measure/place';
import { reduceAny } from '@/core/measure/reduce-any';
import { parseTestEntry, type TestEntry } from '@/core/measure/test-entry';
import { CHANGE_REASONS, NO_USE } from '@/core/record/records';
import type { SheetRow } from '@/core/sheet/read';
import { SHOWN } from '@/core/units';
import { insertChange } from '../../repositories/changes';
import { insertTest } from '../../repositories/tests';
import { insertUsage } from '../../repositories/wear';
import { checkStage } from '../jobs/record-change';
import { dayChecked, type Done, done, machineOf, numberOf, oneOf, type SheetWorld, textOf, twice } from './sheet-world';
import { refusedBy } from '../yard/state-dust';

// The work of years past, row by row: changes, tests and run hours.

const stageOf = (machine: Machine, wanted: string): Result<Stage> => {
  const changeable = machine.stages.filter(isChangeable);
  const word = wanted.trim().toLowerCase();
  const byName = changeable.filter((s) => s.name.toLowerCase() === word);
  const byKind = changeable.filter((s) => s.kind.toLowerCase() === word.replace(/[^a-z]/g, ''));
  const [stage, second] = byName.length > 0 ? byName : byKind;
  const has = changeable.map((s) => s.name).join(', ');
  return stage && !second ? ok(stage) : fail(failure('sheet.stage', 'stage', { tag: machine.tag, stage: wanted, has }));
};

/** Old changes usually lack this; it is stored as unknown. */
const NOT_SAID = 'from a list; how it was contained is not on record';

export const changeRow = async (w: SheetWorld, row: SheetRow): Promise<Done> => {
  const machine = await machineOf(w, row);
  if (!machine.ok) return machine;
  const refused = refusedBy(machine.value);
  if (refused) return refused;
  const performedAt = dayChecked(w, machine.value, textOf(row, 'day'));
  if (!performedAt.ok) return performedAt;
  const stage = stageOf(machine.value, textOf(row, 'stage'));
  if (!stage.ok) return stage;
  const code = textOf(row, 'part').toUpperCase();
  const partId = code === '' ? (stage.value.part?.id ?? null) : (w.parts.get(code) ?? null);
  if (code !== '' && partId === null) return fail(failure('sheet.part', 'part', { code }));
  const by = textOf(row, 'by').toUpperCase() || w.by;
  const said = textOf(row, 'how');
  const how = { by, how: said === '' ? NOT_SAID : said };
  const checked = checkStage(machine.value, { stageId: stage.value.id, partId, how });
  if (!checked.ok) return fail(...checked.failures.map((f) => ({ ...f, path: f.path === 'partId' ? 'part' : f.path })));
  await insertChange(w.tx, {
    jobId: null,
    machineId: machine.value.id,
    stageId: stage.value.id,
    performedAt: performedAt.value,
    recordedAt: w.at,
    by,
    note: textOf(row, 'note'),
    reason: oneOf(CHANGE_REASONS, textOf(row, 'reason'), 'precaution'),
    partId,
    quantity: partId === null ? 0 : (numberOf(row, 'quantity') ?? 1),
    beforeTestId: null,
    how,
    supersedes: null,
  });
  return done;
};

const entryOf = (w: SheetWorld, row: SheetRow, machine: MachineAirPath): TestEntry => {
  const method = oneOf(METHOD_NAMES, textOf(row, 'method'), 'flowMeter');
  const column = w.columns.find((c) => c.field === 'readings');
  const unit = column?.unit ?? SHOWN.metric[METHODS[method].reads].unit;
  const typed = Array.isArray(row['readings']) ? (row['readings'] as readonly string[]) : [];
  const bore = numberOf(row, 'bore');
  return {
    method,
    place: oneOf(PLACES, textOf(row, 'place'), 'hoseEnd'),
    readings: typed.map((t) => ({ typed: t, unit, slot: 0, how: 'typed', struckBecause: null })),
    bore: METHODS[method].needs.includes('bore')
      ? { typed: bore === null ? '' : `${1000 * bore} mm`, unit: 'mm' }
      : null,
    profileFactor: METHODS[method].needs.includes('profileFactor') ? CENTRE_PROFILE_FACTOR.value : null,
    hoseBore: machine.hoseBoreM === null ? null : { typed: `${1000 * machine.hoseBoreM} mm`, unit: 'mm' },
    air: { temperature: { typed: '20', unit: 'degC' }, humidity: { typed: '50', unit: '%' }, pressure: null },
    detail: { kind: 'none' },
    volts: null,
    rigSeries: 1,
    failedPreconditions: w.vouched ? [] : [...preconditionsFor({ method, hasBrush: machine.hasBrush })],
  };
};

const FIELD_OF_ENTRY: Readonly<Record<string, string>> = { readings: 'readings', bore: 'bore', performedAt: 'day' };

export const testRow = async (w: SheetWorld, row: SheetRow): Promise<Done> => {
  const machine = await machineOf(w, row);
  if (!machine.ok) return machine;
  const performedAt = dayChecked(w, machine.value, textOf(row, 'day'));
  if (!performedAt.ok) return performedAt;
  const name = textOf(row, 'meter');
  const instrument = w.meters.find((m) => m.name.toLowerCase() === name.toLowerCase()) ?? null;
  if (name !== '' && !instrument) return fail(failure('sheet.meter', 'meter', { name }));
  const parsed = parseTestEntry(entryOf(w, row, machine.value), { altitudeM: w.site.altitudeM, instrument });
  const reduced = parsed.ok ? reduceAny(parsed.value.test) : parsed;
  if (!parsed.ok || !reduced.ok) {
    const failures = parsed.ok ? (reduced.ok ? [] : reduced.failures) : parsed.failures;
    return fail(...failures.map((f) => ({ ...f, path: FIELD_OF_ENTRY[f.path.split('.')[0] ?? ''] ?? 'readings' })));
  }
  await insertTest(w.tx, {
    machineId: machine.value.id,
    performedAt: performedAt.value,
    recordedAt: w.at,
    by: textOf(row, 'by').toUpperCase() || w.by,
    note: textOf(row, 'note'),
    parsed: parsed.value,
    isBaseline: row['baseline'] === true,
    bagState: row['asLeft'] === true ? 'asLeft' : 'asFound',
    afterChangeId: null,
    configuration: '',
    use: NO_USE,
    supersedes: null,
  });
  return done;
};

export const hoursRow = async (w: SheetWorld, row: SheetRow): Promise<Done> => {
  const machine = await machineOf(w, row);
  if (!machine.ok) return machine;
  const day = textOf(row, 'day');
  if (day > dayAt(w.at, w.site.timeZone)) return fail(failure('usage.future', 'day'));
  const again = twice(w, `${machine.value.tag} ${day}`, 'day');
  if (!again.ok) return again;
  await insertUsage(w.tx, {
    machineId: machine.value.id,
    day,
    hours: numberOf(row, 'hours') ?? 0,
    dust: textOf(row, 'dust'),
    at: w.at,
    by: textOf(row, 'by').toUpperCase() || w.by,
  });
  return done;
};
