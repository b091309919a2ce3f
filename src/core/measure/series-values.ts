import { PLATE_COEFFICIENT, RIG_LIMITS } from '../constants/rig';
import { velocityFromPressureMs } from '../air/velocity-pressure';
import { airViscosityPaS } from '../air/viscosity';
import { fail, failure, type Failure, ok, type Result } from '../failure/failure';
import { mean } from '../numeric/moments';
import { flowFromCentreVelocityM3s } from './bore-flow';
import { plateFlowM3s } from './orifice';
import type { TestReadings } from './test-readings';
import { traverseAreaM2, traverseMeansMs, type TraversePlan } from './traverse';

/** The results of the repeats, with what the instrument and the rig do to them. */
export interface SeriesValues {
  readonly values: readonly number[];
  /** Change of the result with the reading, at the mean reading: scales the instrument's own uncertainty. */
  readonly sensitivity: number;
  /** Parts of the rig's relative standard uncertainty, by name. */
  readonly rig: readonly { readonly name: RigPart; readonly relative: number }[];
}

export type RigPart = 'bore' | 'profileFactor' | 'traverse' | 'plate' | 'density';

const SQRT3 = Math.sqrt(3);
const part = (name: RigPart, relative: number) => ({ name, relative });
const borePart = (diameterM: number) => part('bore', (2 * RIG_LIMITS.boreM.value) / diameterM / SQRT3);
const densityPart = part('density', (0.5 * RIG_LIMITS.density.value) / SQRT3);
const planParts = (plan: TraversePlan) => [
  borePart(plan.shape === 'round' ? plan.diameterM : Math.min(plan.widthM, plan.heightM)),
  part('traverse', RIG_LIMITS.traverse.value / SQRT3),
];

const PROFILE_RANGE = [0.5, 1] as const;

/** m; a hole or pipe outside them is a slip of the unit. A Moorwind limit. */
const BORE_M = { low: 0.001, high: 3 } as const;

/** Whether a bore can be one of a rig or a hose: 1 mm to 3 m. Source: Moorwind's own limit. */
export const isBore = (boreM: number): boolean => boreM >= BORE_M.low && boreM <= BORE_M.high;

/** The failure for a bore outside those limits. Source: as `isBore`. */
export const outOfBore = (path: string, boreM: number): Failure =>
  failure('quantity.out-of-range', path, { kind: 'length', value: boreM, ...BORE_M });

interface CentreRig {
  readonly boreM: number;
  readonly profileFactor: number;
}

const centreRig = ({ boreM, profileFactor }: TestReadings): Result<CentreRig> => {
  if (boreM === null || !(boreM > 0)) return fail(failure('bore.missing', 'bore'));
  if (!isBore(boreM)) return fail(outOfBore('bore', boreM));
  const factor = profileFactor ?? Number.NaN;
  return factor >= PROFILE_RANGE[0] && factor <= PROFILE_RANGE[1]
    ? ok({ boreM, profileFactor: factor })
    : fail(failure('profile.range', 'profileFactor', { factor, low: PROFILE_RANGE[0], high: PROFILE_RANGE[1] }));
};

const centre = (test: TestReadings, toVelocityMs: (reading: number) => number, root: boolean): Result<SeriesValues> => {
  const rig = centreRig(test);
  if (!rig.ok) return rig;
  const values = test.readingsSi.map((r) =>
    flowFromCentreVelocityM3s({ centreVelocityMs: toVelocityMs(r), ...rig.value }),
  );
  const profile = part('profileFactor', RIG_LIMITS.profileFactor.value / rig.value.profileFactor / SQRT3);
  return ok({
    values,
    sensitivity: slope(values, test.readingsSi, root),
    rig: [borePart(rig.value.boreM), profile, ...(root ? [densityPart] : [])],
  });
};

/** d(result)/d(reading) at the mean: the ratio for a linear method, half of it for one that goes with the root. */
const slope = (values: readonly number[], readings: readonly number[], root: boolean): number => {
  const reading = mean(readings);
  return reading === 0 ? 0 : (mean(values) / reading) * (root ? 0.5 : 1);
};

const traverse = (
  test: TestReadings,
  toVelocityMs: (reading: number) => number,
  root: boolean,
): Result<SeriesValues> => {
  if (test.detail.kind !== 'traverse') return fail(failure('traverse.plan', 'detail'));
  const { plan } = test.detail;
  const wrong = (plan.shape === 'round' ? [plan.diameterM] : [plan.widthM, plan.heightM]).find((m) => !isBore(m));
  if (wrong !== undefined) return fail(outOfBore('plan', wrong));
  const points = test.readingsSi.map((r, i) => ({ slot: test.slots[i] ?? i, velocityMs: toVelocityMs(r) }));
  const means = traverseMeansMs(plan, points);
  if (!means.ok) return means;
  const area = traverseAreaM2(plan);
  const values = means.value.map((v) => v * area);
  return ok({
    values,
    sensitivity: slope(values, test.readingsSi, root),
    rig: [...planParts(plan), ...(root ? [densityPart] : [])],
  });
};

const plate = (test: TestReadings, densityKgM3: number): Result<SeriesValues> => {
  if (test.detail.kind !== 'plate') return fail(failure('orifice.missing', 'detail'));
  const { plate: p } = test.detail;
  if (p.pipeM !== null && !(p.orificeM < p.pipeM)) return fail(failure('orifice.too-large', 'detail'));
  if (test.readingsSi.some((dp) => !(dp <= test.air.pressurePa / 4)))
    return fail(failure('orifice.pressure', 'readings'));
  const flows = test.readingsSi.map((differentialPa) =>
    plateFlowM3s(
      { ...p, differentialPa, upstreamPa: test.air.pressurePa, densityKgM3 },
      airViscosityPaS(test.air.temperatureK),
    ),
  );
  const wrong = flows.find((f) => !f.ok);
  if (wrong) return wrong;
  const values = flows.flatMap((f) => (f.ok ? [f.value] : []));
  const rig = [
    borePart(p.orificeM),
    part('plate', RIG_LIMITS.plateCoefficient.value / (p.coefficient ?? PLATE_COEFFICIENT.value) / SQRT3),
    densityPart,
  ];
  return ok({ values, sensitivity: slope(values, test.readingsSi, true), rig });
};

/**
 * Turns the readings of a series method into its results, in SI, with the uncertainty budget's systematic parts.
 * Source: continuity; v = sqrt(2 p_v/rho) for a pitot tube, velocities averaged; `orificeFlowM3s`; limits by GUM 4.3.7.
 * Returns the missing facts of the rig, by name.
 */
export const seriesValues = (test: TestReadings, densityKgM3: number): Result<SeriesValues> => {
  const same = (v: number) => v;
  const fromPitot = (velocityPressurePa: number) => velocityFromPressureMs({ velocityPressurePa, densityKgM3 });
  switch (test.method) {
    case 'anemometer':
      return centre(test, same, false);
    case 'pitot':
      return centre(test, fromPitot, true);
    case 'anemometerTraverse':
      return traverse(test, same, false);
    case 'pitotTraverse':
      return traverse(test, fromPitot, true);
    case 'orifice':
      return plate(test, densityKgM3);
    case 'stageDp':
      return test.detail.kind === 'stage'
        ? ok({ values: test.readingsSi, sensitivity: 1, rig: [] })
        : fail(failure('detail.stage', 'detail'));
    case 'filterMass':
      return test.detail.kind === 'mass'
        ? ok({ values: test.readingsSi, sensitivity: 1, rig: [] })
        : fail(failure('mass.new', 'detail'));
    default:
      return ok({ values: test.readingsSi, sensitivity: 1, rig: [] });
  }
};
