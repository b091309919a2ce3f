import type { SuctionCurveInput, SuctionCurveOutput } from '@/contracts/calc/series';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { reduceAny } from '@/core/measure/reduce-any';
import { sayCurve } from '@/messages/outcomes';
import { bareTest } from './bare-test';
import { collect, digitStep, inSi, inSiOrNull, readAccuracy, readAir, readQuantity, readSigned } from './quantities';

/** `calc suction-curve`: suction at several orifices in, the fitted curve and its peak air power out. */
export const suctionCurve = (input: SuctionCurveInput): Result<SuctionCurveOutput> => {
  const orifices = collect(input.points.map((p, i) => readQuantity(p.orifice, 'length', `points.${i}.orifice`)));
  const [air, accuracy] = [readAir(input.air), readAccuracy(input.instrument, 'pressure')];
  if (!air.ok || !accuracy.ok) return fail(...[air, accuracy].flatMap((r) => (r.ok ? [] : r.failures)));
  const barometricPa = air.value.pressurePa;
  const suctions = collect(
    input.points.map((p, i) =>
      readSigned(p.suction, { method: 'suctionCurve', path: `points.${i}.suction`, barometricPa }),
    ),
  );
  if (!orifices.ok || !suctions.ok) return fail(...[orifices, suctions].flatMap((r) => (r.ok ? [] : r.failures)));
  if (!orifices.value.every((d) => d >= 0)) return fail(failure('orifice.missing', 'points'));
  const detail = { kind: 'curve' as const, orificesM: orifices.value, coefficient: input.coefficient };
  const resolutionSi =
    accuracy.value?.resolutionSi ??
    digitStep(
      input.points.map((p) => p.suction),
      'pressure',
    );
  const reduced = reduceAny(
    bareTest({
      method: 'suctionCurve',
      air: air.value,
      accuracy: accuracy.value,
      resolutionSi,
      readingsSi: suctions.value,
      detail,
    }),
  );
  if (!reduced.ok) return reduced;
  if (reduced.value.form !== 'curve') return fail(failure('curve.no-fit'));
  const { curve, points, off } = reduced.value;
  return ok({
    sentence: sayCurve(curve, off, 'metric').sentence,
    p0: inSi(curve.p0Pa, 'pressure'),
    b: { value: curve.bPaSM3, unit: 'Pa s/m3' },
    c: { value: curve.cPaS2M6, unit: 'Pa s2/m6' },
    offCurve: off && {
      point: off.point + 1,
      residual: inSi(off.residualPa, 'pressure'),
      allowed: inSi(off.allowedPa, 'pressure'),
    },
    residuals: curve.residualsPa.map((r) => inSi(r, 'pressure')),
    points: points.map((p) => ({ flow: inSi(p.flowM3s, 'flow'), suction: inSi(p.suctionPa, 'pressure') })),
    peak: {
      airPower: inSi(curve.peak.airPowerW, 'power'),
      expandedUncertainty: inSiOrNull(curve.peak.expandedW, 'power'),
      flow: inSi(curve.peak.flowM3s, 'flow'),
      suction: inSi(curve.peak.suctionPa, 'pressure'),
      inside: curve.peak.inside,
    },
  });
};
