import type { AirflowTestInput, AirflowTestOutput } from '@/contracts/calc/airflow-test';
import { BASELINE_ACT_LOSS, BASELINE_WARN_LOSS, CENTRE_PROFILE_FACTOR } from '@/core/constants/limits';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { boreAreaM2 } from '@/core/measure/bore-flow';
import type { BaselineVerdict } from '@/core/measure/judge-baseline';
import type { ClassVerdict } from '@/core/measure/judge-class';
import { METHODS } from '@/core/measure/methods';
import { type TestReadings } from '@/core/measure/test-readings';
import { type ReducedTest, reduceTest } from '@/core/measure/reduce-test';
import { judgeReadings } from '@/core/status/judge-test';
import { type Statement, sayBaseline, sayHose } from '@/messages/verdicts';
import { collect, digitStep, inSi, inSiOrNull, readAccuracy, readAir, readQuantity, readSigned } from './quantities';

const optional = (input: AirflowTestInput['bore'], path: string): Result<number | null> =>
  input === undefined ? ok(null) : readQuantity(input, 'length', path);

interface Series {
  readonly readings: AirflowTestInput['readings'];
  readonly path: string;
  readonly barometricPa: number;
}

/** Signs as on the bench. */
const readSeries = (input: AirflowTestInput, { readings, path, barometricPa }: Series) =>
  collect(readings.map((r, i) => readSigned(r, { method: input.method, path: `${path}.${i}`, barometricPa })));

const toReadings = (input: AirflowTestInput): Result<{ test: TestReadings; baseline: TestReadings | null }> => {
  const air = readAir(input.air);
  if (!air.ok) return air;
  const { pressurePa } = air.value;
  const accuracy = readAccuracy(input.instrument, METHODS[input.method].reads);
  const lengths = collect([optional(input.bore, 'bore'), optional(input.hoseBore, 'hoseBore')]);
  const now = readSeries(input, { readings: input.readings, path: 'readings', barometricPa: pressurePa });
  const before = input.baseline
    ? readSeries(input, { readings: input.baseline.readings, path: 'baseline.readings', barometricPa: pressurePa })
    : ok([]);
  if (!accuracy.ok || !lengths.ok || !now.ok || !before.ok) {
    return fail(...[accuracy, lengths, now, before].flatMap((r) => (r.ok ? [] : r.failures)));
  }
  const [boreM = null, hoseBoreM = null] = lengths.value;
  const test: TestReadings = {
    method: input.method,
    place: input.place,
    readingsSi: now.value,
    slots: now.value.map((_, i) => i),
    resolutionSi: accuracy.value?.resolutionSi ?? digitStep(input.readings, METHODS[input.method].reads),
    boreM,
    detail: { kind: 'none' },
    rigSeries: 1,
    volts: null,
    maxHold: false,
    profileFactor: METHODS[input.method].needs.includes('bore')
      ? (input.profileFactor ?? CENTRE_PROFILE_FACTOR.value)
      : null,
    instrumentId: accuracy.value ? 1 : null,
    accuracy: accuracy.value,
    air: air.value,
    hoseBoreM,
    failedPreconditions: input.failedPreconditions,
  };
  const instrumentId = accuracy.value ? (input.baseline?.sameInstrument ? 1 : 2) : null;
  const baseline = input.baseline ? { ...test, readingsSi: before.value, failedPreconditions: [], instrumentId } : null;
  return ok({ test, baseline });
};

const verdict = (outcome: string, said: Statement | null) =>
  said ? [{ outcome, sentence: said.sentence, detail: said.detail }] : [];

interface Judged {
  readonly input: AirflowTestInput;
  readonly reduced: ReducedTest;
  readonly baseline: BaselineVerdict;
  readonly hose: ClassVerdict;
}

const report = ({ input, reduced, baseline, hose }: Judged): AirflowTestOutput => {
  const kind = reduced.measurand === 'flow' ? 'flow' : 'pressure';
  const { repeats } = reduced;
  const dof = repeats.degreesOfFreedom;
  return {
    measurand: reduced.measurand,
    usable: reduced.usable,
    readings: repeats.n,
    mean: inSi(repeats.mean, kind),
    standardDeviation: inSiOrNull(repeats.deviation, kind),
    standardUncertainty: inSiOrNull(repeats.standardUncertainty, kind),
    expandedUncertainty: inSiOrNull(repeats.expanded, kind),
    limits:
      repeats.expanded === null
        ? null
        : { low: inSi(repeats.mean - repeats.expanded, kind), high: inSi(repeats.mean + repeats.expanded, kind) },
    degreesOfFreedom: dof !== null && Number.isFinite(dof) ? dof : null,
    studentFactor: repeats.studentFactor,
    airDensity: inSi(reduced.densityKgM3, 'density'),
    standardFlow: inSiOrNull(reduced.standardFlowM3s, 'flow'),
    hoseVelocity: inSiOrNull(reduced.hoseVelocityMs, 'velocity'),
    lossFraction: 'lossFraction' in baseline ? baseline.lossFraction : null,
    lossExpanded: 'expanded' in baseline ? baseline.expanded : null,
    flowLimit:
      'limitMs' in hose && reduced.hoseBoreM !== null
        ? inSi(hose.limitMs * boreAreaM2(reduced.hoseBoreM), 'flow')
        : null,
    verdicts: [
      ...verdict(baseline.outcome, sayBaseline(baseline, reduced.measurand)),
      ...verdict(hose.outcome, sayHose(hose, input.units)),
    ],
  };
};

/** `calc airflow-test`: repeats in, flow or suction with its interval and verdicts out. */
export const airflowTest = (input: AirflowTestInput): Result<AirflowTestOutput> => {
  const parsed = toReadings(input);
  if (!parsed.ok) return parsed;
  const reduced = reduceTest(parsed.value.test);
  if (!reduced.ok) return reduced;
  const before = parsed.value.baseline ? reduceTest(parsed.value.baseline) : null;
  if (before && !before.ok) return before;
  if (input.thresholds && !(input.thresholds.warnLoss < input.thresholds.actLoss))
    return fail(failure('thresholds.order', 'thresholds'));
  const thresholds = input.thresholds ?? { warnLoss: BASELINE_WARN_LOSS.value, actLoss: BASELINE_ACT_LOSS.value };
  return ok(
    report({
      input,
      reduced: reduced.value,
      ...judgeReadings({
        now: reduced.value,
        baseline: before?.value ?? null,
        thresholds,
        kind: input.machineKind ?? null,
      }),
    }),
  );
};
