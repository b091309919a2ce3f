import { PLATE_COEFFICIENT } from '@/core/constants/rig';
import type { MethodDetail } from '@/core/measure/detail';
import type { DetailEntry } from '@/core/measure/detail-entry';
import { METHOD_NAMES, type Method, METHODS } from '@/core/measure/methods';
import type { Typed } from '@/core/measure/typed';
import { fromSi, type QuantityKind, SHOWN, type UnitSystem, toDigits } from '@/core/units';

/** An SI value as a person would type it in a unit; '' for null. */
export const typedOf = (valueSi: number | null, kind: QuantityKind, unit: string): Typed => ({
  typed: valueSi === null ? '' : String(toDigits(fromSi(kind, valueSi, unit), 6)),
  unit,
});

interface Starting {
  readonly units: UnitSystem;
  readonly stageId: number | null;
}

/** Sealed, then holes from small to large, as a first proposal. */
const CURVE_HOLES: Record<UnitSystem, readonly string[]> = {
  metric: ['0', '10', '16', '22', '30', '40'],
  us: ['0', '0.375', '0.625', '0.875', '1.25', '1.5'],
};

const detailFor = (method: Method, { units, stageId }: Starting): DetailEntry => {
  const length = SHOWN[units].length.unit;
  const empty: Typed = { typed: '', unit: length };
  const seconds = (typed: string): Typed => ({ typed, unit: 's' });
  switch (method) {
    case 'anemometerTraverse':
    case 'pitotTraverse':
      return { kind: 'round', diameter: empty, pointsPerDiameter: 6, diameters: 2 };
    case 'orifice':
      return { kind: 'plate', orifice: empty, coefficient: PLATE_COEFFICIENT.value, pipe: null };
    case 'suctionCurve':
      return {
        kind: 'curve',
        orifices: CURVE_HOLES[units].map((typed) => ({ typed, unit: length })),
        coefficient: PLATE_COEFFICIENT.value,
      };
    case 'stageDp':
      return { kind: 'stage', stageId };
    case 'filterMass':
      return { kind: 'mass', stageId, newMass: { typed: '', unit: SHOWN[units].mass.unit } };
    case 'gaugeZone':
      return { kind: 'zone', stageId, zone: null };
    case 'particles':
      return {
        kind: 'particles',
        sizeUm: 0.3,
        flow: { typed: '2.83', unit: 'L/min' },
        exhaustTime: seconds('60'),
        roomTime: seconds('60'),
      };
    case 'hand':
      return { kind: 'hand', word: null };
    case 'indicator':
      return { kind: 'light', name: '', light: null, after: seconds('15') };
    default:
      return { kind: 'none' };
  }
};

const everyMethod = <T>(make: (method: Method) => T): Readonly<Record<Method, T>> =>
  Object.fromEntries(METHOD_NAMES.map((m) => [m, make(m)])) as Record<Method, T>;

export const startDetails = (starting: Starting) => everyMethod((m) => detailFor(m, starting));

export const startPads = () => everyMethod(() => []);

const US_SUCTION = 'inH2O';

/** The unit a bare number takes at first, by method. */
export const startUnits = (units: UnitSystem) =>
  everyMethod((m) => {
    const { reads, group } = METHODS[m];
    if (reads === 'pressure' && group !== 'suction') return units === 'us' ? US_SUCTION : 'Pa';
    return SHOWN[units][reads].unit;
  });

/** A recorded detail back in the fields it was typed in. */
export const entryOfDetail = (detail: MethodDetail, units: UnitSystem): DetailEntry => {
  const { unit } = SHOWN[units].length;
  const length = (valueM: number | null) => typedOf(valueM, 'length', unit);
  switch (detail.kind) {
    case 'none':
    case 'stage':
    case 'zone':
    case 'hand':
      return detail;
    case 'traverse': {
      const { plan } = detail;
      return plan.shape === 'round'
        ? {
            kind: 'round',
            diameter: length(plan.diameterM),
            pointsPerDiameter: plan.pointsPerDiameter,
            diameters: plan.diameters,
          }
        : {
            kind: 'rectangular',
            width: length(plan.widthM),
            height: length(plan.heightM),
            linesAcross: plan.linesAcross,
            linesUp: plan.linesUp,
          };
    }
    case 'plate':
      return {
        kind: 'plate',
        orifice: length(detail.plate.orificeM),
        coefficient: detail.plate.coefficient,
        pipe: detail.plate.pipeM === null ? null : length(detail.plate.pipeM),
      };
    case 'curve':
      return { kind: 'curve', orifices: detail.orificesM.map(length), coefficient: detail.coefficient };
    case 'mass':
      return {
        kind: 'mass',
        stageId: detail.stageId,
        newMass: typedOf(detail.newMassKg, 'mass', SHOWN[units].mass.unit),
      };
    case 'particles':
      return {
        kind: 'particles',
        sizeUm: detail.sizeUm,
        flow: typedOf(detail.flowM3s, 'flow', 'L/min'),
        exhaustTime: typedOf(detail.exhaustS, 'duration', 's'),
        roomTime: typedOf(detail.roomS, 'duration', 's'),
      };
    case 'light':
      return { kind: 'light', name: detail.name, light: detail.light, after: typedOf(detail.afterS, 'duration', 's') };
  }
};
