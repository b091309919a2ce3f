import type { Accuracy } from '@/core/measure/accuracy';
import { type QuantityKind, showFine, type UnitSystem, toDigits } from '@/core/units';
import { whereAbove0 } from './format';

/** The accuracy of a meter, as its plate would give it. */
export const sayAccuracy = (
  { meaning, coverageFactor, relative, absoluteSi }: Accuracy,
  reads: QuantityKind,
  units: UnitSystem,
): string => {
  const parts = [
    ...whereAbove0(relative, (r) => `${toDigits(100 * r, 3)} % of the reading`),
    ...whereAbove0(absoluteSi, (a) => showFine(reads, a, units)),
  ];
  const figure = parts.join(' and ');
  return meaning === 'limits'
    ? `± ${figure}`
    : meaning === 'expanded'
      ? `± ${figure}, expanded, k = ${coverageFactor}`
      : `${figure}, one standard uncertainty`;
};
