import { CENTRE_PROFILE_FACTOR } from '@/core/constants/limits';
import { fromSi, type UnitSystem } from '@/core/units';
import type { Machine } from '@/core/machine/machine';
import { preconditionsFor } from '@/core/measure/methods';
import type { TestRecord } from '@/core/record/records';
import { toLocalField } from '@/ui/local-moment';
import type { MeasureState } from './state';

interface Start {
  readonly machine: Machine;
  readonly units: UnitSystem;
  readonly by: string;
  readonly clientId: string;
  /** The change this test follows. */
  readonly afterChangeId: number | null;
  /** What was chosen last time on this machine: place, method, bore and instrument carry over. */
  readonly previous: TestRecord | null;
}

const inUnit = (valueM: number | null, unit: string) => ({
  typed: valueM === null ? '' : `${Number(fromSi('length', valueM, unit).toPrecision(6))}`,
  unit,
});

const LENGTH_UNIT: Record<UnitSystem, string> = { metric: 'mm', us: 'in' };

/** An empty pad, set up as the machine was measured last time. */
export const startState = ({ machine, units, by, clientId, afterChangeId, previous }: Start): MeasureState => {
  const us = units === 'us';
  const lastUnit = previous?.readings.at(-1)?.unit;
  const base = { flowMeter: us ? 'cfm' : 'L/s', anemometer: us ? 'fpm' : 'm/s', sealedSuction: us ? 'inH2O' : 'kPa' };
  const method = previous?.test.method ?? 'flowMeter';
  return {
    clientId,
    method,
    place: previous?.test.place ?? 'hoseEnd',
    pads: { flowMeter: [], anemometer: [], sealedSuction: [] },
    pad: '',
    units: lastUnit === undefined ? base : { ...base, [method]: lastUnit },
    ticked: [],
    instrumentId: previous?.test.instrumentId ?? null,
    bore: inUnit(previous?.test.boreM ?? null, LENGTH_UNIT[units]),
    profileFactor: String(previous?.test.profileFactor ?? CENTRE_PROFILE_FACTOR.value),
    hoseBore: inUnit(machine.hoseBoreM, LENGTH_UNIT[units]),
    temperature: us ? { typed: '68', unit: 'degF' } : { typed: '20', unit: 'degC' },
    humidity: { typed: '50', unit: '%' },
    pressure: { typed: '', unit: us ? 'psi' : 'kPa' },
    bagState: afterChangeId === null ? 'asFound' : 'asLeft',
    isBaseline: false,
    by,
    note: '',
    when: '',
    correctionReason: '',
    sending: false,
    problems: [],
  };
};

const trimmed = (value: number): string => String(Number(value.toPrecision(7)));

/** The pad filled from a record that is to be corrected: as typed then, in the units typed then. */
export const stateOfRecord = (record: TestRecord, start: Start): MeasureState => {
  const { test } = record;
  const fresh = startState({ ...start, previous: record });
  const wanted = preconditionsFor({ method: test.method, hasBrush: start.machine.hasBrush });
  return {
    ...fresh,
    pads: {
      ...fresh.pads,
      [test.method]: record.readings.map(({ typed, unit, struckBecause }) => ({ typed, unit, struckBecause })),
    },
    ticked: wanted.filter((p) => !test.failedPreconditions.includes(p)),
    hoseBore: inUnit(test.hoseBoreM, LENGTH_UNIT[start.units]),
    temperature: { typed: trimmed(fromSi('temperature', test.air.temperatureK, 'degC')), unit: 'degC' },
    humidity: { typed: trimmed(test.air.relativeHumidity * 100), unit: '%' },
    pressure: { typed: trimmed(test.air.pressurePa / 1000), unit: 'kPa' },
    bagState: record.bagState,
    isBaseline: record.isBaseline,
    by: record.by,
    note: record.note,
    when: toLocalField(record.performedAt),
  };
};
