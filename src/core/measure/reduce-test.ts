import { type AirState, moistAirDensity } from '../air/density';
import { STANDARD_DENSITY } from '../constants/air';
import { fail, failure, ok, type Result } from '../failure/failure';
import type { Measurand } from '../machine/plausible';
import type { Place } from '../path/air-path';
import { type Accuracy, instrumentUncertainty } from './accuracy';
import { boreVelocityMs, flowFromCentreVelocityM3s } from './bore-flow';
import { METHODS, type Method, type Precondition } from './methods';
import { mean } from '../numeric/moments';
import { type Repeats, summariseRepeats } from './repeats';

/** One airflow or suction test as it was read, in SI. */
export interface TestReadings {
  readonly method: Method;
  readonly place: Place;
  /** Readings that count (none struck out): m3/s, m/s or Pa by method. */
  readonly readingsSi: readonly number[];
  /** One step of the display, same unit. */
  readonly resolutionSi: number;
  /** Test pipe of the anemometer; null for the other methods. */
  readonly boreM: number | null;
  readonly profileFactor: number | null;
  readonly instrumentId: number | null;
  readonly accuracy: Accuracy | null;
  readonly air: AirState;
  /** Inside diameter of the hose that was fitted; null when there is none. */
  readonly hoseBoreM: number | null;
  readonly failedPreconditions: readonly Precondition[];
}

/** What a test says, in SI, with its interval. */
export interface ReducedTest {
  readonly method: Method;
  readonly place: Place;
  readonly measurand: Measurand;
  readonly instrumentId: number | null;
  /** The results of the repeats, m3/s or Pa. */
  readonly values: readonly number[];
  readonly repeats: Repeats;
  readonly densityKgM3: number;
  /** Flow at 1.2 kg/m3; null for suction. */
  readonly standardFlowM3s: number | null;
  /** Mean air velocity in the fitted hose, with half its 95 % interval; null for suction or no hose. */
  readonly hoseVelocityMs: number | null;
  readonly hoseVelocityExpandedMs: number | null;
  readonly hoseBoreM: number | null;
  readonly usable: boolean;
  readonly failedPreconditions: readonly Precondition[];
}

const PROFILE_RANGE = [0.5, 1] as const;

/** Flow or suction per unit of reading: the reduction is linear in the reading for all three methods. */
const scaleOf = (test: TestReadings): Result<number> => {
  if (!METHODS[test.method].needsBore) return ok(1);
  if (test.boreM === null || !(test.boreM > 0)) return fail(failure('bore.missing', 'bore'));
  const factor = test.profileFactor ?? Number.NaN;
  if (!(factor >= PROFILE_RANGE[0] && factor <= PROFILE_RANGE[1])) {
    return fail(failure('profile.range', 'profileFactor', { factor, low: PROFILE_RANGE[0], high: PROFILE_RANGE[1] }));
  }
  return ok(flowFromCentreVelocityM3s({ centreVelocityMs: 1, boreM: test.boreM, profileFactor: factor }));
};

/**
 * Reduces the repeats of one test to flow or suction with a 95 % interval, flow at standard density (1.2 kg/m3) and
 * air velocity in the fitted hose. The flow is the actual one, at the density of the air measured.
 * Source: continuity; GUM for the interval (see `summariseRepeats`).
 * Valid: one or more readings. Returns `readings.none`, `bore.missing`, `profile.range` or `air.state`.
 */
export const reduceTest = (test: TestReadings): Result<ReducedTest> => {
  if (test.readingsSi.length === 0) return fail(failure('readings.none', 'readings'));
  const scale = scaleOf(test);
  if (!scale.ok) return scale;
  const density = moistAirDensity(test.air);
  if (!density.ok) return density;
  const meanReading = mean(test.readingsSi);
  const values = test.readingsSi.map((r) => r * scale.value);
  const repeats = summariseRepeats({
    values,
    resolution: test.resolutionSi * scale.value,
    instrumentUncertainty: test.accuracy ? instrumentUncertainty(test.accuracy, meanReading) * scale.value : null,
  });
  const { measurand } = METHODS[test.method];
  const isFlow = measurand === 'flow';
  const hoseBoreM = isFlow ? test.hoseBoreM : null;
  return ok({
    method: test.method,
    place: test.place,
    measurand,
    instrumentId: test.instrumentId,
    values,
    repeats,
    densityKgM3: density.value,
    standardFlowM3s: isFlow ? (repeats.mean * density.value) / STANDARD_DENSITY.value : null,
    hoseVelocityMs: hoseBoreM === null ? null : boreVelocityMs({ flowM3s: repeats.mean, boreM: hoseBoreM }),
    hoseVelocityExpandedMs:
      hoseBoreM === null || repeats.expanded === null ? null : boreVelocityMs({ flowM3s: repeats.expanded, boreM: hoseBoreM }),
    hoseBoreM,
    usable: test.failedPreconditions.length === 0,
    failedPreconditions: test.failedPreconditions,
  });
};
