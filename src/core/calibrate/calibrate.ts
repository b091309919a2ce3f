import { NORMAL_95 } from '../numeric/normal';
import chisquareQuantile from '@stdlib/stats-base-dists-chisquare-quantile';
import { CONTRADICTION, LEARNED_BELOW, TEMPLATE_WIDTH } from '../constants/calibration';
import { SEAL_LEAK } from '../constants/path';
import { fail, failure, type Failure, ok, type Result } from '../failure/failure';
import { curveFit } from '../numeric/curve-fit';
import type { MachineModel, PathParameters } from '../path/machine-path';
import { templateParameters } from '../path/pressure-profile';
import { type Observation, predict, slopeOfSuction } from './observation';

export type ParameterName = keyof PathParameters;

export interface FittedParameter {
  readonly name: ParameterName;
  readonly value: number;
  /** 95 % interval; parameters are fitted as logarithms, so it is not even about the value. */
  readonly low: number;
  readonly high: number;
  /** True where the data decided the value; false where it is still mostly the typical figure. */
  readonly learned: boolean;
}

export interface Compared {
  readonly observation: Observation;
  readonly predicted: number;
  readonly residual: number;
  /** Residual over its standard uncertainty. */
  readonly weighted: number;
  /** The model's figure lies in the reading's own 95 % interval. */
  readonly agrees: boolean;
}

export interface Calibration {
  readonly parameters: PathParameters;
  readonly fitted: readonly FittedParameter[];
  readonly compared: readonly Compared[];
  /** Sum of the weighted squares of the readings. */
  readonly chiSquare: number;
  /** Readings less the parameters the data settled. */
  readonly degreesOfFreedom: number;
  readonly iterations: number;
  readonly status: 'converged' | 'stopped';
}

const NAMES: readonly ParameterName[] = ['p0Pa', 'qMaxM3s', 'leakM2', 'pathScale'];
const WIDTHS = [
  TEMPLATE_WIDTH.lift.value,
  TEMPLATE_WIDTH.flow.value,
  TEMPLATE_WIDTH.leak.value,
  TEMPLATE_WIDTH.path.value,
];
/** Two flows nearer than this share of the larger are one working point. */
const APART = 0.03;

const parametersAt = (centre: PathParameters, logs: readonly number[]): PathParameters => {
  const of = (i: number) => Math.exp(logs[i] ?? 0);
  return {
    p0Pa: Math.min(centre.p0Pa * of(0), 101_000),
    qMaxM3s: centre.qMaxM3s * of(1),
    leakM2: centre.leakM2 * of(2),
    pathScale: centre.pathScale * of(3),
  };
};

const flowOf = (o: Observation): number =>
  o.what === 'suction' ? o.drawnM3s : o.what === 'flow' ? o.value : Number.NaN;

/** Working points apart from each other: one flow state says nothing of the slope of anything. */
const pointsApart = (observations: readonly Observation[]): number => {
  const flows = observations
    .map(flowOf)
    .filter((q) => Number.isFinite(q))
    .sort((a, b) => a - b);
  return flows.reduce<{ count: number; last: number | null }>(
    ({ count, last }, q) => (last === null || q - last > APART * q ? { count: count + 1, last: q } : { count, last }),
    { count: 0, last: null },
  ).count;
};

const enough = (observations: readonly Observation[]): Failure | null => {
  if (pointsApart(observations) < 2)
    return failure('calibration.one-point', '', { have: pointsApart(observations), need: 2 });
  return observations.some((o) => flowOf(o) > 0) ? null : failure('calibration.no-flow');
};

interface Fitting {
  readonly model: MachineModel;
  readonly centre: PathParameters;
  readonly observations: readonly Observation[];
}

const uncertaintyOf = (o: Observation, { model, centre }: Fitting): number =>
  o.what === 'suction'
    ? Math.hypot(o.standardUncertainty, slopeOfSuction(o, model, centre) * o.drawnUncertaintyM3s)
    : o.standardUncertainty;

const weightedResiduals =
  (fitting: Fitting, sigmas: readonly number[]) =>
  (logs: readonly number[]): readonly number[] | null => {
    const parameters = parametersAt(fitting.centre, logs);
    const data: number[] = [];
    for (const [i, o] of fitting.observations.entries()) {
      const predicted = predict(o, fitting.model, parameters);
      if (!predicted.ok) return null;
      data.push((predicted.value - o.value) / (sigmas[i] ?? 1));
    }
    return [...data, ...logs.map((v, j) => v / (WIDTHS[j] ?? 1))];
  };

const compare = (fitting: Fitting, parameters: PathParameters, sigmas: readonly number[]): readonly Compared[] =>
  fitting.observations.flatMap((observation, i) => {
    const predicted = predict(observation, fitting.model, parameters);
    if (!predicted.ok) return [];
    const residual = predicted.value - observation.value;
    const sigma = sigmas[i] ?? 1;
    // The interval of the reading itself, widened by what its orifice's flow is in doubt.
    const interval = Math.max(observation.expanded, NORMAL_95 * sigma);
    return [
      {
        observation,
        predicted: predicted.value,
        residual,
        weighted: residual / sigma,
        agrees: Math.abs(residual) <= interval,
      },
    ];
  });

interface Attempt {
  readonly calibration: Calibration;
  readonly fits: boolean;
}

/** One fit, believed or not; null where no fan and path give these readings at all. */
const attempt = (model: MachineModel, observations: readonly Observation[]): Attempt | null => {
  const fitting: Fitting = { model, centre: templateParameters(model, SEAL_LEAK.value), observations };
  const first = observations.map((o) => Math.max(o.standardUncertainty, Math.abs(o.value) * 1e-4));
  const rough = curveFit({ start: startLogs(fitting, first), residuals: weightedResiduals(fitting, first) });
  if (!rough) return null;
  // Second round: an orifice's flow is uncertain too, and a fitted model gives the size of that uncertainty.
  const near: Fitting = { ...fitting, centre: parametersAt(fitting.centre, rough.parameters) };
  const sigmas = observations.map((o, i) => Math.max(uncertaintyOf(o, near), first[i] ?? 0));
  const fit = curveFit({ start: rough.parameters, residuals: weightedResiduals(fitting, sigmas) }) ?? rough;
  const parameters = parametersAt(fitting.centre, fit.parameters);
  const fitted = NAMES.map((name, i): FittedParameter => {
    const sd = Math.sqrt(Math.max(0, fit.covariance?.[i]?.[i] ?? Number.POSITIVE_INFINITY));
    const value = parameters[name];
    return {
      name,
      value,
      low: value * Math.exp(-NORMAL_95 * sd),
      high: value * Math.exp(NORMAL_95 * sd),
      learned: sd < LEARNED_BELOW.value * (WIDTHS[i] ?? 1),
    };
  });
  const compared = compare(fitting, parameters, sigmas);
  const chiSquare = compared.reduce((sum, c) => sum + c.weighted ** 2, 0);
  const degreesOfFreedom = Math.max(1, observations.length - fitted.filter((f) => f.learned).length);
  const calibration: Calibration = {
    parameters,
    fitted,
    compared,
    chiSquare,
    degreesOfFreedom,
    iterations: rough.iterations + fit.iterations,
    status: fit.converged ? 'converged' : 'stopped',
  };
  return { calibration, fits: chiSquare <= chisquareQuantile(CONTRADICTION.value, degreesOfFreedom) };
};

/** Leaving out this reading would leave the least contradiction: not always the one with the largest residual. */
const oddOneOut = (model: MachineModel, observations: readonly Observation[]): Observation | undefined =>
  observations
    .map((o, i) => ({
      o,
      left:
        attempt(
          model,
          observations.filter((_, k) => k !== i),
        )?.calibration.chiSquare ?? Number.POSITIVE_INFINITY,
    }))
    .sort((a, b) => a.left - b.left)[0]?.o;

/**
 * Fits lift, free flow of the fan, seal leak and one scale on the clean path to a machine's own readings, by weighted
 * least squares on logarithms; the typical figures of its kind count as four weak readings, so that a parameter the
 * data do not settle stays where it was and says so.
 * Source: GUM for the weights; Gaussian prior as pseudo-readings (Tarantola, Inverse Problem Theory, 3.2); intervals
 * from the inverse of J'J. Valid: two working points or more, one of them with flow.
 * Returns `calibration.one-point`, `calibration.no-flow`, `calibration.contradictory` (with the reading that fits
 * least), or what is wrong with the path.
 */
export const calibrate = (model: MachineModel, observations: readonly Observation[]): Result<Calibration> => {
  const wrong = enough(observations);
  if (wrong) return fail(wrong);
  const centre = templateParameters(model, SEAL_LEAK.value);
  const broken = observations
    .map((o) => predict(o, model, centre))
    .find((p) => !p.ok && p.failures[0]?.code !== 'path.no-point');
  if (broken && !broken.ok) return broken;
  const tried = attempt(model, observations);
  if (!tried) return fail(failure('calibration.contradictory', '', { label: '' }));
  return tried.fits
    ? ok(tried.calibration)
    : fail(failure('calibration.contradictory', '', { label: oddOneOut(model, observations)?.label ?? '' }));
};

/** A start from which every reading can be predicted: the fan is made large enough for the largest flow seen. */
const startLogs = ({ centre, observations, model }: Fitting, sigmas: readonly number[]): readonly number[] => {
  const fitting: Fitting = { centre, observations, model };
  for (const scale of [0, 0.4, 0.8, 1.2, 1.6, 2.4]) {
    const logs = [scale / 2, scale, 0, -scale];
    if (weightedResiduals(fitting, sigmas)(logs)) return logs;
  }
  return [0, 0, 0, 0];
};
