import { instrumentUncertainty } from './accuracy';
import { moistAirDensity } from '../air/density';
import { fail, failure, ok, type Result } from '../failure/failure';
import { EXHAUST_SLOT, type MethodDetail, ROOM_SLOT } from './detail';
import { METHODS } from './methods';
import { orificeFlowM3s } from './orifice';
import { type Counted, judgeParticles, type ParticleVerdict } from './particle-count';
import { judgeRoomCount, type RoomCount } from './penetration-ratio';
import { type TestReadings } from './test-readings';
import { type ReducedTest, reduceTest } from './reduce-test';
import { type CurvePoint, fitSuctionCurve, offCurve, type OffCurve, type SuctionCurve } from './suction-curve';

/** What any test says, by the form of its method. */
export type Reduced =
  | { readonly form: 'series'; readonly series: ReducedTest }
  | {
      readonly form: 'curve';
      readonly curve: SuctionCurve;
      readonly points: readonly CurvePoint[];
      /** Null where no point is beyond the meter, or nothing is known of the meter. */
      readonly off: OffCurve | null;
    }
  | {
      readonly form: 'particles';
      readonly particles: ParticleVerdict;
      readonly sizeUm: number;
      readonly counted: { readonly exhaust: Counted; readonly room: Counted };
      readonly passed: RoomCount;
    }
  | { readonly form: 'word'; readonly detail: MethodDetail };

/** Factor of a 95 % interval, degrees of freedom not counted. Source: GUM 6.3.3. */
const WIDE = 2;

const reduceCurve = (test: TestReadings): Result<Reduced> => {
  const { detail, air } = test;
  if (detail.kind !== 'curve') return fail(failure('orifice.missing', 'detail'));
  const density = moistAirDensity(air);
  if (!density.ok) return density;
  const points = test.readingsSi.map((suctionPa, i): CurvePoint | null => {
    const orificeM = detail.orificesM[test.slots[i] ?? -1];
    if (orificeM === undefined) return null;
    if (!(suctionPa < air.pressurePa)) return null;
    if (orificeM === 0) return { flowM3s: 0, suctionPa };
    if (!(suctionPa <= air.pressurePa / 4)) return null;
    const plate = {
      orificeM,
      coefficient: detail.coefficient,
      differentialPa: suctionPa,
      upstreamPa: air.pressurePa,
      densityKgM3: density.value,
      pipeM: null,
    };
    return { flowM3s: orificeFlowM3s(plate), suctionPa };
  });
  if (points.some((p) => p === null)) return fail(failure('orifice.pressure', 'readings'));
  const whole = points.filter((p) => p !== null);
  const curve = fitSuctionCurve(whole);
  if (!curve.ok) return curve;
  const { accuracy } = test;
  const off = accuracy
    ? offCurve(
        curve.value,
        whole,
        (suctionPa) => WIDE * Math.hypot(instrumentUncertainty(accuracy, suctionPa), test.resolutionSi / Math.sqrt(12)),
      )
    : null;
  return ok({ form: 'curve', curve: curve.value, points: whole, off });
};

const reduceParticles = (test: TestReadings): Result<Reduced> => {
  const { detail } = test;
  if (detail.kind !== 'particles') return fail(failure('particles.counting', 'detail'));
  const of = (slot: number, seconds: number) => {
    const counts = test.readingsSi.filter((_, i) => test.slots[i] === slot);
    return {
      counts: counts.length,
      count: counts.reduce((a, b) => a + b, 0),
      volumeM3: counts.length * detail.flowM3s * seconds,
    };
  };
  const [exhaust, room] = [of(EXHAUST_SLOT, detail.exhaustS), of(ROOM_SLOT, detail.roomS)];
  if (exhaust.counts === 0 || room.counts === 0) return fail(failure('particles.both', 'readings'));
  if (!test.readingsSi.every((c) => Number.isInteger(c))) return fail(failure('particles.whole', 'readings'));
  return ok({
    form: 'particles',
    particles: judgeParticles({ exhaust, room }),
    sizeUm: detail.sizeUm,
    counted: { exhaust, room },
    passed: judgeRoomCount({ exhaust, room }),
  });
};

/**
 * Reduces any test by the form of its method. Source: as the reduction of each form names it. Returns what is missing
 * by name; never throws for a record that was once accepted.
 */
export const reduceAny = (test: TestReadings): Result<Reduced> => {
  switch (METHODS[test.method].form) {
    case 'series': {
      const series = reduceTest(test);
      return series.ok ? ok({ form: 'series', series: series.value }) : series;
    }
    case 'curve':
      return reduceCurve(test);
    case 'particles':
      return reduceParticles(test);
    case 'word':
      return ok({ form: 'word', detail: test.detail });
  }
};
