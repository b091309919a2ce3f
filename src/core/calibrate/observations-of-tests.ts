import { toDigits } from '../units';
import { type AirState, moistAirDensity } from '../air/density';
import { airViscosityPaS } from '../air/viscosity';
import { UNSTATED_UNCERTAINTY } from '../constants/calibration';
import type { Machine, MachineAirPath } from '../machine/machine';
import type { TestReadings } from '../measure/test-readings';
import { type Reduced, reduceAny } from '../measure/reduce-any';
import { mean } from '../numeric/moments';
import { gapOfPlace } from '../path/path-places';
import type { PathState } from '../path/machine-path';
import { type PathAir, REFERENCE_AIR } from '../path/model/air';
import { speedRatioOfVoltage } from '../path/model/fan';
import type { Entry } from '../path/pressure-profile';
import type { TestRecord } from '../record/records';
import type { Observation } from './observation';

/** Room air as the model needs it; standard air where the state is not one. */
export const pathAirOf = (air: AirState): PathAir => {
  const density = moistAirDensity(air);
  return density.ok ? { densityKgM3: density.value, viscosityPaS: airViscosityPaS(air.temperatureK) } : REFERENCE_AIR;
};

const isUniversal = (machine: MachineAirPath): boolean =>
  machine.stages.some((s) => s.spec.air.form === 'fan' && s.spec.air.curve.kind === 'universal');

/** The clean path in the air and at the voltage of a test. */
const stateOf = (machine: Machine, test: TestReadings): PathState => ({
  stages: {},
  leaksM2: {},
  hose: null,
  drive: {
    // Only a series motor slows down with its voltage; an induction motor keeps its speed.
    speedRatio:
      test.volts !== null && isUniversal(machine)
        ? speedRatioOfVoltage({ volts: test.volts, nominalVolts: machine.nominalVolts })
        : 1,
    supplyPa: null,
  },
  air: pathAirOf(test.air),
});

const entryOf = (machine: MachineAirPath, place: TestReadings['place']): Entry => {
  const node = gapOfPlace(
    machine.stages.map((s) => s.kind),
    place,
  );
  return place === 'toolEnd' || place === 'outlet' ? { at: 'use' } : { at: 'node', opening: { node, state: 'open' } };
};

/** Relative uncertainty of the flow through a plate: half its coefficient's range, and half the pressure's. */
const PLATE_SHARE = 0.01;

const seriesObservation = (
  record: TestRecord,
  machine: Machine,
  series: Extract<Reduced, { form: 'series' }>['series'],
): readonly Observation[] => {
  const value = series.repeats.mean;
  const standardUncertainty = series.repeats.standardUncertainty ?? Math.abs(value) * UNSTATED_UNCERTAINTY.value;
  const expanded = series.repeats.expanded ?? 2 * standardUncertainty;
  const base = { testId: record.id, value, standardUncertainty, expanded, state: stateOf(machine, record.test) };
  const { place } = record.test;
  switch (series.measurand) {
    case 'flow':
      return [
        {
          ...base,
          label: `flow at the ${place}`,
          what: 'flow',
          entry: entryOf(machine, place),
          at: place === 'outlet' ? 'out' : 'in',
        },
      ];
    case 'suction':
      return [
        {
          ...base,
          label: `sealed suction at the ${place}`,
          what: 'suction',
          node: gapOfPlace(
            machine.stages.map((s) => s.kind),
            place,
          ),
          drawnM3s: 0,
          drawnUncertaintyM3s: 0,
        },
      ];
    case 'stageDp': {
      const position = machine.stages.findIndex((s) => s.id === series.stageId);
      return position < 0
        ? []
        : [
            {
              ...base,
              label: `pressure across the ${machine.stages[position]?.name ?? 'stage'}`,
              what: 'stageDp',
              entry: entryOf(machine, place),
              position,
            },
          ];
    }
    default:
      return [];
  }
};

/** One observation per opening: the suction behind it, and its flow. */
const curveObservations = (
  record: TestRecord,
  machine: Machine,
  curve: Extract<Reduced, { form: 'curve' }>,
): readonly Observation[] => {
  const { test } = record;
  const slots = [...new Set(test.slots)].sort((a, b) => a - b);
  return slots.flatMap((slot): readonly Observation[] => {
    const points = curve.points.filter((_, i) => test.slots[i] === slot);
    const [first] = points;
    if (!first) return [];
    const value = mean(points.map((p) => p.suctionPa));
    const drawnM3s = mean(points.map((p) => p.flowM3s));
    const accuracy = test.accuracy
      ? (test.accuracy.relative * value + test.accuracy.absoluteSi) / Math.sqrt(3)
      : value * UNSTATED_UNCERTAINTY.value;
    const standardUncertainty = Math.hypot(accuracy, test.resolutionSi / Math.sqrt(12));
    const orificeM = test.detail.kind === 'curve' ? (test.detail.orificesM[slot] ?? 0) : 0;
    return [
      {
        what: 'suction',
        label: orificeM === 0 ? 'curve, sealed' : `curve, ${toDigits(orificeM * 1000, 3)} mm hole`,
        testId: record.id,
        value,
        standardUncertainty,
        expanded: 2 * standardUncertainty,
        state: stateOf(machine, test),
        node: gapOfPlace(
          machine.stages.map((s) => s.kind),
          test.place,
        ),
        drawnM3s,
        drawnUncertaintyM3s: (drawnM3s * PLATE_SHARE) / Math.sqrt(3),
      },
    ];
  });
};

/**
 * Observations of a test for the air-path model: none for a weight, a word or a count; one for a flow, a sealed suction
 * or a stage's pressure; one per opening for a suction curve. A test with a failed precondition or a maximum hold gives
 * none.
 */
export const observationsOfTest = (record: TestRecord, machine: Machine): readonly Observation[] => {
  if (record.test.failedPreconditions.length > 0 || record.test.maxHold) return [];
  const reduced = reduceAny(record.test);
  if (!reduced.ok) return [];
  if (reduced.value.form === 'series') return seriesObservation(record, machine, reduced.value.series);
  return reduced.value.form === 'curve' ? curveObservations(record, machine, reduced.value) : [];
};
