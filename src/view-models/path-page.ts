import type { FanChart } from '@/charts/fan-option';
import type { Calibration, Compared, FittedParameter } from '@/core/calibrate/calibrate';
import { AS_NEW } from '@/core/path/as-new';
import { fanXY, systemXY } from '@/core/path/curves';
import { show, showFine, showPercent, showTwo, type UnitSystem, toDigits, fixed } from '@/core/units';
import { capital, PLACE_WORDS } from '@/messages/words';
import type { AirPathPage } from '@/server/services/measuring/air-path';

export interface ReadingRow {
  readonly what: string;
  readonly measured: string;
  readonly expanded: string;
  readonly model: string;
  readonly off: string;
  readonly agrees: boolean;
}

const placed = (label: string): string =>
  Object.entries(PLACE_WORDS).reduce((text, [key, words]) => text.replace(key, words), label);

/** The baseline readings beside the model's values. */
export const readingRows = (compared: readonly Compared[], units: UnitSystem): readonly ReadingRow[] =>
  compared.map(({ observation: o, predicted, residual, agrees }) => {
    const kind = o.what === 'flow' ? 'flow' : 'pressure';
    return {
      what: capital(placed(o.label)),
      measured: showFine(kind, o.value, units),
      expanded: showTwo(kind, o.expanded, units),
      model: showFine(kind, predicted, units),
      off: `${residual < 0 ? '−' : '+'}${showPercent(residual / o.value)}`,
      agrees,
    };
  });

const PARAMETER_WORDS = {
  p0Pa: 'Fan, sealed suction',
  qMaxM3s: 'Fan, free flow',
  leakM2: 'Leak of the seals',
  pathScale: 'Clean path, times its typical resistance',
} as const;

const figureOf = (name: FittedParameter['name'], value: number, units: UnitSystem): string => {
  switch (name) {
    case 'p0Pa':
      return show('pressure', value, units);
    case 'qMaxM3s':
      return show('flow', value, units);
    case 'leakM2':
      return `${toDigits(value * 1e6, 2)} mm²`;
    case 'pathScale':
      return fixed(value, 2);
  }
};

export interface ParameterRow {
  readonly what: string;
  readonly value: string;
  readonly range: string;
  readonly learned: boolean;
}

export const parameterRows = ({ fitted }: Calibration, units: UnitSystem): readonly ParameterRow[] =>
  fitted.map((f) => ({
    what: PARAMETER_WORDS[f.name],
    value: figureOf(f.name, f.value, units),
    range: `${figureOf(f.name, f.low, units)} to ${figureOf(f.name, f.high, units)}`,
    learned: f.learned,
  }));

/** The fan chart's data: the fan, the path as new and today, and where they cross. */
export const fanChartOf = ({ view }: AirPathPage, units: UnitSystem): FanChart => {
  const { model, parameters, asNew, now } = view;
  const points = [
    ...(asNew ? [{ name: 'as new', flowM3s: asNew.fanFlowM3s, liftPa: asNew.fanLiftPa }] : []),
    ...(now ? [{ name: 'today', flowM3s: now.fanFlowM3s, liftPa: now.fanLiftPa }] : []),
  ];
  const whole = { ...model, stages: model.stages.map((s) => ({ ...s, missing: false })) };
  return {
    units,
    fan: fanXY(model, parameters),
    asNew: systemXY(whole, parameters, AS_NEW),
    today: systemXY(model, parameters, view.today.state),
    points,
  };
};
