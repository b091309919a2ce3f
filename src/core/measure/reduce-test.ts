import type { TestReadings } from './test-readings';
import { moistAirDensity } from '../air/density';
import { STANDARD_DENSITY } from '../constants/air';
import { fail, failure, type Failure, ok, type Result } from '../failure/failure';
import { mean } from '../numeric/moments';
import type { Place } from './place';
import { instrumentUncertainty } from './accuracy';
import { boreVelocityMs } from './bore-flow';
import type { Common } from './correlated';
import type { MethodDetail } from './detail';
import { type Measurand, METHODS, type Method, type Precondition } from './methods';
import { type Repeats, summariseRepeats } from './repeats';
import { isBore, outOfBore, seriesValues, type RigPart } from './series-values';

/** The result of a series test, in SI, with its interval. */
export interface ReducedTest {
  readonly method: Method;
  readonly place: Place;
  readonly measurand: Measurand;
  /** The stage it was read across; null for the whole machine. */
  readonly stageId: number | null;
  readonly instrumentId: number | null;
  /** The same for two tests of one rig. */
  readonly rigKey: string;
  /** The results of the repeats. */
  readonly values: readonly number[];
  readonly repeats: Repeats;
  readonly rigParts: readonly { readonly name: RigPart; readonly relative: number }[];
  readonly densityKgM3: number;
  /** Flow at 1.2 kg/m3; null for other quantities. */
  readonly standardFlowM3s: number | null;
  /**
   * Mean air velocity in the fitted hose, with half its 95 % interval; null for other quantities, or without a hose.
   */
  readonly hoseVelocityMs: number | null;
  readonly hoseVelocityExpandedMs: number | null;
  readonly hoseBoreM: number | null;
  readonly volts: number | null;
  readonly biased: boolean;
  readonly usable: boolean;
  readonly failedPreconditions: readonly Precondition[];
}

/** What two tests have in common, so that its error cancels between them. Source: JCGM 100, 5.2 (correlated inputs). */
export const commonOf = (a: ReducedTest, b: ReducedTest): Common => ({
  instrument: a.instrumentId !== null && a.instrumentId === b.instrumentId,
  rig: a.rigKey === b.rigKey,
});

const stageOf = (detail: MethodDetail): number | null =>
  detail.kind === 'stage' || detail.kind === 'mass' || detail.kind === 'zone' ? detail.stageId : null;

const rigKeyOf = (test: TestReadings): string =>
  JSON.stringify([test.method, test.rigSeries, test.boreM, test.profileFactor, test.detail]);

const notSeries = (test: TestReadings): Failure | null => {
  if (METHODS[test.method].form !== 'series') return failure('field.invalid', 'method');
  if (test.hoseBoreM !== null && !isBore(test.hoseBoreM)) return outOfBore('hoseBore', test.hoseBoreM);
  return test.readingsSi.length === 0 ? failure('readings.none', 'readings') : null;
};

/**
 * Reduces the repeats of one series test to its result with a 95 % interval; for a flow also at standard density
 * (1.2 kg/m3) and as air velocity in the fitted hose. The flow is the actual one, at the density of the air measured.
 * Source: `seriesValues` for the reduction, GUM for the interval (see `summariseRepeats`).
 * Valid: one or more readings of a series method. Returns `readings.none`, `air.state`, or what is missing of the rig.
 */
export const reduceTest = (test: TestReadings): Result<ReducedTest> => {
  const wrong = notSeries(test);
  if (wrong) return fail(wrong);
  const density = moistAirDensity(test.air);
  if (!density.ok) return density;
  const reduced = seriesValues(test, density.value);
  if (!reduced.ok) return reduced;
  const { values, sensitivity, rig } = reduced.value;
  const repeats = summariseRepeats({
    values,
    resolution: test.resolutionSi * Math.abs(sensitivity),
    instrumentUncertainty: test.accuracy
      ? instrumentUncertainty(test.accuracy, mean(test.readingsSi)) * Math.abs(sensitivity)
      : null,
    rigUncertainty: Math.abs(mean(values)) * Math.hypot(...rig.map((p) => p.relative)),
  });
  const { measurand } = METHODS[test.method];
  const hoseBoreM = measurand === 'flow' ? test.hoseBoreM : null;
  const inHose = (flowM3s: number | null) =>
    hoseBoreM === null || flowM3s === null ? null : boreVelocityMs({ flowM3s, boreM: hoseBoreM });
  return ok({
    method: test.method,
    place: test.place,
    measurand,
    stageId: stageOf(test.detail),
    instrumentId: test.instrumentId,
    rigKey: rigKeyOf(test),
    values,
    repeats,
    rigParts: rig,
    densityKgM3: density.value,
    standardFlowM3s: measurand === 'flow' ? (repeats.mean * density.value) / STANDARD_DENSITY.value : null,
    hoseVelocityMs: inHose(repeats.mean),
    hoseVelocityExpandedMs: inHose(repeats.expanded),
    hoseBoreM,
    volts: test.volts,
    biased: test.maxHold,
    usable: test.failedPreconditions.length === 0,
    failedPreconditions: test.failedPreconditions,
  });
};
