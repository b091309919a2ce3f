import type { Instrument } from '@/core/record/records';
import type { UnitSystem } from '@/core/units';
import { sayAccuracy } from '@/messages/registers';
import { QUANTITY_WORDS } from '@/messages/words';
import { type RegisterCell, type RegisterColumn, registerRow, type RegisterRow } from '@/contracts/register-row';

export const METER_COLUMNS: readonly RegisterColumn[] = [
  { id: 'name', label: 'Meter', numeric: false },
  { id: 'reads', label: 'Reads', numeric: false },
  { id: 'accuracy', label: 'Accuracy', numeric: false },
  { id: 'due', label: 'Calibration', numeric: false },
];

const dueCell = ({ retired, calibrationDueOn: due }: Instrument, today: string): RegisterCell =>
  retired
    ? { text: 'no longer used', sort: '9' }
    : due === null
      ? { text: 'no date on file', sort: '8' }
      : due < today
        ? { text: `ran out on ${due}`, tone: 'watch', sort: due }
        : { text: `due ${due}`, tone: 'good', sort: due };

export const meterRow = (i: Instrument, units: UnitSystem, today: string): RegisterRow =>
  registerRow(
    `/instruments/${i.id}`,
    [
      { text: i.name, note: i.certificate === '' ? '' : `certificate ${i.certificate}` },
      { text: QUANTITY_WORDS[i.reads] ?? i.reads },
      { text: sayAccuracy(i.accuracy, i.reads, units) },
      dueCell(i, today),
    ],
    { gone: i.retired },
  );
