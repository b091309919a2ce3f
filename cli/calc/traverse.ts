import type { TraverseInput, TraverseOutput } from '@/contracts/calc/series';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { reduceTest } from '@/core/measure/reduce-test';
import { traverseAreaM2, type TraversePlan, traversePoints } from '@/core/measure/traverse';
import { bareTest } from './bare-test';
import { collect, inSi, inSiOrNull, readAir, readQuantity } from './quantities';

const readPlan = ({ plan }: TraverseInput): Result<TraversePlan> => {
  const sides = plan.shape === 'round' ? [plan.diameter] : [plan.width, plan.height];
  const read = collect(sides.map((s, i) => readQuantity(s, 'length', `plan.${i}`)));
  if (!read.ok) return read;
  const [first = 0, second = 0] = read.value;
  if (!read.value.every((v) => v > 0)) return fail(failure('traverse.plan', 'plan'));
  return plan.shape === 'round'
    ? ok({ shape: 'round', diameterM: first, pointsPerDiameter: plan.pointsPerDiameter, diameters: plan.diameters })
    : ok({
        shape: 'rectangular',
        widthM: first,
        heightM: second,
        linesAcross: plan.linesAcross,
        linesUp: plan.linesUp,
      });
};

/** `calc traverse`: a duct in, the points to take out; with readings also mean velocity and flow. */
export const traverse = (input: TraverseInput): Result<TraverseOutput> => {
  const [plan, air] = [readPlan(input), readAir(input.air)];
  if (!plan.ok) return plan;
  if (!air.ok) return air;
  const kind = input.reads === 'velocity' ? 'velocity' : 'pressure';
  const readings = collect(input.readings.map((r, i) => readQuantity(r, kind, `readings.${i}`)));
  if (!readings.ok) return readings;
  const negative = readings.value.findIndex((v) => !(v >= 0));
  if (negative >= 0) {
    const code = kind === 'pressure' ? 'pitot.negative-point' : 'quantity.negative';
    return fail(
      failure(code, `readings.${negative}`, {
        number: readings.value[negative] ?? 0,
        unit: kind === 'pressure' ? 'Pa' : 'm/s',
      }),
    );
  }
  const area = traverseAreaM2(plan.value);
  const points = traversePoints(plan.value).map((p) => ({
    line: p.line,
    fromWall: inSi(p.fromWallM, 'length'),
    lineAt: inSi(p.lineAtM, 'length'),
  }));
  const base = { points, area: inSi(area, 'area') };
  if (readings.value.length === 0)
    return ok({ ...base, traverses: 0, meanVelocity: null, flow: null, expandedUncertainty: null });
  const method = input.reads === 'velocity' ? 'anemometerTraverse' : 'pitotTraverse';
  const reduced = reduceTest(
    bareTest({ method, air: air.value, readingsSi: readings.value, detail: { kind: 'traverse', plan: plan.value } }),
  );
  if (!reduced.ok) return reduced;
  const { mean, n, expanded } = reduced.value.repeats;
  return ok({
    ...base,
    traverses: n,
    meanVelocity: inSi(mean / area, 'velocity'),
    flow: inSi(mean, 'flow'),
    expandedUncertainty: inSiOrNull(expanded, 'flow'),
  });
};
