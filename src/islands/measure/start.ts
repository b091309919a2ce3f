import { CENTRE_PROFILE_FACTOR } from '@/core/constants/limits';
import type { MeasuredMachine } from '@/core/machine/machine';
import { preconditionsFor } from '@/core/measure/methods';
import { STAGE_KINDS } from '@/core/path/stage-kinds';
import type { TestRecord } from '@/core/record/records';
import { SHOWN, type UnitSystem } from '@/core/units';
import { toLocalField } from '@/ui/local-moment';
import { entryOfDetail, startDetails, startPads, startUnits, typedOf } from './details-start';
import type { MeasureState } from './state';

interface Start {
  readonly machine: MeasuredMachine;
  readonly units: UnitSystem;
  readonly by: string;
  readonly clientId: string;
  /** The change this test follows. */
  readonly afterChangeId: number | null;
  /** The last test of this machine: place, method, rig and instrument carry over. */
  readonly previous: TestRecord | null;
}

/** An empty pad, set up as the machine was measured last time. */
export const startState = ({ machine, units, by, clientId, afterChangeId, previous }: Start): MeasureState => {
  const us = units === 'us';
  const length = SHOWN[units].length.unit;
  const method = previous?.test.method ?? 'flowMeter';
  const lastUnit = previous?.readings.at(-1)?.unit;
  const stageId = machine.stages.find((s) => STAGE_KINDS[s.kind].filters)?.id ?? null;
  const details = startDetails({ units, stageId });
  return {
    clientId,
    method,
    place: previous?.test.place ?? 'hoseEnd',
    pads: startPads(),
    details: previous ? { ...details, [method]: entryOfDetail(previous.test.detail, units) } : details,
    pad: '',
    units: lastUnit === undefined ? startUnits(units) : { ...startUnits(units), [method]: lastUnit },
    slotChoice: null,
    ticked: [],
    instrumentId: previous?.test.instrumentId ?? null,
    bore: typedOf(previous?.test.boreM ?? null, 'length', length),
    profileFactor: String(previous?.test.profileFactor ?? CENTRE_PROFILE_FACTOR.value),
    hoseBore: typedOf(machine.hoseBoreM, 'length', length),
    temperature: us ? { typed: '68', unit: 'degF' } : { typed: '20', unit: 'degC' },
    humidity: { typed: '50', unit: '%' },
    pressure: { typed: '', unit: us ? 'psi' : 'kPa' },
    volts: { typed: '', unit: 'V' },
    wheel: typedOf(previous?.use.wheelM ?? null, 'length', length),
    ductLoad: previous?.use.ductLoad ?? null,
    rigSeries: previous?.test.rigSeries ?? 1,
    configuration: '',
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

/** The pad filled from a record that is to be corrected: as typed then, in the units typed then. */
export const stateOfRecord = (record: TestRecord, start: Start): MeasureState => {
  const { test } = record;
  const fresh = startState({ ...start, previous: record });
  const wanted = preconditionsFor({ method: test.method, hasBrush: start.machine.hasBrush });
  return {
    ...fresh,
    pads: {
      ...fresh.pads,
      [test.method]: record.readings.map(({ typed, unit, slot, how, struckBecause }) => ({
        typed,
        unit,
        slot,
        how,
        struckBecause,
      })),
    },
    ticked: wanted.filter((p) => !test.failedPreconditions.includes(p)),
    hoseBore: typedOf(test.hoseBoreM, 'length', SHOWN[start.units].length.unit),
    temperature: typedOf(test.air.temperatureK, 'temperature', 'degC'),
    humidity: typedOf(test.air.relativeHumidity, 'relativeHumidity', '%'),
    pressure: typedOf(test.air.pressurePa, 'pressure', 'kPa'),
    volts: typedOf(test.volts, 'voltage', 'V'),
    configuration: record.configuration,
    bagState: record.bagState,
    isBaseline: record.isBaseline,
    by: record.by,
    note: record.note,
    when: toLocalField(record.performedAt),
  };
};
