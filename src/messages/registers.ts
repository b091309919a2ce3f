import type { Accuracy } from '@/core/measure/accuracy';
import { type QuantityKind, showFine, type UnitSystem } from '@/core/units';

/** The accuracy of a meter, as its plate would give it. */
export const sayAccuracy = (
  { meaning, coverageFactor, relative, absoluteSi }: Accuracy,
  reads: QuantityKind,
  units: UnitSystem,
): string => {
  const parts = [
    ...(relative > 0 ? [`${Number((100 * relative).toPrecision(3))} % of the reading`] : []),
    ...(absoluteSi > 0 ? [showFine(reads, absoluteSi, units)] : []),
  ];
  const figure = parts.join(' and ');
  return meaning === 'limits'
    ? `± ${figure}`
    : meaning === 'expanded'
      ? `± ${figure}, expanded, k = ${coverageFactor}`
      : `${figure}, one standard uncertainty`;
};
